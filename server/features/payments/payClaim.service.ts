import { referenceConverter } from '../../../core/figures/currency/converter.ts';
import { settleOpenItem, type OpenItem } from '../../../core/ledger/settleOpenItem.ts';
import { fromMinor } from '../../../core/numbers/amount.ts';
import type { SharedBook } from '../../../core/documents/splitBook.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { ratesOn } from '../../records/book/ratesOn.ts';
import { currentBook } from '../../records/book/sharedBook.ts';
import { actOnClaim, type LockedClaim, type SeenClaim } from '../../records/claims/claimStore.ts';
import { journalRecords } from '../../records/ledger/claimJournal.ts';
import { selectOpenItems } from '../../records/ledger/journals.queries.ts';
import { claimSource } from '../../records/ledger/ledger.types.ts';
import { postJournal } from '../../records/ledger/postJournal.ts';

/** A payment of a claim: on a day, of all that is open (null) or of less (minor units of the claim's currency). */
export interface Payment extends SeenClaim {
  date: string;
  amount: bigint | null;
}

/**
 * Records the payment of a posted claim: Dr payable at its booked value, Cr bank at the day's rate, the difference to
 * exchange differences. The claim is paid when nothing is open any more. The journal's number.
 */
export function payClaim(context: Context, actor: Actor, { date, amount, ...seen }: Payment): Promise<string> {
  const act = amount === null ? 'pay' : 'payPart';
  return inTransaction(context, (trx) =>
    actOnClaim(context, trx, { act, claim: seen, actor }, async ({ row }) => {
      const subject = claimSource(row.number, row.version);
      const { content } = await currentBook(trx, row.entity_id);
      const { rows, currency } = await settle(trx, row, content, { date, amount });
      const journal = await postJournal(context, trx, actor, {
        entity: row.entity_id,
        currency,
        date,
        purpose: 'payment',
        // Part payments follow each other, so each is a source of its own.
        source: { kind: 'payment', id: `${subject.id}/${row.revision + 1}` },
        ...journalRecords(rows, { person: row.claimant_id, subject, entity: row.entity_id }),
      });
      return { result: journal.number, facts: { journal: journal.number, date }, about: journal.hash };
    }),
  );
}

async function settle(
  trx: Db,
  row: LockedClaim['row'],
  book: SharedBook,
  { date, amount }: Pick<Payment, 'date' | 'amount'>,
) {
  const { accounts, currency: ledger } = book.entities[0]!;
  if (!accounts.bank) throw new Refused('no-account', { account: 'bank', entity: row.entity_id });
  const item = await openPayable(trx, row);
  if (amount !== null && (amount <= 0n || amount >= item.open))
    throw new Refused('no-part', { open: fromMinor(item.open, item.currency), currency: item.currency });
  const paid = amount ?? item.open;
  const table = await ratesOn(trx, [row.currency, ledger], date);
  const bank = referenceConverter(table, row.currency, ledger, date).convert(paid);
  if (bank === null) throw new Refused('no-rate', { from: row.currency, to: ledger, date });
  const settlement = {
    amount: paid,
    bank,
    bankAccount: accounts.bank,
    exchangeAccount: accounts.exchangeDifference,
    ledgerCurrency: ledger,
    text: `Payment of ${row.number}`,
  };
  return { rows: settleOpenItem(item, settlement).rows, currency: ledger };
}

/** What is owed for a claim, as positive figures. */
async function openPayable(trx: Db, row: LockedClaim['row']): Promise<OpenItem> {
  const items = await selectOpenItems(trx, claimSource(row.number, row.version));
  const item = items.find((i) => i.kind === 'payable' && i.amount !== 0n);
  if (!item) throw new Refused('nothing-to-post');
  return {
    kind: 'payable',
    account: item.account,
    currency: item.currency,
    open: -item.amount,
    booked: -item.ledger_amount,
  };
}

/** Notes that the bank refused a payment; the claim waits to be paid again. */
export const rejectPayment = (context: Context, actor: Actor, seen: SeenClaim, reason: string): Promise<void> =>
  inTransaction(context, (trx) =>
    actOnClaim(context, trx, { act: 'rejectPayment', claim: seen, actor }, async () => ({
      result: undefined,
      words: { reason },
    })),
  );
