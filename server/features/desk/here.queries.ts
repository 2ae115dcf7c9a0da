import type { Db } from '../../platform/db/connect.ts';

/** Who looks, and when. */
export interface Looker {
  person: string;
  at: Date;
}

/** Names of others who have claims open now, by number; those whose time is over have left. */
export async function selectHere(
  db: Db,
  numbers: readonly string[],
  { person, at }: Looker,
): Promise<Map<string, string[]>> {
  if (numbers.length === 0) return new Map();
  const rows = await db('claim_looks as k')
    .join('claims as c', 'c.id', 'k.claim_id')
    .join('people as p', 'p.id', 'k.person_id')
    .whereIn('c.number', [...numbers])
    .whereNot('k.person_id', person)
    .where('k.here_until', '>', at)
    .orderBy('p.name')
    .select('c.number', 'p.name');
  const here = new Map<string, string[]>();
  for (const { number, name } of rows) here.set(number, [...(here.get(number) ?? []), name]);
  return here;
}

/** Notes that somebody has a version of a claim open until a moment; the version they had looked at before that one. */
export async function upsertLook(
  db: Db,
  { person, at }: Looker,
  look: { claim: bigint; version: number; until: Date },
): Promise<number | null> {
  const { rows } = await db.raw(
    `insert into claim_looks as k (claim_id, person_id, version, seen_at, here_until) values (?, ?, ?, ?, ?)
     on conflict (claim_id, person_id) do update set version = excluded.version, seen_at = excluded.seen_at,
       here_until = excluded.here_until, before = case when k.version < excluded.version then k.version else k.before end
     returning before`,
    [String(look.claim), person, look.version, at, look.until],
  );
  return rows[0].before;
}

/** Notes that somebody left. */
export async function endLook(db: Db, { person, at }: Looker, claim: bigint): Promise<void> {
  await db('claim_looks')
    .whereRaw('claim_id = ? and person_id = ?', [String(claim), person])
    .update({ here_until: at });
}

/** Lets those who take the next claim do so one after the other, until the transaction ends. */
export async function oneAtATime(trx: Db): Promise<void> {
  await trx.raw(`select pg_advisory_xact_lock(hashtext('desk next'))`);
}
