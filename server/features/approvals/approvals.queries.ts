import type { Assessment } from '../../../core/documents/assessment.schema.ts';
import type { Claim, ClaimantsWord } from '../../../core/documents/case.schema.ts';
import type { CodeLeft } from '../../../core/documents/splitBook.ts';
import type { Routed } from '../../../core/routing/route.schema.ts';
import type { Need } from '../../../core/routing/route.types.ts';
import type { Db } from '../../platform/db/connect.ts';

/** Decisions that wait for somebody about one record, taken together. */
export interface WaitingNeed {
  kind: Routed;
  asks: 'record' | 'code';
  number: string;
  since: Date;
  levels: string[];
  people: string[];
  about: Need['about'];
}

/** What waits for any of these people, the longest first. */
export async function selectWaiting(db: Db, people: readonly string[]): Promise<WaitingNeed[]> {
  const { rows } = await db.raw(
    `select n.record_kind as kind, n.asks, n.record_id as number, min(n.since) as since,
       array_agg(distinct n.level) as levels, array_agg(distinct p.id) as people,
       coalesce(jsonb_agg(distinct a.value) filter (where a.value is not null), '[]') as about
     from approval_needs n cross join unnest(n.people) as p (id) left join jsonb_array_elements(n.about) a on true
     where n.waiting and n.people && ?::text[]
     group by n.record_kind, n.asks, n.record_id order by 4, 3`,
    [[...people]],
  );
  return rows;
}

/** A record that is decided about, as one row of a list; amounts in minor units. */
export interface DecidedRecord {
  kind: Routed;
  number: string;
  revision: number;
  entity: string;
  makers: string[];
  who: string;
  purpose: string;
  from: string | null;
  to: string | null;
  currency: string;
  ledgerCurrency: string;
  total: bigint | null;
  toPay: bigint | null;
  ties: Record<string, string>;
  stops: number;
  asks: number;
  /** Of claims what was last computed of the submitted version, of plans what is missing or found. */
  claim: Pick<Claim, 'lines' | 'currency'> | null;
  result: Assessment | null;
  left: CodeLeft[];
  words: ClaimantsWord[];
  plan: string | null;
  problems: number;
}

const CLAIMS = `select 'claim' as kind, c.number, c.revision, c.entity_id as entity, array[c.claimant_id, c.preparer_id] as makers, p.name as who, c.purpose,
    c.trip_from as "from", c.trip_to as "to", c.currency, e.currency as "ledgerCurrency", null::bigint as total, c.to_pay as "toPay",
    c.ties, c.stops, c.asks, s.document -> 'claim' as claim, s.result, s.document #> '{own,left}' as "left",
    coalesce(s.document #> '{claim,explanations}', '[]') as words, c.plan ->> 'number' as plan, 0 as problems
  from claims c join people p on p.id = c.claimant_id join entities e on e.id = c.entity_id
  join assessments s on s.claim_id = c.id and s.version = c.submitted_version where c.number = any(?::text[])`;
const PLANS = `select 'plan' as kind, l.number, l.revision, l.entity_id as entity, array[l.claimant_id, l.preparer_id] as makers, p.name as who, l.purpose,
    l.trip_from as "from", l.trip_to as "to", l.currency, e.currency as "ledgerCurrency", l.total, null::bigint as "toPay",
    '{}'::jsonb as ties, 0 as stops, 0 as asks, null::jsonb as claim, null::jsonb as result, '[]'::jsonb as "left", '[]'::jsonb as words,
    null as plan, jsonb_array_length(l.assessed -> 'missing') + jsonb_array_length(l.assessed -> 'findings') as problems
  from plans l join people p on p.id = l.claimant_id join entities e on e.id = l.entity_id where l.number = any(?::text[])`;
/** What the rules say against an advance, each with the reason the person gives. */
const EXCEPTION = `(select coalesce(jsonb_agg(jsonb_build_object('line', null, 'code', r ->> 'rule', 'about', r ->> 'says',
    'text', coalesce(a.exception, ''))), '[]') from jsonb_array_elements(a.problems) r)`;
const ADVANCES = `select 'advance' as kind, a.id as number, a.revision, a.entity_id as entity, array[a.person_id] as makers, p.name as who, a.purpose,
    a.trip_from as "from", a.trip_to as "to", a.currency, e.currency as "ledgerCurrency", a.amount as total, null::bigint as "toPay",
    '{}'::jsonb as ties, 0 as stops, 0 as asks, null::jsonb as claim, null::jsonb as result, '[]'::jsonb as "left", ${EXCEPTION} as words,
    (select l.number from plans l where l.id = a.plan_id) as plan, jsonb_array_length(a.problems) as problems
  from advances a join people p on p.id = a.person_id join entities e on e.id = a.entity_id where a.id = any(?::text[])`;
/** Records by kind and number. */
export async function selectRecords(
  db: Db,
  wanted: readonly { kind: Routed; number: string }[],
): Promise<DecidedRecord[]> {
  const of = (kind: Routed) => wanted.filter((w) => w.kind === kind).map((w) => w.number);
  const { rows } = await db.raw(`${CLAIMS} union all ${PLANS} union all ${ADVANCES}`, [
    of('claim'),
    of('plan'),
    of('advance'),
  ] as never);
  return rows;
}

/** What a person decided last of records nobody acted on since: they may still take it back. The newest first. */
export async function selectTakeable(
  db: Db,
  person: string,
  most: number,
): Promise<{ kind: Routed; number: string; at: Date }[]> {
  const { rows } = await db.raw(
    `select n.record_kind as kind, n.record_id as number, max(n.decided_at) as at from approval_needs n
     where n.decided_by = ? and n.asks = 'record' and (
       exists (select 1 from claims c where n.record_kind = 'claim' and c.number = n.record_id and c.version = n.version
         and c.revision = n.decided_in and c.decided_in = n.decided_in and c.state in ('with approver', 'in review'))
       or exists (select 1 from plans l where n.record_kind = 'plan' and l.number = n.record_id
         and l.revision = n.decided_in and l.decided_in = n.decided_in and l.state in ('with approver', 'approved'))
       or exists (select 1 from advances a where n.record_kind = 'advance' and a.id = n.record_id
         and a.revision = n.decided_in and a.decided_in = n.decided_in and a.state in ('requested', 'in review')))
     group by 1, 2 order by 3 desc limit ?`,
    [person, most],
  );
  return rows;
}

/** The codes of which somebody is the owner, as "dimension code". */
export async function selectOwnedCodes(db: Db, people: readonly string[]): Promise<Set<string>> {
  const rows: { dimension: string; code: string }[] = await db('dimension_values')
    .whereIn('owner_id', [...people])
    .select('dimension_id as dimension', 'code');
  return new Set(rows.map(({ dimension, code }) => `${dimension} ${code}`));
}

/** The currency of an entity's ledger; undefined where there is no such entity. */
export async function selectLedgerCurrency(db: Db, entity: string): Promise<string | undefined> {
  const row = await db('entities').where({ id: entity }).first('currency');
  return row?.currency;
}
