import type { AdvanceRule } from '../../../core/advances/advance.schema.ts';
import type { Db } from '../../platform/db/connect.ts';
import { ITEM, type AdvanceRow } from '../../records/advances/advances.queries.ts';

/** The rules about advances that hold on a day. */
export async function selectAdvanceRules(db: Db, on: string): Promise<({ id: string } & AdvanceRule)[]> {
  const rows: { id: string; rule: AdvanceRule }[] = await db('advance_rules')
    .whereRaw(`?::date between coalesce(valid_from, '-infinity') and coalesce(valid_to, 'infinity')`, [on])
    .orderBy('id')
    .select('id', 'rule');
  return rows.map(({ id, rule }) => ({ id, ...rule }));
}

/** An advance with the names in it and what is open of it; amounts in minor units. */
export interface NamedAdvance extends AdvanceRow {
  person: string;
  entityName: string;
  ledgerCurrency: string;
  timeZone: string;
  deciderNames: string[];
  plan: string | null;
  paidOn: string | null;
  open: bigint | null;
  openLedger: bigint | null;
  proofMissing: boolean;
}

const named = (db: Db) =>
  db('advances as a')
    .join('people as p', 'p.id', 'a.person_id')
    .join('entities as e', 'e.id', 'a.entity_id')
    .leftJoin('plans as l', 'l.id', 'a.plan_id')
    .leftJoin('advance_payments as y', (on) => on.on('y.advance_id', 'a.id').andOnVal('y.kind', 'payout'))
    .joinRaw(`left join open_items i on ${ITEM}`)
    .select(
      'a.*',
      'p.name as person',
      'e.name as entityName',
      'e.currency as ledgerCurrency',
      'e.time_zone as timeZone',
    )
    .select('l.number as plan', 'y.date as paidOn', 'i.amount as open', 'i.ledger_amount as openLedger')
    .select(
      db.raw(
        `(select coalesce(array_agg(d.name order by d.name), '{}') from people d where d.id = any(a.deciders)) as "deciderNames",
         exists (select 1 from advance_payments y2 where y2.advance_id = a.id
           and not exists (select 1 from attachments t where t.payment_id = y2.id)) as "proofMissing"`,
      ),
    );

export const selectNamedAdvance = (db: Db, id: string): Promise<NamedAdvance | undefined> =>
  named(db).where('a.id', id).first();
export const selectOwnAdvances = (db: Db, person: string): Promise<NamedAdvance[]> =>
  named(db).where('a.person_id', person).orderByRaw('a.requested_on desc nulls first, a.id desc');

/** Advances of others in a state, in some entities (null: all); the first due first. */
export function selectAdvancesIn(
  db: Db,
  { state, entities, apart }: { state: AdvanceRow['state']; entities: readonly string[] | null; apart: string },
): Promise<NamedAdvance[]> {
  const query = named(db)
    .where('a.state', state)
    .whereNot('a.person_id', apart)
    .orderBy(['a.due_by', 'a.requested_on', 'a.id']);
  if (entities) query.whereIn('a.entity_id', [...entities]);
  return query;
}

/** Advances of which something was open at the end of a day, in some entities (null: all), as they stood then. */
export async function selectOpenOn(db: Db, on: string, entities: readonly string[] | null): Promise<NamedAdvance[]> {
  const query = named(db)
    .joinRaw(
      `join lateral (select sum(m.amount)::bigint as amount, sum(m.ledger_amount)::bigint as ledger from open_item_movements m
         join journals j on j.id = m.journal_id where m.item_id = i.id and j.date <= ?::date) s on s.amount <> 0 or s.ledger <> 0`,
      [on],
    )
    .orderBy(['a.entity_id', 'p.name', 'a.id'])
    .select('s.amount as open', 's.ledger as openLedger');
  if (entities) query.whereIn('a.entity_id', [...entities]);
  return query;
}

/** Advances that are paid out, of which something is open, with a day by which they are to be accounted for. */
export const selectDueAdvances = (db: Db): Promise<NamedAdvance[]> =>
  named(db).where('a.state', 'paid out').whereNotNull('a.due_by').where('i.amount', '>', 0).orderBy('a.id');

/** The accounts of staff advances of some entities, with what their journals come to up to a day, in minor units. */
export async function selectBalances(
  db: Db,
  on: string,
  entities: readonly string[] | null,
): Promise<{ entity: string; name: string; currency: string; account: string; balance: bigint }[]> {
  const { rows } = await db.raw(
    `select e.id as entity, e.name, e.currency, t.account, coalesce(sum(r.debit - r.credit), 0)::bigint as balance
     from entities e join (select distinct entity_id, accounts ->> 'staffAdvances' as account from entity_terms) t on t.entity_id = e.id
     left join journals j on j.entity_id = e.id and j.date <= ?::date
     left join journal_rows r on r.journal_id = j.id and r.account = t.account
     where ?::text[] is null or e.id = any(?::text[]) group by 1, 2, 3, 4 order by 1, 4`,
    [on, entities as string[] | null, entities as string[] | null] as never,
  );
  return rows;
}

export interface NewPayment {
  advance_id: string;
  kind: 'payout' | 'return';
  date: string;
  amount: bigint;
  bank: bigint;
  account: string;
  reference: string | null;
  journal_id: bigint;
  by_id: string;
  at: Date;
}
export const insertPayment = async (trx: Db, row: NewPayment): Promise<void> => {
  await trx('advance_payments').insert(row);
};
export type PaymentRow = NewPayment & { id: bigint; journal: string; by: string; accountName: string };
const payments = (db: Db, advance: string) =>
  db('advance_payments as y')
    .join('journals as j', 'j.id', 'y.journal_id')
    .join('people as p', 'p.id', 'y.by_id')
    .join('accounts as c', 'c.code', 'y.account')
    .where('y.advance_id', advance)
    .select('y.*', 'j.number as journal', 'p.name as by', 'c.name as accountName');
export const selectPayments = (db: Db, advance: string): Promise<PaymentRow[]> => payments(db, advance).orderBy('y.id');
export const selectPaymentOf = (db: Db, advance: string, id: bigint): Promise<PaymentRow | undefined> =>
  payments(db, advance)
    .whereRaw('y.id = ?', [String(id)])
    .first();
export async function selectPaidOn(db: Db, advance: string): Promise<string | undefined> {
  const row = await db('advance_payments').where({ advance_id: advance, kind: 'payout' }).first('date');
  return row?.date;
}
export const hasAccount = async (db: Db, code: string): Promise<boolean> =>
  (await db('accounts').where({ code }).first('code')) !== undefined;
export async function selectAccountName(db: Db, code: string): Promise<string | undefined> {
  const row = await db('accounts').where({ code }).first('name');
  return row?.name;
}

export interface UseRow {
  claim: string;
  state: string;
  purpose: string;
  applied: string | null;
  ledger: string | null;
}
/** The claims that name an advance, with what they take of it: as their makers see them, or as they were submitted. */
export async function selectUses(db: Db, advance: string, version: 'version' | 'submitted_version'): Promise<UseRow[]> {
  const { rows } = await db.raw(
    `select c.number as claim, c.state, c.purpose, x ->> 'advancePart' as applied, x ->> 'ledgerPart' as ledger
     from claim_advances n join claims c on c.id = n.claim_id and n.version = c.${version}
     join assessments s on s.claim_id = c.id and s.version = n.version
     left join lateral jsonb_array_elements(s.result #> '{settlement,advances}') x on x ->> 'advance' = n.advance_id
     where n.advance_id = ? and c.state not in ('withdrawn', 'declined', 'reversed') order by c.id`,
    [advance],
  );
  return rows;
}
