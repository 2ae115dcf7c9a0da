import type { Db } from '../../../platform/db/connect.ts';
import type { ClaimRow } from '../../../records/claims/claims.queries.ts';

/** A claim as it is when it is chosen to be cleared with others. */
export type ChosenClaim = ClaimRow & { clean: boolean };
export const selectChosen = (db: Db, numbers: readonly string[]): Promise<ChosenClaim[]> =>
  db('claims')
    .whereIn('number', [...numbers])
    .select('*', db.raw(`'clean' = any(facets) as clean`));

export interface NewRun {
  person: string;
  proof: string;
  at: Date;
  seed: string;
  share: number;
  secretHash: string;
}
/** Begins a run in the name of who shows that they are that person. */
export async function insertRun(trx: Db, { person, proof, at, seed, share, secretHash }: NewRun): Promise<string> {
  const values = [person, proof, at, seed, share, secretHash];
  const { rows } = await trx.raw('select begin_clearing(?, ?, ?, ?, ?, ?)::text as id', values);
  return rows[0].id;
}
/** Goes on with a run of one's own that was stopped; false when there is none. */
export async function resumeRun(
  trx: Db,
  run: string,
  { person, proof, secretHash }: Pick<NewRun, 'person' | 'proof' | 'secretHash'>,
): Promise<boolean> {
  const { rows } = await trx.raw('select resume_clearing(?, ?, ?, ?) as done', [run, person, proof, secretHash]);
  return rows[0].done;
}

export interface NewItem {
  claim_id: bigint;
  position: number;
  revision: number;
  outcome: 'drawn' | 'left out' | null;
  says: string | null;
}
export async function insertItems(trx: Db, run: string, items: readonly NewItem[]): Promise<void> {
  await trx('clearing_items').insert(items.map((item) => ({ run_id: run, ...item })));
}

export interface RunRow {
  id: bigint;
  person_id: string;
  begun_at: Date;
  seed: string;
  share: string;
  proof_hash: string;
  stopped_at: Date | null;
  ended_at: Date | null;
}
export const lockRun = (trx: Db, run: string): Promise<RunRow | undefined> =>
  trx('clearing_runs').whereRaw('id = ?', [run]).forUpdate().first();
export const selectRun = (db: Db, run: string): Promise<RunRow | undefined> =>
  db('clearing_runs').whereRaw('id = ?', [run]).first();
export const selectRuns = (db: Db, person: string, most: number): Promise<RunRow[]> =>
  db('clearing_runs').where({ person_id: person }).orderBy('id', 'desc').limit(most);

/** The next claim of a run, as it was chosen; undefined when none is left. */
export const selectNext = (
  trx: Db,
  run: string,
): Promise<{ claim_id: bigint; number: string; revision: number } | undefined> =>
  trx('clearing_items as i')
    .join('claims as c', 'c.id', 'i.claim_id')
    .whereRaw('i.run_id = ?', [run])
    .whereNull('i.outcome')
    .orderBy('i.position')
    .first('i.claim_id', 'c.number', 'i.revision');
export async function updateItem(
  trx: Db,
  run: string,
  claim: bigint,
  became: { outcome: 'cleared' | 'left out'; says: string | null },
): Promise<void> {
  await trx('clearing_items')
    .whereRaw('run_id = ? and claim_id = ?', [run, String(claim)])
    .update(became);
}
export async function updateRun(trx: Db, run: string, changes: { stopped_at?: Date; ended_at?: Date }): Promise<void> {
  await trx('clearing_runs').whereRaw('id = ?', [run]).update(changes);
}

export interface ItemRow {
  run_id: bigint;
  number: string;
  claimant: string;
  purpose: string;
  outcome: 'drawn' | 'cleared' | 'left out' | null;
  says: string | null;
}
/** What became of the claims of some runs, in the order they were chosen. */
export const selectItems = (db: Db, runs: readonly bigint[]): Promise<ItemRow[]> =>
  db('clearing_items as i')
    .join('claims as c', 'c.id', 'i.claim_id')
    .join('people as p', 'p.id', 'c.claimant_id')
    .whereIn('i.run_id', runs.map(String))
    .orderBy(['i.run_id', 'i.position'])
    .select('i.run_id', 'c.number', 'p.name as claimant', 'c.purpose', 'i.outcome', 'i.says');
