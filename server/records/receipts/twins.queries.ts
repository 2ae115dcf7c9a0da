import { looksAlike } from '../../../core/evidence/duplicates/findDuplicates.ts';
import { merchantLikeness } from '../../../core/evidence/merchants/merchantWords.ts';
import type { Db } from '../../platform/db/connect.ts';
import { MERCHANT_SHOWN, DAY_SHOWN, SHOWS } from './shows.ts';

export interface Twin {
  id: bigint;
  sha256: string;
  ofId: bigint;
  ownerId: string;
  owner: string;
  name: string;
  addedAt: Date;
  /** The same file, almost the same picture, or the same amount, day and merchant. */
  how: 'file' | 'picture' | 'figures';
}

/** What is looked at of both sides. */
const SIDE = (prefix: string, receipt: string, file: string, reading: string) => `
  ${receipt}.sha256 as "${prefix}Sha", ${file}.likeness as "${prefix}Likeness", ${SHOWS(receipt, reading)} as "${prefix}Shows",
  ${DAY_SHOWN(receipt, reading)} as "${prefix}Day", ${MERCHANT_SHOWN(receipt, reading)} as "${prefix}Merchant"`;
const BANDS = [1, 5, 9, 13];

/** Receipts that may be twins, by what would have to be equal; each way has an index of its own. */
const WAYS = [
  'receipt_files f join receipts r on r.sha256 = f.sha256 where f.sha256 = mine."mineSha"',
  ...BANDS.map(
    (from) => `receipt_files f join receipts r on r.sha256 = f.sha256
      where mine."mineLikeness" is not null and substr(f.likeness, ${from}, 4) = substr(mine."mineLikeness", ${from}, 4)`,
  ),
  `receipts r join receipt_files f on f.sha256 = r.sha256
    where r.amount = split_part(mine."mineShows", ' ', 1)::bigint and r.date = mine."mineDay"::date`,
  `readings n join receipts r on r.sha256 = n.sha256 and r.amount is null join receipt_files f on f.sha256 = r.sha256
    where replace(n.reading->'amount'->>'value', '.', '') = split_part(mine."mineShows", ' ', 1)
      and n.reading->'date'->>'value' = mine."mineDay"`,
];

/**
 * Receipts of anybody that are the same file as the given ones, look almost like them, or show the same amount, day and
 * merchant, as two photographs of one paper do; the given ones themselves left out.
 */
export async function selectTwins(db: Db, of: readonly { id: bigint }[]): Promise<Twin[]> {
  if (of.length === 0) return [];
  const { rows } = await db.raw(
    `with mine as (select r.id as "ofId", g.state as "mineState", ${SIDE('mine', 'r', 'f', 'g')}
       from receipts r join receipt_files f on f.sha256 = r.sha256 left join readings g on g.sha256 = r.sha256 where r.id = any(?::bigint[])),
     ids as (${WAYS.map((way) => `select mine."ofId", x.id from mine, lateral (select r.id from ${way}) x`).join(' union ')})
     select mine.*, r.id, r.owner_id as "ownerId", p.name as owner, r.name, r.added_at as "addedAt", ${SIDE('its', 'r', 'f', 'g')}
     from ids join mine using ("ofId") join receipts r on r.id = ids.id and r.id <> ids."ofId" and r.state in ('added', 'confirmed')
       join receipt_files f on f.sha256 = r.sha256 left join readings g on g.sha256 = r.sha256 join people p on p.id = r.owner_id
     order by r.id`,
    [of.map((r) => String(r.id))],
  );
  return (rows as TwinRow[]).flatMap((row) => {
    const how = howAlike(row);
    const { ofId, id, ownerId, owner, name, addedAt, itsSha } = row;
    return how ? [{ ofId, id, ownerId, owner, name, addedAt, sha256: itsSha, how }] : [];
  });
}

interface TwinRow extends Omit<Twin, 'how' | 'sha256'> {
  mineState: string | null;
  mineSha: string;
  mineLikeness: string | null;
  mineShows: string | null;
  mineDay: string | null;
  mineMerchant: string | null;
  itsSha: string;
  itsLikeness: string | null;
  itsShows: string | null;
  itsDay: string | null;
  itsMerchant: string | null;
}

const SAME_MERCHANT = 0.5;

function howAlike(row: TwinRow): Twin['how'] | null {
  if (row.mineSha === row.itsSha) return 'file';
  if (row.mineState === 'waiting') return null;
  const mine = { likeness: row.mineLikeness, shows: row.mineShows };
  if (looksAlike(mine, { likeness: row.itsLikeness, shows: row.itsShows })) return 'picture';
  const same =
    row.mineShows !== null && row.mineShows === row.itsShows && row.mineDay !== null && row.mineDay === row.itsDay;
  return same && merchantLikeness(row.mineMerchant, row.itsMerchant) >= SAME_MERCHANT ? 'figures' : null;
}
