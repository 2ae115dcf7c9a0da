import type { DuplicateLine } from '../../../core/evidence/duplicates/findDuplicates.ts';
import { NEAR_DAYS } from '../../../core/evidence/duplicates/findDuplicates.ts';
import type { Reading } from '../../../core/evidence/reading/reading.types.ts';
import type { Db } from '../../platform/db/connect.ts';
import type { ShownPage } from '../receipts/receipts.queries.ts';
import { PAGES, SHOWS } from '../receipts/shows.ts';
import type { VersionKey } from './claims.queries.ts';

export interface ReceiptRow {
  id: bigint;
  amount: bigint | null;
  currency: string | null;
  date: string | null;
  merchant: string | null;
  tax_number: string | null;
  confirmed_at: Date | null;
  reading: Reading | null;
  pages: ShownPage[];
}

/** The receipts of a claim's lines with what was read of them and the sizes of their pages, by line id. */
export async function selectLineReceipts(db: Db, key: VersionKey): Promise<Map<string, ReceiptRow>> {
  const rows: (ReceiptRow & { line_id: string })[] = await db('lines as l')
    .join('receipts as r', 'r.id', 'l.receipt_id')
    .leftJoin('readings as g', 'g.sha256', 'r.sha256')
    .where({ 'l.claim_id': key.claim_id, 'l.version': key.version })
    .select(
      'l.id as line_id',
      'r.id',
      'r.amount',
      'r.currency',
      'r.date',
      'r.merchant',
      'r.tax_number',
      'r.confirmed_at',
      'g.reading',
    )
    .select(db.raw(`${PAGES('r', 'g')} as pages`));
  return new Map(rows.map(({ line_id, ...receipt }) => [line_id, receipt]));
}

export interface LineChargeRow {
  id: bigint;
  card_id: string;
  amount: bigint;
  currency: string;
  settled_amount: bigint;
  settled_currency: string;
  purchased_on: string;
  booked_on: string;
  merchant: string;
  /** Minor units of the charge on lines of other claims. */
  elsewhere: bigint;
}

/** The charges of a claim's lines, by line id. */
export async function selectLineCharges(db: Db, key: VersionKey): Promise<Map<string, LineChargeRow>> {
  const rows: (LineChargeRow & { line_id: string })[] = await db('lines as l')
    .join('charges as h', 'h.id', 'l.charge_id')
    .where({ 'l.claim_id': key.claim_id, 'l.version': key.version })
    .select(
      'l.id as line_id',
      'h.id',
      'h.card_id',
      'h.amount',
      'h.currency',
      'h.settled_amount',
      'h.settled_currency',
      'h.purchased_on',
      'h.booked_on',
      'h.merchant',
    )
    .select(
      db.raw(`(select coalesce(sum(o.amount), 0)::bigint from lines o join claims c on c.id = o.claim_id and c.version = o.version
        where o.charge_id = h.id and o.claim_id <> l.claim_id and c.state not in ('withdrawn', 'declined')) as elsewhere`),
    );
  return new Map(rows.map(({ line_id, ...charge }) => [line_id, charge]));
}

export interface CandidateRow extends DuplicateLine {
  /** The line of the claim it may be a duplicate of. */
  ofLine: string;
  own: DuplicateLine;
  claim: string;
  line: string;
  claimant: string;
}

/** How many lines one line is compared with at most. */
export const MOST_CANDIDATES = 200;

const FACTS = (line: string, receipt: string, file: string, reading: string) =>
  `jsonb_build_object('amount', ${line}.amount::text, 'currency', ${line}.currency, 'date', ${line}.date, 'merchant', ${line}.merchant,
    'receipt', ${receipt}.sha256, 'likeness', ${file}.likeness, 'shows', ${SHOWS(receipt, reading)}, 'charge', ${line}.charge_id::text)`;

/**
 * Lines of any claim that have something in common with a line of this one: the receipt's file, a band of its likeness,
 * or amount, currency and the beginning of a word of the merchant within a few days. Every branch goes by an index, so the time depends on what is alike and not
 * on how many lines there are; of more for a line than `MOST_CANDIDATES` one is given beyond them. Lines of one claim that share a receipt or a charge are one document split up.
 */
export async function selectCandidates(db: Db, key: VersionKey): Promise<CandidateRow[]> {
  const branches = [
    `join receipts r2 on r2.sha256 = r.sha256 join lines o on o.receipt_id = r2.id and o.claim_id <> l.claim_id`,
    ...[1, 5, 9, 13].map(
      (
        at,
      ) => `join receipt_files f2 on f.likeness is not null and substr(f2.likeness, ${at}, 4) = substr(f.likeness, ${at}, 4) and f2.sha256 <> f.sha256
        join receipts r2 on r2.sha256 = f2.sha256 join lines o on o.receipt_id = r2.id and (o.claim_id <> l.claim_id or o.id <> l.id)`,
    ),
    `join lines o on o.currency = l.currency and o.amount = l.amount and o.date between l.date - ${NEAR_DAYS} and l.date + ${NEAR_DAYS}
      and merchant_keys(o.merchant) && merchant_keys(l.merchant) and (o.claim_id <> l.claim_id or (o.id <> l.id and o.date = l.date and o.receipt_id is distinct from l.receipt_id))`,
  ];
  const select = (join: string) => `
    select l.id as line, o.claim_id, o.version, o.id from lines l left join receipts r on r.id = l.receipt_id left join receipt_files f on f.sha256 = r.sha256
    ${join} where l.claim_id = :claim and l.version = :version`;
  const query = db.raw(
    `with all_pairs as (${branches.map(select).join(' union ')}),
       counted as (select a.*, row_number() over (partition by a.line order by a.claim_id, a.version, a.id) as place from all_pairs a),
       pairs as (select * from counted where place <= ${MOST_CANDIDATES + 1})
     select p.line as "ofLine", c.number as claim, o.id as line, who.name as claimant, ${FACTS('l', 'lr', 'lf', 'lg')} as own, ${FACTS('o', 'r', 'f', 'g')} as other
     from pairs p join claims c on c.id = p.claim_id and c.version = p.version and c.state not in ('draft', 'withdrawn', 'declined')
     join people who on who.id = c.claimant_id
     join lines o on o.claim_id = p.claim_id and o.version = p.version and o.id = p.id
     left join receipts r on r.id = o.receipt_id left join receipt_files f on f.sha256 = r.sha256 left join readings g on g.sha256 = r.sha256
     join lines l on l.claim_id = :claim and l.version = :version and l.id = p.line
     left join receipts lr on lr.id = l.receipt_id left join receipt_files lf on lf.sha256 = lr.sha256 left join readings lg on lg.sha256 = lr.sha256
     order by c.id, o.position`,
    { claim: String(key.claim_id), version: key.version },
  );
  // A statement by name is planned a few times and then no more; this one takes longer to plan than to run.
  const { rows } = await query.options({ name: 'lines that are alike' });
  return rows.map(({ own, other, ...row }: { own: Facts; other: Facts } & Record<string, string>) => ({
    ...row,
    ...lineOf(`${row.claim}/${row.line}`, other),
    own: lineOf(row.ofLine!, own),
  }));
}

type Facts = Omit<DuplicateLine, 'id' | 'amount'> & { amount: string };
const lineOf = (id: string, facts: Facts): DuplicateLine => ({ ...facts, id, amount: BigInt(facts.amount) });
