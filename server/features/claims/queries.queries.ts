import type { Db } from '../../platform/db/connect.ts';
import type { VersionKey } from '../../records/claims/versionKey.ts';

/** Who is asked: those who make the claim, or those who approved it. */
export type Asked = 'claimant' | 'approver';

export interface NewQuery {
  line_id: string;
  kind: string | null;
  text: string;
  asks?: Asked;
  by_id: string;
  at: Date;
}
export async function insertQuery(trx: Db, row: VersionKey & NewQuery): Promise<void> {
  await trx('queries').insert(row);
}

/** A question of a version that was not taken back. */
export interface OpenQuery {
  id: bigint;
  line: string;
  asks: Asked;
  sent: boolean;
  answered: boolean;
}
/** The questions asked of a version, in the order they were asked. */
export const selectQueries = (db: Db, { claim_id, version }: VersionKey): Promise<OpenQuery[]> =>
  db('queries')
    .where({ claim_id, version })
    .whereNull('taken_back_at')
    .orderBy('id')
    .select('id', 'line_id as line', 'asks', db.raw('sent_at is not null as sent, answer is not null as answered'));

interface SentQuery {
  line: string;
  text: string;
  asks: Asked;
}
/** Sends every query of a version that was not sent yet, or those for one side alone; those sent now, in the order they were asked. */
export async function sendQueries(trx: Db, key: VersionKey, at: Date, asks?: Asked): Promise<SentQuery[]> {
  const rows = await trx('queries')
    .where({ claim_id: key.claim_id, version: key.version, ...(asks ? { asks } : {}) })
    .whereNull('sent_at')
    .whereNull('taken_back_at')
    .update({ sent_at: at })
    .returning(['id', 'line_id as line', 'text', 'asks']);
  return rows.sort((a, b) => (a.id < b.id ? -1 : 1)).map(({ id: _, ...query }) => query);
}

/** What is asked of a version goes to its makers from now on: the claim is theirs again. */
export async function askMakersOnly(trx: Db, { claim_id, version }: VersionKey): Promise<void> {
  await trx('queries').where({ claim_id, version, answer: null, taken_back_at: null }).update({ asks: 'claimant' });
}

/** Takes a question back; one that nobody saw is not shown any more. */
export async function endQuery(trx: Db, id: bigint, at: Date): Promise<void> {
  await trx('queries')
    .whereRaw('id = ?', [String(id)])
    .update({ taken_back_at: at });
}

export interface Answer {
  id: bigint;
  answer: string;
  answered_by: string;
  answered_at: Date;
}
/** Writes the answer to a query that went out with a claim's last version before this one; its line, null when there is no such query. */
export async function updateAnswer(trx: Db, { claim_id, version }: VersionKey, { id, ...answer }: Answer) {
  const [row] = await trx('queries')
    .where({ id, claim_id, version: version - 1 })
    .whereNotNull('sent_at')
    .whereNull('taken_back_at')
    .update(answer)
    .returning('line_id');
  return (row?.line_id ?? null) as string | null;
}

/** Writes the answer to a query of a version under review. */
export async function answerNow(trx: Db, { id, ...answer }: Answer): Promise<void> {
  await trx('queries')
    .whereRaw('id = ?', [String(id)])
    .update(answer);
}

/** Who decided about a version's claim as a whole, or is asked to once more. */
export async function selectDeciders(db: Db, number: string, version: number): Promise<string[]> {
  const { rows } = await db.raw(
    `select distinct d.person from approval_needs n
       cross join lateral unnest(case when n.decided_by is not null then array[n.decided_by] when n.waiting then n.people
         else '{}' end) as d (person)
     where n.record_kind = 'claim' and n.record_id = ? and n.version = ? and n.asks = 'record' order by 1`,
    [number, version],
  );
  return rows.map((row: { person: string }) => row.person);
}
