import { fromMinor, magnitude } from '../../../core/numbers/amount.ts';
import { addDays } from '../../../core/numbers/isoDate.ts';
import { receiptLifecycle } from '../../../core/workflow/lifecycles/gathering.ts';
import type { Confirmation } from '../../../contract/gather.ts';
import { perform } from '../../platform/acts/perform.ts';
import type { Outcome } from '../../platform/acts/acts.types.ts';
import type { Actor, Context, Services } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { Refused } from '../../platform/http/refusal.ts';
import type { JobData } from '../../platform/jobs/jobs.ts';
import { TooSlow, Unreadable } from '../../platform/outside/unreadable.ts';
import { latestToday } from '../../platform/ports/clock.ts';
import {
  countOwnReceipts,
  MOST_RECEIPTS,
  resetReading,
  selectClaimsWithFile,
  selectOwnReceipts,
  selectWaiting,
  saveFailure,
  saveReading,
  type ReceiptRecord,
} from '../../records/receipts/receipts.queries.ts';
import { selectTwins, type Twin } from '../../records/receipts/twins.queries.ts';
import { minorOf } from '../../records/claims/minorOf.ts';
import { onlyClaim } from '../../records/claims/usesOf.ts';
import { assertFree, receiptRecords, type LockedReceipt, type SeenReceipt } from './receipts.store.ts';

/** After every other job, and a smaller file before a larger one: what took too long among others is read when it is quiet. */
const whenQuiet = (bytes: Buffer): number => -1_000_000 - bytes.byteLength;

/**
 * Reads a waiting file and keeps what was found; claims in preparation that use it are assessed again. Done already, it does
 * nothing. What takes too long is tried once more, when nothing else waits.
 */
export async function readReceipt(
  services: Pick<Services, 'db' | 'reader' | 'clock' | 'jobs'>,
  { sha256, again }: JobData['read-receipt'],
): Promise<void> {
  const { db, reader, clock, jobs } = services;
  const file = await selectWaiting(db, sha256);
  if (!file) return;
  try {
    await saveReading(db, sha256, await reader.read({ ...file, asOf: latestToday(clock) }), clock.now());
  } catch (error) {
    if (!(error instanceof Unreadable)) throw error;
    if (error instanceof TooSlow && !again)
      return jobs.ask(db, 'read-receipt', { sha256, again: true }, whenQuiet(file.bytes));
    await saveFailure(db, sha256, error.message, clock.now());
  }
  await tellClaims(services, sha256);
}

const tellClaims = ({ db, jobs }: Pick<Services, 'db' | 'jobs'>, sha256: string): Promise<void> =>
  inTransaction({ db }, async (trx) => {
    for (const claim of await selectClaimsWithFile(trx, sha256))
      await jobs.ask(trx, 'assess-claims', { key: onlyClaim(claim) });
  });

/**
 * A person's receipts with what was read, what was confirmed, where they are used, and who added the same; or those they
 * took away or made others of. `more` is how many older ones are not shown.
 */
export async function viewReceipts({ db }: Context, actor: Actor, gone = false) {
  const receipts = await selectOwnReceipts(db, actor.id, gone);
  const twins = gone ? [] : await selectTwins(db, receipts);
  const all = receipts.length < MOST_RECEIPTS ? receipts.length : await countOwnReceipts(db, actor.id, gone);
  return { receipts: receipts.map((r) => writeReceipt(r, twins, actor)), more: all - receipts.length };
}

function writeReceipt(r: ReceiptRecord, twins: readonly Twin[], actor: Actor) {
  const confirmed = r.confirmedAt
    ? {
        amount: r.amount === null ? null : fromMinor(r.amount, r.currency!),
        currency: r.currency,
        date: r.date,
        merchant: r.merchant,
        taxNumber: r.taxNumber,
        cardDigits: r.cardDigits,
        taxes: r.taxes,
      }
    : null;
  return {
    id: String(r.id),
    revision: r.revision,
    name: r.name,
    cameIn: r.cameIn,
    standing: r.standing,
    madeFrom: r.madeFrom.map(String),
    addedAt: r.addedAt,
    kind: r.kind,
    pages: r.pages,
    state: r.state ?? 'read',
    problem: r.problem,
    method: r.method,
    reading: r.reading,
    remarks: r.remarks ?? [],
    confirmed,
    usedOn: r.usedOn,
    alike: twins
      .filter((t) => t.ofId === r.id)
      .map((t) => ({
        how: t.how,
        own: t.ownerId === actor.id,
        id: t.ownerId === actor.id ? String(t.id) : null,
        name: t.ownerId === actor.id ? t.name : null,
        addedAt: t.addedAt,
      })),
  };
}

const actOn = (
  context: Context,
  actor: Actor,
  act: 'confirm' | 'readAgain' | 'remove',
  { id, revision }: SeenReceipt,
  work: (trx: Db, locked: LockedReceipt) => Promise<Outcome<void>>,
): Promise<void> =>
  inTransaction(context, (trx) =>
    perform(
      context,
      trx,
      { lifecycle: receiptLifecycle, store: receiptRecords, act, key: id, actor, revision },
      (locked) => work(trx, locked),
    ),
  );

/** Keeps what the owner says the receipt shows, beside what was read. Claims in preparation that use it are assessed again. */
export function confirmReceipt(context: Context, actor: Actor, id: bigint, said: Confirmation): Promise<void> {
  return actOn(context, actor, 'confirm', { id, revision: said.revision }, async (_trx, { receipt }) => {
    assertFree(receipt);
    const amount = minorOf(said.amount, said.currency, 'amount');
    assertPossible(said, amount, latestToday(context.clock));
    const columns = {
      amount,
      currency: said.currency,
      date: said.date,
      merchant: said.merchant,
      tax_number: said.taxNumber || null,
      card_digits: said.cardDigits ?? null,
      taxes: JSON.stringify(said.taxes),
      confirmed_at: context.clock.now(),
    };
    const claims = [...new Set(receipt.usedOn.map((use) => use.claim))];
    const jobs = claims.map((claim) => ({ name: 'assess-claims' as const, data: { key: onlyClaim(claim) } }));
    return { result: undefined, columns, about: receipt.sha256, jobs };
  });
}

/** The last time zone is a day ahead of the first, so a purchase of tomorrow here may be one of today there. */
function assertPossible({ date, currency, taxes }: Confirmation, amount: bigint, now: string): void {
  if (date > addDays(now, 1)) throw new Refused('future-purchase', { date, path: 'date' });
  for (const [i, { base, tax }] of taxes.entries())
    for (const [field, figure] of Object.entries({ base, tax }))
      if (figure != null && magnitude(minorOf(figure, currency, `taxes.${i}.${field}`)) > magnitude(amount))
        throw new Refused('tax-above-total', { figure, path: `taxes.${i}.${field}` });
}

/** Takes a receipt away; its file and reading stay. */
export const removeReceipt = (context: Context, actor: Actor, seen: SeenReceipt): Promise<void> =>
  actOn(context, actor, 'remove', seen, async (_trx, { receipt }) => {
    const [use] = receipt.usedOn;
    if (use) throw new Refused('receipt-in-use', { claim: use.claim, state: use.state });
    return { result: undefined };
  });

/** Reads a receipt once more, for instance after a reading that failed. Evidence under review stays as it is. */
export const readAgain = (services: Services, actor: Actor, seen: SeenReceipt): Promise<void> =>
  actOn(services, actor, 'readAgain', seen, async (trx, { receipt }) => {
    assertFree(receipt);
    await resetReading(trx, receipt.sha256, services.clock.now());
    const jobs = [{ name: 'read-receipt' as const, data: { sha256: receipt.sha256 } }];
    return { result: undefined, about: receipt.sha256, jobs };
  });
