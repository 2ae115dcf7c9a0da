import type { GiveBack, PayOut } from '../../../contract/advances.ts';
import type { Entity } from '../../../core/documents/case.schema.ts';
import type { RowFigures } from '../../../core/figures/figures.types.ts';
import { referenceConverter } from '../../../core/figures/currency/converter.ts';
import { payOut } from '../../../core/ledger/payOut.ts';
import { settleOpenItem, type OpenItem } from '../../../core/ledger/settleOpenItem.ts';
import { fromMinor } from '../../../core/numbers/amount.ts';
import type { Actor, Context, Services } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { actOnAdvance, type SeenAdvance } from '../../records/advances/advanceStore.ts';
import type { AdvanceRow } from '../../records/advances/advances.queries.ts';
import { refuseEarly } from '../../records/advances/refuseEarly.ts';
import { settleAdvances } from '../../records/advances/settleAdvances.ts';
import { attach, takeFile, type SentFile } from '../../records/attachments/takeFile.ts';
import { ratesOn } from '../../records/book/ratesOn.ts';
import { currentBook } from '../../records/book/sharedBook.ts';
import { minorOf } from '../../records/claims/minorOf.ts';
import { journalRecords } from '../../records/ledger/claimJournal.ts';
import { lockAdvances, selectOpenItems } from '../../records/ledger/journals.queries.ts';
import type { Source } from '../../records/ledger/ledger.types.ts';
import { postJournal } from '../../records/ledger/postJournal.ts';
import { hasAccount, insertPayment, selectPaidOn, selectPaymentOf } from './advances.queries.ts';

/** As it was seen; the demo, which has seen nothing, names no revision. */
type Seen = Omit<SeenAdvance, 'revision'> & { revision: number | null };
type Said<T> = Seen & Omit<T, 'revision'>;

/** Records that an advance was paid out, and posts it: staff advances against the bank. The journal's number. */
export const payOutAdvance = (
  context: Context,
  actor: Actor,
  { number, revision, ...said }: Said<PayOut>,
): Promise<string> =>
  inTransaction(context, (trx) =>
    actOnAdvance(context, trx, { act: 'payOut', advance: { number, revision }, actor }, async ({ row }) => {
      const moved = await bankOf(trx, row, row.amount, said);
      const accounts = { ...moved.entity.accounts, bank: moved.account };
      const rows = payOut(row, { bank: moved.bank, ledgerCurrency: moved.entity.currency, accounts });
      const source = { kind: 'advance' as const, id: row.id };
      const posting = { purpose: 'advance payout' as const, source, rows, amount: row.amount, moved };
      const { journal, hash } = await post(context, trx, actor, row, { ...said, ...posting });
      return { result: journal, facts: { date: said.date, journal }, about: hash };
    }),
  );

/**
 * Records money given back of an advance: the bank against staff advances at their booked value, the difference to exchange
 * differences; with the last of it nothing is left in either currency. The journal's number.
 */
export const giveBackAdvance = (
  context: Context,
  actor: Actor,
  { number, revision, ...said }: Said<GiveBack>,
): Promise<string> =>
  inTransaction(context, async (trx) => {
    // before the advance itself, as postings of claims do, so that neither waits for the other
    await lockAdvances(trx, [number]);
    const journal = await actOnAdvance(
      context,
      trx,
      { act: 'giveBack', advance: { number, revision }, actor },
      async ({ row, revision: now }) => {
        const paidOn = (await selectPaidOn(trx, number))!;
        if (said.date < paidOn) throw new Refused('before-payout', { date: said.date, paidOn, path: 'date' });
        const item = await openItem(trx, row);
        const amount = minorOf(said.amount, row.currency, 'amount');
        if (amount > item.open)
          throw new Refused('more-than-open', {
            open: fromMinor(item.open, row.currency),
            currency: row.currency,
            path: 'amount',
          });
        await refuseEarly(trx, [{ advance: row.id, currency: row.currency, amount }], said.date);
        const moved = await bankOf(trx, row, amount, said);
        const { rows } = settleOpenItem(item, {
          ...{ amount, bank: moved.bank, bankAccount: moved.account },
          exchangeAccount: moved.entity.accounts.exchangeDifference,
          ledgerCurrency: moved.entity.currency,
          text: `Advance ${row.id} given back`,
        });
        // returns follow each other, so each is a source of its own
        const source = { kind: 'payment' as const, id: `${row.id}/${now}` };
        const posting = { purpose: 'advance returned' as const, source, rows, amount, moved };
        const { journal, hash } = await post(context, trx, actor, row, { ...said, ...posting });
        const facts = { date: said.date, amount: said.amount, currency: row.currency, journal };
        return { result: journal, facts, about: hash };
      },
    );
    for (const { name, data } of await settleAdvances(context, trx, [number]))
      await context.jobs.ask(trx, name, data as never);
    return journal;
  });

interface Moved {
  entity: Entity;
  account: string;
  /** Minor units of the ledger's currency. */
  bank: bigint;
}

/** What the bank moved: as it was said, or by the published rate of the day; in the ledger's own currency the amount itself. */
async function bankOf(
  trx: Db,
  row: AdvanceRow,
  amount: bigint,
  { date, bank: said, account: wanted }: Pick<PayOut, 'date' | 'bank' | 'account'>,
): Promise<Moved> {
  const { content } = await currentBook(trx, row.entity_id);
  const entity = content.entities[0]!;
  const account = await bankAccount(trx, entity, wanted);
  const byRate = referenceConverter(
    await ratesOn(trx, [row.currency, entity.currency], date),
    row.currency,
    entity.currency,
    date,
  );
  const computed = byRate.convert(amount);
  const bank = said === undefined ? computed : minorOf(said, entity.currency, 'bank');
  if (bank === null) throw new Refused('no-rate', { from: row.currency, to: entity.currency, date });
  if (row.currency === entity.currency && bank !== amount)
    throw new Refused('bank-same', { amount: fromMinor(amount, row.currency), currency: row.currency, path: 'bank' });
  return { entity, account, bank };
}

/** The account of the bank: one of the chart that no claim, card or advance moves. */
async function bankAccount(trx: Db, { id, accounts, cards }: Entity, wanted: string | undefined): Promise<string> {
  const account = wanted ?? accounts.bank;
  if (!account) throw new Refused('no-account', { account: 'bank', entity: id });
  const { bank: _, ...others } = accounts;
  const taken = [...Object.values(others), ...Object.values(cards ?? {})].includes(account);
  if (taken || !(await hasAccount(trx, account))) throw new Refused('not-a-bank', { account, path: 'account' });
  return account;
}

async function openItem(trx: Db, row: AdvanceRow): Promise<OpenItem> {
  const items = await selectOpenItems(trx, { kind: 'advance', id: row.id });
  const item = items.find((i) => i.kind === 'staff advance')!;
  const { account, currency, amount, ledger_amount } = item;
  return { kind: 'staff advance', account, currency, open: amount, booked: ledger_amount };
}

interface Posting extends Pick<PayOut, 'date' | 'reference'> {
  purpose: 'advance payout' | 'advance returned';
  source: Source;
  rows: readonly RowFigures[];
  amount: bigint;
  moved: Moved;
}

/** Posts a movement of an advance and keeps it beside it. */
async function post(
  context: Context,
  trx: Db,
  actor: Actor,
  row: AdvanceRow,
  { date, reference, purpose, source, rows, amount, moved }: Posting,
) {
  const subject = { kind: 'advance' as const, id: row.id };
  const journal = await postJournal(context, trx, actor, {
    ...{ entity: row.entity_id, currency: moved.entity.currency, date, purpose, source },
    ...journalRecords(rows, { person: row.person_id, subject, entity: row.entity_id }),
  });
  await insertPayment(trx, {
    ...{ advance_id: row.id, kind: purpose === 'advance payout' ? ('payout' as const) : ('return' as const) },
    ...{ date, amount, bank: moved.bank, account: moved.account, reference },
    ...{ journal_id: journal.id, by_id: actor.id, at: context.clock.now() },
  });
  return { journal: journal.number, hash: journal.hash };
}

/** Keeps the proof of a payout or of a return beside it. */
export async function addProof(
  services: Services,
  actor: Actor,
  seen: SeenAdvance,
  payment: bigint,
  sent: SentFile,
): Promise<void> {
  const file = await takeFile(services, actor, sent);
  await inTransaction(services, (trx) =>
    actOnAdvance(services, trx, { act: 'addProof', advance: seen, actor }, async ({ row }) => {
      const found = await selectPaymentOf(trx, row.id, payment);
      if (!found) throw new Refused('not-found', { what: 'payment' });
      await attach(services, trx, actor, { payment_id: found.id }, file);
      return { result: undefined, facts: { of: found.kind, journal: found.journal } };
    }),
  );
}
