import type { Db } from '../../server/platform/db/connect.ts';

/** Lines a copied claim gets. */
export const LINES = 10;

const WORDS = `array['audit', 'bearing', 'curlew', 'dredger', 'estuary', 'ferry', 'gantry', 'harbour', 'inlet', 'jetty',
  'kelp', 'lagoon', 'mudflat', 'neap', 'osier', 'piling', 'quay', 'reedbed', 'sluice', 'tideway']`;

/**
 * Adds claims under review to a demo database as its owner until there are `claims` of them, with ten lines each: copies
 * of one claim as far as nobody looks at them (its document, its assessment), and different in what is sought, ordered and
 * compared (number, claimant, purpose, day, priority, amounts). Histories are as long as real ones, without their chain.
 * Returns how many claims there are.
 */
export async function fillDatabase(db: Db, pattern: string, claims: number): Promise<void> {
  const from = Number((await db('claims').where('number', 'like', 'B-%').count({ n: '*' }))[0]!.n) + 1;
  if (claims < from) return;
  await db.transaction(async (trx) => {
    const copy = (sql: string) => trx.raw(sql, { pattern, from, to: claims });
    for (const table of ['events', 'claim_versions']) await trx.raw('alter table ?? disable trigger user', [table]);
    await copy(CLAIMS);
    await copy(VERSIONS);
    await copy(COPIED_LINES);
    await copy(ASSESSMENTS);
    await copy(USES);
    await copy(EVENTS);
    await trx.raw('set constraints all immediate');
    for (const table of ['events', 'claim_versions']) await trx.raw('alter table ?? enable trigger user', [table]);
  });
  await db.raw('vacuum analyze');
}

/** A whole number from 0 below `below`, the same every time for `of`. */
const some = (of: string, below: number | string) => `(('x' || substr(md5(${of}), 1, 7))::bit(28)::bigint % ${below})`;

const CLAIMS = `
  with people_here as (select array_agg(id order by id) as ids, array_agg(name order by id) as names from people),
  pattern as (select * from claims where number = :pattern),
  made as (select 'B-' || n as number, ids[1 + ${some(`'p' || n`, 'cardinality(ids)')}] as claimant, names[1 + ${some(`'p' || n`, 'cardinality(ids)')}] as name,
      concat_ws(' ', (${WORDS})[1 + ${some(`'a' || n`, 20)}], (${WORDS})[1 + ${some(`'b' || n`, 20)}], 'visit', n) as purpose,
      current_date - ${some(`'d' || n`, 60)}::int as day, -${some(`'r' || n`, 100)} as priority
    from people_here, generate_series(:from::int, :to::int) n)
  insert into claims (number, version, submitted_version, entity_id, claimant_id, preparer_id, approvers, currency, state, purpose, begun_on,
    submitted_on, to_pay, at_risk, ties, stops, asks, priority, search, facets, total)
  select m.number, 1, 1, c.entity_id, m.claimant, m.claimant, c.approvers, c.currency, 'in review', m.purpose, m.day, m.day, c.to_pay,
    c.at_risk, c.ties, c.stops, c.asks, m.priority, lower(concat_ws(' ', m.number, m.name, m.purpose)),
    c.facets || array['project:P-' || ${some(`'f' || m.number`, 500)}], ${some(`'t' || m.number`, 5000)} from made m, pattern c`;

/** The claims of this round. */
const NEW = `claims c join generate_series(:from::int, :to::int) n on c.number = 'B-' || n`;
const PATTERN = `(select id from claims where number = :pattern)`;

const VERSIONS = `
  insert into claim_versions (claim_id, version, submitted_at, submitted)
  select c.id, 1, c.submitted_on, v.submitted from ${NEW}, claim_versions v where v.claim_id = ${PATTERN} and v.version = 1`;

const COPIED_LINES = `
  insert into lines (claim_id, version, id, position, date, category, paid_by, amount, currency, merchant, description)
  select c.id, 1, 'l' || i, i, c.submitted_on - i, 'meals', 'own', 100 + ${some(`c.id || '/' || i`, 100_000)}, c.currency, 'Reedbed Cafe', null
  from ${NEW}, generate_series(1, ${LINES}) i`;

const ASSESSMENTS = `
  insert into assessments (claim_id, version, revision, assessed_at, book_hash, document, evidence, result, ties)
  select c.id, 1, 1, a.assessed_at, a.book_hash, a.document, a.evidence, a.result, a.ties from ${NEW}, assessments a
  where a.claim_id = ${PATTERN} and a.version = 1`;

const USES = `
  insert into assessment_uses (claim_id, key) select c.id, u.key from ${NEW}, assessment_uses u where u.claim_id = ${PATTERN}`;

const EVENTS = `
  insert into events (record_kind, record_id, seq, at, actor_id, kind, facts, previous_hash, hash)
  select 'claim', c.number, e.seq, c.submitted_on + e.seq * interval '1 hour', e.actor_id, e.kind, e.facts, repeat('0', 64),
    encode(sha256(convert_to(c.number || '/' || e.seq, 'utf8')), 'hex')
  from ${NEW}, events e where e.record_kind = 'claim' and e.record_id = :pattern`;
