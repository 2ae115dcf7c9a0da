import { fromMinor } from '../../../core/numbers/amount.ts';
import type { Claim, Entity } from '../../../core/documents/case.schema.ts';
import type { Reading } from '../../../core/evidence/reading/reading.types.ts';
import type { ClaimHeader, HistoryEvent } from '../../../contract/claims.ts';
import type { Db } from '../../platform/db/connect.ts';
import type { ClaimRow } from '../../records/claims/claims.queries.ts';
import type { VersionKey } from '../../records/claims/versionKey.ts';
import type { ShownPage } from '../../records/receipts/receipts.queries.ts';
import type { ShownAttachment } from '../../records/attachments/attachments.queries.ts';
import { PAGES } from '../../records/receipts/shows.ts';
import type { MarkRow } from '../../records/claims/marks.queries.ts';

/** Everything about a claim that is not computed, in one statement. */
export interface ClaimSurroundings {
  row: ClaimRow;
  header: ClaimHeader & { clearedBy: string | null };
  history: HistoryEvent[];
  marks: (MarkRow & { by: string; at: string })[];
  queries: {
    id: string;
    line: string;
    kind: string | null;
    text: string;
    by: string;
    at: string;
    sent: boolean;
    version: number;
    asks: 'claimant' | 'approver';
    takenBack: boolean;
    files: ShownAttachment[];
    answer: { text: string; by: string; at: string } | null;
  }[];
  /** Lines that were declined, of every version. */
  declined: { version: number; line: string; reason: string; by: string }[];
  journals: { number: string; purpose: string; date: string; live: boolean }[];
  submitted: { claim: Claim } | null;
}

const EVENTS = `(select coalesce(jsonb_agg(jsonb_build_object('seq', e.seq, 'at', e.at, 'kind', e.kind, 'facts', e.facts::jsonb,
    'words', w.words, 'actor', p.name) order by e.seq), '[]')
  from events e left join people p on p.id = e.actor_id left join event_words w on w.event_id = e.id
  where e.record_kind = 'claim' and e.record_id = c.number)`;
const MARKS = `(select coalesce(jsonb_agg(jsonb_build_object('line_id', m.line_id, 'kind', m.kind, 'mark', m.mark, 'about', m.about,
    'reason', m.reason, 'by', p.name, 'at', m.at)), '[]')
  from tie_marks m join people p on p.id = m.by_id where m.claim_id = c.id and m.version = c.submitted_version)`;
const FILES = `(select coalesce(jsonb_agg(jsonb_build_object('id', t.id::text, 'name', t.name, 'at', t.at, 'by', u.name, 'pages',
    (select jsonb_agg(jsonb_build_object('width', g.width, 'height', g.height, 'turns', 0) order by g.page) from receipt_pages g where g.sha256 = t.sha256))
    order by t.id), '[]') from attachments t join people u on u.id = t.by_id where t.query_id = q.id)`;
const QUERIES = `(select coalesce(jsonb_agg(jsonb_build_object('id', q.id::text, 'line', q.line_id, 'kind', q.kind, 'text', q.text, 'by', p.name, 'at', q.at,
    'sent', q.sent_at is not null, 'version', q.version, 'asks', q.asks, 'takenBack', q.taken_back_at is not null, 'files', ${FILES}, 'answer', case when q.answer is not null then jsonb_build_object(
      'text', q.answer, 'by', a.name, 'at', q.answered_at) end) order by q.id), '[]')
  from queries q join people p on p.id = q.by_id left join people a on a.id = q.answered_by
  where q.claim_id = c.id and (q.sent_at is not null or (q.version = c.submitted_version and q.taken_back_at is null)))`;
const JOURNALS = `(select coalesce(jsonb_agg(jsonb_build_object('number', j.number, 'purpose', j.purpose, 'date', j.date, 'live', j.live) order by j.id), '[]')
  from journals j where j.source_kind = 'claim' and j.source_id in (select c.number || '/' || v from generate_series(1, c.version) v))`;
const DECLINED = `(select coalesce(jsonb_agg(jsonb_build_object('version', d.version, 'line', d.line_id, 'reason', d.reason, 'by', p.name) order by d.at), '[]')
  from declined_lines d join people p on p.id = d.by_id where d.claim_id = c.id)`;
const NAMES = (ids: string) =>
  `(select coalesce(jsonb_agg(d.name order by d.name), '[]') from people d where d.id = any(${ids}))`;
const APPROVED = `(select coalesce(jsonb_agg(distinct d.name), '[]') from approval_needs n join people d on d.id = n.decided_by
    where n.record_kind = 'claim' and n.record_id = c.number and n.version = c.submitted_version and n.asks = 'record')`;
const HEADER = `jsonb_build_object('number', c.number, 'version', c.version, 'revision', c.revision, 'state', c.state, 'entity', c.entity_id,
    'entityName', e.name, 'claimant', p.name, 'claimantId', p.id, 'claimantKind', p.kind, 'preparer', b.name, 'deciders', ${NAMES('c.deciders')}, 'approvedBy', ${APPROVED},
    'ownersAsked', ${NAMES('c.code_owners')}, 'waitsFor', ${NAMES('c.questioned')}, 'clearedBy', r.name,
    'currency', c.currency, 'ledgerCurrency', e.currency, 'purpose', c.purpose, 'tripFrom', c.trip_from, 'tripTo', c.trip_to,
    'country', c.country, 'place', c.place, 'reference', c.reference, 'note', c.note, 'financeNote', c.finance_note,
    'submittedOn', c.submitted_on, 'holdReason', c.hold_reason, 'holdTold', c.hold_told, 'holdUntil', c.hold_until)`;

/** A claim with what surrounds it; undefined when there is none of that number. */
export async function selectSurroundings(db: Db, number: string): Promise<ClaimSurroundings | undefined> {
  const { rows } = await db.raw(
    `select c.id, c.number, c.version, c.submitted_version, c.revision, c.entity_id, c.claimant_id, c.preparer_id, c.deciders, c.approvers, c.code_owners, c.decided_by,
       c.decided_in, c.currency,
       c.state, c.purpose, c.submitted_on, c.cleared_by, c.hold_reason, c.hold_until, c.questioned,
       ${HEADER} as header, ${EVENTS} as history, ${MARKS} as marks, ${QUERIES} as queries, ${DECLINED} as declined, ${JOURNALS} as journals, v.submitted
     from claims c join entities e on e.id = c.entity_id join people p on p.id = c.claimant_id join people b on b.id = c.preparer_id
     left join people r on r.id = c.cleared_by
     left join claim_versions v on v.claim_id = c.id and v.version = c.submitted_version
     where c.number = ?`,
    [number],
  );
  if (!rows[0]) return undefined;
  const { header, history, marks, queries, declined, journals, submitted, ...row } = rows[0];
  return { row, header, history, marks, queries, declined, journals, submitted };
}

export interface ShownReceipt {
  id: string;
  pages: ShownPage[];
  reading: Reading | null;
  state: 'waiting' | 'read' | 'failed';
  total: { amount: string | null; currency: string | null };
  taxes: { rate: string | null; base: string | null; tax: string | null }[];
}

/** The receipts of a version's lines as they are looked at, by line id. */
export async function selectShownReceipts(db: Db, key: VersionKey): Promise<Record<string, ShownReceipt>> {
  const rows = await db('lines as l')
    .join('receipts as r', 'r.id', 'l.receipt_id')
    .leftJoin('readings as g', 'g.sha256', 'r.sha256')
    .where({ 'l.claim_id': key.claim_id, 'l.version': key.version })
    .select('l.id as line', 'r.id', 'g.reading', 'r.amount', 'r.currency')
    .select(db.raw(`coalesce(g.state, 'waiting') as state`))
    .select(db.raw(`${PAGES('r', 'g')} as pages`))
    .select(
      db.raw(
        `coalesce(case when r.confirmed_at is not null then r.taxes else g.reading -> 'taxes' end, '[]') as taxes`,
      ),
    );
  return Object.fromEntries(
    rows.map(({ line, id, amount, currency, ...rest }) => [
      line,
      { ...rest, id: String(id), total: totalOf(amount, currency, rest.reading) },
    ]),
  );
}

/** What a receipt shows in all: what its owner confirmed, else what was read. */
const totalOf = (amount: bigint | null, currency: string | null, reading: Reading | null): ShownReceipt['total'] =>
  amount === null
    ? { amount: reading?.amount?.value ?? null, currency: reading?.currency?.value ?? null }
    : { amount: fromMinor(amount, currency!), currency };

/** An advance beside a claim; `position` and `up_to` where the claim names it. */
export interface AdvanceBeside {
  id: string;
  purpose: string;
  currency: string;
  due_by: string | null;
  time_zone: string;
  position: number | null;
  up_to: bigint | null;
}
/** The advances of a person that are paid out and not settled in an entity, and those a version names, in its order first. */
export const selectAdvancesBeside = (
  db: Db,
  { person, entity, key }: { person: string; entity: string; key: VersionKey },
): Promise<AdvanceBeside[]> =>
  db('advances as a')
    .join('entities as e', 'e.id', 'a.entity_id')
    .joinRaw('left join claim_advances n on n.advance_id = a.id and n.claim_id = ? and n.version = ?', [
      String(key.claim_id),
      key.version,
    ])
    .where({ 'a.person_id': person, 'a.entity_id': entity })
    .where((of) => of.where('a.state', 'paid out').orWhereNotNull('n.advance_id'))
    .orderByRaw('n.position nulls last, a.due_by, a.id')
    .select('a.id', 'a.purpose', 'a.currency', 'a.due_by', 'e.time_zone', 'n.position', 'n.up_to');

/** A book by its hash. */
export const selectBook = (db: Db, hash: string): Promise<{ content: unknown } | undefined> =>
  db('books').where({ hash }).first('content');

/** The entity of a book, without the rest of it. */
export async function selectBookEntity(db: Db, hash: string): Promise<Pick<Entity, 'currency' | 'rateDate'>> {
  const row = await db('books').where({ hash }).first(db.raw(`content::jsonb #> '{entities,0}' as entity`));
  return row.entity;
}

/** Those of some claims that a person makes: as their claimant, or as who prepares them. Nothing is asked where there are none. */
export async function selectOwnAmong(db: Db, numbers: readonly string[], person: string): Promise<Set<string>> {
  if (numbers.length === 0) return new Set();
  const own = await db('claims')
    .whereIn('number', [...new Set(numbers)])
    .where((made) => made.where('claimant_id', person).orWhere('preparer_id', person))
    .pluck('number');
  return new Set(own);
}
