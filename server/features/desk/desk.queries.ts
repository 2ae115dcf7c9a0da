import type { DeskFilter, StandingFilter } from '../../../contract/desk.ts';
import { facet } from '../../../core/evidence/comparisons/facets.ts';
import { claimLifecycle, type ClaimState } from '../../../core/workflow/lifecycles/claim.ts';
import type { Db } from '../../platform/db/connect.ts';
import { listed, writeListed, type ListedClaim, type ListedRow } from '../../records/claims/listed.queries.ts';

const PAGE = 50;

export interface Page {
  filter: DeskFilter;
  after: string | null;
  /** Only claims of these entities; null for all. */
  entities: readonly string[] | null;
  /** Who asks, and on which day. */
  person: string;
  today: string;
}

/** A page of submitted claims by attention, then age; `next` is the key of the page after it, null on the last. */
export async function selectClaimPage(db: Db, page: Page): Promise<{ rows: ListedClaim[]; next: string | null }> {
  const { filter, after, entities } = page;
  const query = listed(db)
    .where((of) => (filter.state === 'any' ? of.whereNot('c.state', 'draft') : of.where('c.state', filter.state)))
    .whereNotNull('c.submitted_version')
    .orderBy(['c.priority', 'c.submitted_on', 'c.id'])
    .limit(PAGE + 1);
  if (entities) query.whereIn('c.entity_id', [...entities]);
  for (const { sql, values } of [...narrowing(filter), ...standings(page), ...notOwn(page)])
    query.whereRaw(sql, values as never);
  if (after) query.whereRaw('(c.priority, c.submitted_on, c.id) > (?, ?, ?)', readKey(after));
  const rows: ListedRow[] = await query;
  const shown = rows.slice(0, PAGE);
  return { rows: shown.map(writeListed), next: rows.length > PAGE ? writeKey(shown.at(-1)!) : null };
}

interface Condition {
  sql: string;
  values: readonly unknown[];
}
const where = (sql: string, ...values: unknown[]): Condition => ({ sql, values });
const likeWord = (word: string): string => `%${word.replace(/[\\%_]/g, (c) => `\\${c}`)}%`;

/** What a filter says of the claim itself. */
function narrowing({ q, entity, person, code, category, off, min, max }: DeskFilter): Condition[] {
  const facets = [
    ...(code?.split(',') ?? []),
    ...(category ? [facet.category(category)] : []),
    ...(off ? [facet.loose(off)] : []),
  ];
  const words = q?.toLowerCase().split(/\s+/).filter(Boolean) ?? [];
  return [
    ...words.map((word) => where('c.search like ?', likeWord(word))),
    ...(facets.length > 0 ? [where('c.facets @> ?::text[]', facets)] : []),
    ...(entity ? [where('c.entity_id = ?', entity)] : []),
    ...(person ? [where('c.claimant_id in (select id from people where name ilike ?)', likeWord(person))] : []),
    ...(min ? [where('c.total >= ?::numeric', min)] : []),
    ...(max ? [where('c.total <= ?::numeric', max)] : []),
  ];
}

/** What it says of how the claim stands, for whom and on which day. */
function standings({ filter, person, today }: Page): Condition[] {
  const is: Record<StandingFilter, Condition> = {
    held: where('c.hold_until > ?::date', today),
    overdue: where('c.hold_until <= ?::date', today),
    waiting: where('c.waiting > 0'),
    answered: where('c.answered > 0 and c.waiting = 0'),
    again: where('c.submitted_version > 1'),
    drawn: where('c.drawn_at is not null'),
    clean: where(`c.facets @> ?::text[] and c.state = 'in review'`, [facet.clean]),
    mine: where(
      `exists (select 1 from events e where e.record_kind = 'claim' and e.record_id = c.number and e.actor_id = ?
        and e.kind = any(?::text[]))`,
      person,
      [...LOOKED_AFTER],
    ),
  };
  const wanted = (filter.is?.split(',') ?? []) as StandingFilter[];
  const old = filter.older === undefined ? [] : [where('c.submitted_on <= ?::date - ?::int', today, filter.older)];
  return [...wanted.map((name) => is[name]), ...old];
}

const { mark, correct, ask, hold, declineLine } = claimLifecycle.acts;
/** What somebody did to a claim who looks after it. */
const LOOKED_AFTER = [mark, correct, ask, hold, declineLine].map((act) => act.event);

const TELLING: readonly StandingFilter[] = ['waiting', 'answered', 'drawn', 'clean'];

/** Nobody learns what finance thinks of their own claim by whether a filter lists it. */
function notOwn({ filter: { off, is = '' }, person }: Page): Condition[] {
  const tells = off !== undefined || is.split(',').some((name) => TELLING.includes(name as StandingFilter));
  return tells ? [where('? not in (c.claimant_id, c.preparer_id)', person)] : [];
}

const writeKey = (row: ListedRow): string => [row.priority, row.submittedOn, row.id].join('/');

/** The parts of a key, whose form the contract has seen to. */
const readKey = (text: string) => text.split('/');

/** How many submitted claims there are of each state, from counts the database keeps. */
export async function selectStateCounts(db: Db, entities: readonly string[] | null): Promise<Record<string, number>> {
  const query = db('claim_counts')
    .whereNot('state', 'draft' satisfies ClaimState)
    .groupBy('state')
    .select('state', db.raw('sum(count)::int as count'));
  if (entities) query.whereIn('entity_id', [...entities]);
  const rows = await query;
  return Object.fromEntries(rows.filter((row) => row.count > 0).map((row) => [row.state, row.count]));
}

/** The entities of somebody's roles; all of them for null. */
export function selectEntities(db: Db, ids: readonly string[] | null): Promise<{ id: string; name: string }[]> {
  const query = db('entities').orderBy('id').select('id', 'name');
  return ids ? query.whereIn('id', [...ids]) : query;
}
