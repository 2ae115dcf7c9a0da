import type { DuplicateLine } from '../../../core/evidence/duplicates/findDuplicates.ts';
import { NEAR_DAYS } from '../../../core/evidence/duplicates/findDuplicates.ts';
import type { Reading } from '../../../core/evidence/reading/reading.types.ts';
import type { Db } from '../../platform/db/connect.ts';
import type { ShownPage } from '../receipts/receipts.queries.ts';
import { PAGES, SHOWS } from '../receipts/shows.ts';
import type { VersionKey } from './versionKey.ts';

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

/**
 * How many lines one line is compared with at most, those first that are alike in the surest way, and how many are taken up for
 * it before those that do not count are left out. Nobody looks at more; that there are more is said.
 */
export const MOST_CANDIDATES = 40;
const MOST_TAKEN_UP = 200;

const FACTS = (line: string, receipt: string, file: string, reading: string) =>
  `jsonb_build_object('amount', ${line}.amount::text, 'currency', ${line}.currency, 'date', ${line}.date, 'merchant', ${line}.merchant,
    'receipt', ${receipt}.sha256, 'likeness', ${file}.likeness, 'shows', ${SHOWS(receipt, reading)}, 'charge', ${line}.charge_id::text)`;

/** The lines of the claim that are asked about. */
const ASKED = '(:only::text[] is null or l.id = any(:only::text[]))';

/** Each way in which lines may be alike, by an index: the receipt's file, a band of its likeness, or what was bought. */
const ALIKE = [
  `select o.claim_id, o.version, o.id from receipts r2 join lines o on o.receipt_id = r2.id
     where r2.sha256 = l.sha256 and o.claim_id <> l.claim_id`,
  ...[1, 5, 9, 13].map(
    (
      at,
    ) => `select o.claim_id, o.version, o.id from receipt_files f2 join receipts r2 on r2.sha256 = f2.sha256 join lines o on o.receipt_id = r2.id
     where l.likeness is not null and f2.likeness is not null and substr(f2.likeness, ${at}, 4) = substr(l.likeness, ${at}, 4) and f2.sha256 <> l.sha256
       and (o.claim_id <> l.claim_id or o.id <> l.id)`,
  ),
  `select k.claim_id, k.version, k.line_id as id from line_keys k where k.key = any(l.keys) and k.date between l.date - ${NEAR_DAYS} and l.date + ${NEAR_DAYS}
     and (k.claim_id <> l.claim_id or (k.line_id <> l.id and k.date = l.date and l.receipt_id is distinct from
       (select s.receipt_id from lines s where s.claim_id = k.claim_id and s.version = k.version and s.id = k.line_id)))`,
];

/**
 * Lines of any claim that went out, and of this one, that have something in common with a line of this one: the receipt's file, a band of its likeness,
 * or amount, currency and the beginning of a word of the merchant within a few days. Every way goes by an index and takes up a
 * bounded number for each line, so the time grows with the lines of the claim and not with what is alike to them; of more for a line
 * than are taken up, or than `MOST_CANDIDATES`, the line is named. Lines of one claim that share a receipt or a charge are one
 * document split up.
 */
export async function selectCandidates(
  db: Db,
  key: VersionKey,
  only: readonly string[] | null = null,
): Promise<{ candidates: CandidateRow[]; cut: ReadonlySet<string> }> {
  const query = db.raw(
    `with own as (
       select l.*, r.sha256, f.likeness, array(select k.key from line_keys k where k.claim_id = l.claim_id and k.version = l.version and k.line_id = l.id) as keys
       from lines l left join receipts r on r.id = l.receipt_id left join receipt_files f on f.sha256 = r.sha256
       where l.claim_id = :claim and l.version = :version and ${ASKED}),
     taken as (${ALIKE.map(
       (way, i) =>
         `select ${i} as way, l.id as line, o.* from own l cross join lateral (${way} limit ${MOST_TAKEN_UP + 1}) o`,
     ).join(' union all ')}),
     counted as (
       select x.*, c.number, c.claimant_id, row_number() over (partition by x.line order by x.way, x.claim_id, x.version, x.id) as place
       from (select line, claim_id, version, id, min(way) as way from taken group by line, claim_id, version, id) x
       join claims c on c.id = x.claim_id and c.version = x.version and (c.id = :claim or c.state not in ('draft', 'withdrawn', 'declined'))),
     pairs as (select * from counted where place <= ${MOST_CANDIDATES})
     select p.line as "ofLine", p.number as claim, o.id as line, who.name as claimant, ${FACTS('o', 'r', 'f', 'g')} as facts
     from pairs p
     join people who on who.id = p.claimant_id
     join lines o on o.claim_id = p.claim_id and o.version = p.version and o.id = p.id
     left join receipts r on r.id = o.receipt_id left join receipt_files f on f.sha256 = r.sha256 left join readings g on g.sha256 = r.sha256
     union all select l.id, null, null, null, ${FACTS('l', 'r', 'f', 'g')}
     from lines l
     left join receipts r on r.id = l.receipt_id left join receipt_files f on f.sha256 = r.sha256 left join readings g on g.sha256 = r.sha256
     where l.claim_id = :claim and l.version = :version and ${ASKED}
     union all select distinct line, null, null, null, null::jsonb from (
       select line from taken group by line, way having count(*) > ${MOST_TAKEN_UP}
       union all select line from counted where place > ${MOST_CANDIDATES}) full_ones
     order by 2, 3`,
    { claim: String(key.claim_id), version: key.version, only: only as never },
  );
  // A statement by name is planned a few times and then no more; this one takes longer to plan than to run.
  const { rows } = await query.options({ name: 'lines that are alike' });
  const own = new Map<string, DuplicateLine>();
  const cut = new Set<string>();
  for (const { ofLine, claim, facts } of rows as Found[])
    if (claim === null && facts) own.set(ofLine, lineOf(ofLine, facts));
    else if (claim === null) cut.add(ofLine);
  const candidates = (rows as Found[]).flatMap(({ facts, ...row }) =>
    row.claim === null
      ? []
      : [{ ...row, ...lineOf(`${row.claim}/${row.line}`, facts!), claim: row.claim, own: own.get(row.ofLine)! }],
  );
  return { candidates, cut };
}

/** A line that is alike; without a claim a line of the claim's own, or without facts one of which more are alike. */
type Found = { ofLine: string; claim: string | null; line: string; claimant: string; facts: Facts | null };
type Facts = Omit<DuplicateLine, 'id' | 'amount'> & { amount: string };
const lineOf = (id: string, facts: Facts): DuplicateLine => ({ ...facts, id, amount: BigInt(facts.amount) });
