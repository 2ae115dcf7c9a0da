import { fromMinor } from '../../../core/numbers/amount.ts';
import { cycleOf, type ClosesOn } from '../../../core/evidence/statements/cardCycle.ts';
import { groupBy } from '../../../core/numbers/groupBy.ts';
import type { Db } from '../../platform/db/connect.ts';

export interface ChargeRecord {
  id: bigint;
  card: string;
  digits: string;
  label: string;
  cardKind: 'company' | 'purchasing';
  holderId: string;
  holder: string;
  bookedOn: string;
  purchasedOn: string;
  amount: bigint;
  currency: string;
  settledAmount: bigint;
  settledCurrency: string;
  merchant: string;
  country: string | null;
  categoryCode: string | null;
  /** The category whose merchant codes hold the charge's. */
  category: string | null;
  marked: boolean;
  markRevision: number;
  reason: string | null;
  /** Lines that carry the charge, of claims that were not withdrawn or declined. */
  lines: { claim: string; line: string; state: string; amount: string; currency: string; personal: boolean }[];
}

const chargeRecords = (db: Db) =>
  db('charges as h')
    .join('cards as c', 'c.id', 'h.card_id')
    .join('people as p', 'p.id', 'c.holder_id')
    .leftJoin('charge_marks as m', 'm.charge_id', 'h.id')
    .select(
      'h.id',
      'h.card_id as card',
      'c.digits',
      'c.label',
      'c.kind as cardKind',
      'c.holder_id as holderId',
      'p.name as holder',
      'h.booked_on as bookedOn',
      'h.purchased_on as purchasedOn',
      'h.amount',
      'h.currency',
      'h.settled_amount as settledAmount',
      'h.settled_currency as settledCurrency',
      'h.merchant',
      'h.country',
      'h.category_code as categoryCode',
      db.raw(`coalesce(m.state = 'claimed already', false) as marked`),
      db.raw('coalesce(m.revision, 1)::int as "markRevision"'),
      'm.reason',
      db.raw(`(select k.id from categories k where h.category_code = any(k.merchant_codes)
        and h.purchased_on between coalesce(k.valid_from, '-infinity') and coalesce(k.valid_to, 'infinity') order by k.id limit 1) as category`),
      db.raw(`(select coalesce(jsonb_agg(jsonb_build_object('claim', x.number, 'line', l.id, 'state', x.state, 'amount', l.amount::text, 'currency', l.currency,
          'personal', l.personal) order by x.id, l.position), '[]')
        from lines l join claims x on x.id = l.claim_id and x.version = l.version
        where l.charge_id = h.id and x.state not in ('withdrawn', 'declined')) as lines`),
    );

export interface ChargeFilter {
  holderId?: string;
  card?: string;
  from?: string;
  to?: string;
  ids?: readonly string[];
}
/** Charges by holder, card, days or ids, newest first; all there are. */
export async function selectCharges(db: Db, { holderId, card, from, to, ids }: ChargeFilter): Promise<ChargeRecord[]> {
  const query = chargeRecords(db).orderBy([
    { column: 'h.booked_on', order: 'desc' },
    { column: 'h.id', order: 'desc' },
  ]);
  if (holderId) query.where('c.holder_id', holderId);
  if (card) query.where('h.card_id', card);
  if (from && to) query.whereBetween('h.booked_on', [from, to]);
  if (ids) query.whereRaw('h.id = any(?::bigint[])', [[...ids]]);
  return query;
}

/** Waits for others who put the same charges on claims. */
export async function lockCharges(trx: Db, ids: readonly string[]): Promise<void> {
  await trx('charges')
    .whereRaw('id = any(?::bigint[])', [[...ids]])
    .orderBy('id')
    .select('id')
    .forUpdate();
}

/** The mark of a charge, made when it has none. */
export async function saveChargeMark(
  trx: Db,
  row: { charge_id: bigint; state: string; reason: string | null; revision: number },
): Promise<void> {
  await trx('charge_marks').insert(row).onConflict('charge_id').merge();
}

export interface CardView {
  id: string;
  label: string;
  kind: 'company' | 'purchasing';
  currency: string;
  digits: string;
  entity: string;
  holderId: string;
  holder: string;
  /** The day of the month on which its statement closes; null: with the month. */
  closesOn: ClosesOn;
}
/** The cards somebody holds, and those of some entities (null: of all). */
export function selectCards(db: Db, holderId: string, entities: readonly string[] | null): Promise<CardView[]> {
  const query = db('cards as c')
    .join('people as p', 'p.id', 'c.holder_id')
    .orderBy('c.id')
    .select(
      'c.id',
      'c.digits',
      'c.label',
      'c.kind',
      'c.currency',
      'c.entity_id as entity',
      'c.holder_id as holderId',
      'p.name as holder',
      'c.closes_on as closesOn',
    );
  if (entities !== null)
    query.where((where) => where.whereIn('c.entity_id', [...entities]).orWhere('c.holder_id', holderId));
  return query;
}

/** The months in which a card has charges, newest first, with who closed them. */
export async function selectMonths(
  db: Db,
  { id, closesOn }: Pick<CardView, 'id' | 'closesOn'>,
): Promise<{ month: string; charges: number; closedBy: string | null; closedAt: Date | null }[]> {
  const days: { day: string; charges: number }[] = await db('charges')
    .where({ card_id: id })
    .groupBy('booked_on')
    .select('booked_on as day', db.raw('count(*)::int as charges'));
  const closed = await db('card_months as m')
    .join('people as p', 'p.id', 'm.closed_by')
    .where({ card_id: id, state: 'closed' })
    .select('m.month', 'p.name as closedBy', 'm.closed_at as closedAt');
  return [...groupBy(days, (d) => cycleOf(d.day, closesOn))]
    .map(([month, inIt]) => ({
      month,
      charges: inIt.reduce((sum, d) => sum + d.charges, 0),
      closedBy: null,
      closedAt: null,
      ...closed.find((c) => c.month === month),
    }))
    .sort((a, b) => (a.month < b.month ? 1 : -1));
}

export interface StatementOfMonth {
  id: bigint;
  name: string;
  source: string;
  from: string;
  to: string;
  opening: string | null;
  closing: string | null;
  entries: number;
}
/** The imported statements of a card that state balances, within some days, in the order of their days; each period once. */
export async function selectStatementsOf(
  db: Db,
  card: string,
  currency: string,
  from: string,
  to: string,
): Promise<StatementOfMonth[]> {
  const rows = await db('statements')
    .where({ card_id: card, state: 'imported' })
    .whereNotNull('opening')
    .whereNotNull('closing')
    .where('from_date', '>=', from)
    .where('to_date', '<=', to)
    .orderBy(['from_date', 'to_date', 'id'])
    .select('id', 'name', 'source', 'from_date as from', 'to_date as to', 'opening', 'closing', 'entries');
  const periods = new Map<string, StatementOfMonth>();
  for (const r of rows)
    periods.set(`${r.from} ${r.to}`, {
      ...r,
      opening: fromMinor(r.opening, currency),
      closing: fromMinor(r.closing, currency),
    });
  return [...periods.values()];
}

/** The closed month, if any, that one of the charges belongs to. */
export async function selectClosedMonthOf(
  db: Db,
  chargeIds: readonly string[],
): Promise<{ card: string; month: string } | undefined> {
  const rows: { card: string; day: string; closesOn: ClosesOn; closed: string[] }[] = await db('charges as h')
    .join('cards as c', 'c.id', 'h.card_id')
    .whereRaw('h.id = any(?::bigint[])', [[...chargeIds]])
    .distinct(
      'c.id as card',
      'h.booked_on as day',
      'c.closes_on as closesOn',
      db.raw(`array(select m.month from card_months m where m.card_id = c.id and m.state = 'closed') as closed`),
    );
  for (const { card, day, closesOn, closed } of rows) {
    const month = cycleOf(day, closesOn);
    if (closed.includes(month)) return { card, month };
  }
  return undefined;
}

export interface MonthRow {
  state: 'open' | 'closed';
  revision: number;
}
/** A card's month, locked; one that was never closed is open. */
export async function lockMonth(trx: Db, card: string, month: string): Promise<MonthRow> {
  await trx('card_months').insert({ card_id: card, month, state: 'open' }).onConflict(['card_id', 'month']).ignore();
  return trx('card_months').where({ card_id: card, month }).forUpdate().first('state', 'revision');
}
export async function updateMonth(
  trx: Db,
  card: string,
  month: string,
  changes: Record<string, unknown>,
): Promise<void> {
  await trx('card_months').where({ card_id: card, month }).update(changes);
}

export interface CardRow {
  id: string;
  digits: string;
  entity_id: string;
  holder_id: string;
  kind: 'company' | 'purchasing';
  currency: string;
  label: string;
}
export const selectCard = (db: Db, id: string): Promise<CardRow | undefined> => db('cards').where({ id }).first();
