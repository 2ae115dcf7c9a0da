import { compare } from '../../../core/numbers/fraction.ts';
import { decimalToFraction } from '../../../core/numbers/decimal.ts';
import { EVERY_ENTITY } from '../../../core/workflow/lifecycle.types.ts';
import {
  correctionLifecycle,
  type CorrectionAct,
  type CorrectionState,
} from '../../../core/workflow/lifecycles/keeping.ts';
import type { AskCorrection } from '../../../contract/rates.ts';
import type { LockedRecord, RecordStore } from '../../platform/acts/acts.types.ts';
import { perform, performBirth } from '../../platform/acts/perform.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { invalid, Refused } from '../../platform/http/refusal.ts';
import { mayTakeRate } from '../../records/book/rateUse.queries.ts';
import { useOfRate } from '../../records/claims/usesOf.ts';
import {
  correctRate,
  insertCorrection,
  lockCorrection,
  selectCorrections,
  selectRate,
  updateCorrection,
  type CorrectionRow,
  type RateKey,
} from './rates.queries.ts';

interface LockedCorrection extends LockedRecord<CorrectionState> {
  row: CorrectionRow;
}

const keyOf = ({ from_currency: from, to_currency: to, date }: CorrectionRow): RateKey => ({ from, to, date });
const ownerOf = async (db: Db, rate: RateKey, actor: Actor) =>
  (await mayTakeRate(db, actor.id, rate)) ? actor.id : null;

const correctionStore = (actor: Actor): RecordStore<CorrectionState, LockedCorrection, bigint> => ({
  async lock(trx, id) {
    const row = await lockCorrection(trx, id);
    if (!row) return undefined;
    const people = { maker: row.asked_by, owner: await ownerOf(trx, keyOf(row), actor) };
    const { state, revision } = row;
    return { id: String(id), name: nameOf(keyOf(row)), state, revision, entity: EVERY_ENTITY, people, row };
  },
  save: (trx, { row }, changes) => updateCorrection(trx, row.id, changes),
  exists: () => true,
});

const nameOf = ({ from, to, date }: RateKey): string => `${from} to ${to} of ${date}`;

/** Asks for a published rate to be put right, with the reason and where the right one is published. */
export const askCorrection = (context: Context, actor: Actor, asked: AskCorrection): Promise<void> =>
  inTransaction(context, async (trx) => {
    const { from, to, date, becomes, source, reason } = asked;
    const there = await selectRate(trx, asked);
    if (!there) throw new Refused('not-found', { what: `rate from ${from} to ${to} of ${date}` });
    if (compare(decimalToFraction(there.rate), decimalToFraction(becomes)) === 0)
      throw invalid({ path: ['becomes'], message: 'is what is published already' });
    const people = { owner: await ownerOf(trx, asked, actor) };
    const birth = { lifecycle: correctionLifecycle, act: 'ask', actor, entity: EVERY_ENTITY, people } as const;
    await performBirth(context, trx, birth, async () => {
      const id = await insertCorrection(trx, {
        ...{ state: 'asked for', from_currency: from, to_currency: to, date, was: there.rate, becomes, source, reason },
        ...{ asked_by: actor.id, asked_at: context.clock.now() },
      });
      const facts = { from, to, date, was: there.rate, becomes, source };
      return { id: String(id), state: 'asked for', result: undefined, facts, words: { reason } };
    });
  });

interface Seen {
  id: bigint;
  revision: number;
}

/** Lets a correction be: the rate changes, what is posted stays, and what is not is assessed again. */
export const confirmCorrection = (context: Context, actor: Actor, seen: Seen): Promise<void> =>
  act(context, actor, 'confirm', seen, async (trx, row) => {
    await correctRate(trx, { id: row.id, person: actor.id, proof: actor.proof! });
    const { from, to } = keyOf(row);
    return [from, to].map((currency) => ({ name: 'assess-claims' as const, data: { key: useOfRate(currency) } }));
  });

/** Drops a correction that is not to be; the rate stays. */
export const dropCorrection = (context: Context, actor: Actor, seen: Seen): Promise<void> =>
  act(context, actor, 'drop', seen, async () => []);

function act(
  context: Context,
  actor: Actor,
  name: CorrectionAct,
  { id, revision }: Seen,
  work: (trx: Db, row: CorrectionRow) => Promise<{ name: 'assess-claims'; data: { key: string } }[]>,
): Promise<void> {
  return inTransaction(context, (trx) =>
    perform(
      context,
      trx,
      { lifecycle: correctionLifecycle, store: correctionStore(actor), act: name, key: id, actor, revision },
      async ({ row }) => {
        const jobs = await work(trx, row);
        const { was, becomes, source } = row;
        const columns = { decided_by: actor.id, decided_at: context.clock.now() };
        return { result: undefined, columns, facts: { ...keyOf(row), was, becomes, source }, jobs };
      },
    ),
  );
}

/** Corrections of rates, those that wait first. */
export async function viewCorrections({ db }: Pick<Context, 'db'>, actor: Actor) {
  const rows = await selectCorrections(db);
  return {
    corrections: rows.map((row) => ({
      ...{ id: String(row.id), revision: row.revision, state: row.state, ...keyOf(row) },
      ...{ was: row.was, becomes: row.becomes, source: row.source, reason: row.reason },
      ...{ askedBy: row.asked_name, askedAt: row.asked_at, decidedBy: row.decided_name, decidedAt: row.decided_at },
      own: row.asked_by === actor.id,
    })),
  };
}
