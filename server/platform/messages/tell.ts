import { fromMinor } from '../../../core/numbers/amount.ts';
import { concerned } from '../../../core/workflow/concerned.ts';
import type { ActRecord, Told } from '../../../core/workflow/lifecycle.types.ts';
import type { Context } from '../context.ts';
import type { Db } from '../db/connect.ts';
import { insertMessages } from './tell.queries.ts';

/** What is told of a record beside the facts of its event: amounts as decimal strings. */
export interface ToldAbout {
  /** Whose it is, by id. */
  whose: string;
  purpose: string;
  amount: string | null;
  currency: string;
  /** Of an advance: by when it is to be accounted for. */
  dueBy?: string | null;
}
/** The same of a record's row, whose amount is in minor units or (null) cannot be computed. */
export const toldAbout = (
  whose: string,
  { purpose, currency }: { purpose: string; currency: string },
  minor: bigint | null,
): ToldAbout => ({ whose, purpose, amount: minor === null ? null : fromMinor(minor, currency), currency });

/** An act that was done, as those hear of it whom it concerns. */
export interface Telling {
  record: { kind: string; id: string; entity: string | null };
  event: string;
  tells: readonly Told[];
  before: Pick<ActRecord, 'people'>;
  after: Pick<ActRecord, 'people'>;
  actor: string | null;
  about: ToldAbout;
  facts: Record<string, unknown>;
}

/**
 * Leaves word for everybody an act concerns, inside the transaction of the act: who it is for, and who
 * did something on the record that the act answers and still looks at claims there. What is wanted by mail at once goes out by a
 * job of the same transaction.
 */
export async function tell(context: Context, trx: Db, telling: Telling): Promise<void> {
  const { record, event, tells, before, after, actor, about, facts } = telling;
  const hearers = concerned(tells, before, after, actor);
  const did = tells.flatMap((told) => (typeof told === 'string' ? [] : [told.did]));
  if (hearers.length === 0 && did.length === 0) return;
  const wanted = await insertMessages(trx, {
    ...{ record, event, actor, hearers, did, entity: record.entity },
    facts: { ...facts, ...about },
    at: context.clock.now(),
    quiet: context.jobs.quiet ?? false,
  });
  if (wanted.includes('at once')) await context.jobs.ask(trx, 'send-mail', {});
}
