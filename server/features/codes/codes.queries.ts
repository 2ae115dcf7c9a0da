import type { Coding, Split } from '../../../core/documents/case.schema.ts';
import { groupBy } from '../../../core/numbers/groupBy.ts';
import { holdsOn } from '../../../core/numbers/isoDate.ts';
import type { Favourite, SaveCoding, SavedCoding } from '../../../contract/codes.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';

const CLAIMS_LOOKED_AT = 20;
const RECENT_OF_EACH = 5;

/** The codes a person used last on claims that are theirs or that they prepared, newest first; of null the categories. */
export async function selectRecentCodes(
  db: Db,
  person: string,
): Promise<{ dimension: string | null; codes: string[] }[]> {
  const { rows } = await db.raw(
    `with latest as (
       select id, version, coding from claims where claimant_id = :person or preparer_id = :person order by id desc limit ${CLAIMS_LOOKED_AT}
     ), used as (
       select k.key as dimension, k.value as code, c.id
         from latest c join lines l on l.claim_id = c.id and l.version = c.version, jsonb_each_text(c.coding || l.coding) k
       union all select k.key, k.value, c.id
         from latest c join shares s on s.claim_id = c.id and s.version = c.version, jsonb_each_text(s.coding) k
       union all select null, l.category, c.id
         from latest c join lines l on l.claim_id = c.id and l.version = c.version where l.category is not null
     )
     select dimension, code from used group by dimension, code order by max(id) desc, count(*) desc, code`,
    { person },
  );
  const groups = groupBy(rows as { dimension: string | null; code: string }[], (row) => row.dimension);
  return [...groups].map(([dimension, codes]) => ({
    dimension,
    codes: codes.slice(0, RECENT_OF_EACH).map((row) => row.code),
  }));
}

export const selectFavourites = (db: Db, person: string): Promise<{ dimension: string | null; code: string }[]> =>
  db('favourite_codes').where({ person_id: person }).orderBy('code').select('dimension_id as dimension', 'code');

/** Keeps a code among those that come first for the person, or no longer. */
export async function keepFavourite(db: Db, person: string, { dimension, code, on }: Favourite): Promise<void> {
  const row = { person_id: person, dimension_id: dimension, code };
  if (dimension !== null && !(await db('dimensions').where({ id: dimension }).first('id')))
    throw new Refused('not-found', { what: 'dimension' });
  if (on) {
    await assertRoom(db, 'favourite_codes', person);
    await db('favourite_codes').insert(row).onConflict().ignore();
  } else
    await db('favourite_codes')
      .where({ person_id: person, code })
      .whereRaw('dimension_id is not distinct from ?', [dimension])
      .delete();
}

/** Saved codings: one's own, then those that everybody of one's entity has on the day, each by name. */
export async function selectCodings(db: Db, person: string, on: string): Promise<SavedCoding[]> {
  const own: { id: bigint; name: string; coding: Coding; split: Split | null }[] = await db('own_codings')
    .where({ person_id: person })
    .orderBy('name')
    .select('id', 'name', 'coding', 'split');
  const { entity_id } = await db('people').where({ id: person }).first('entity_id');
  const shared = (await db('coding_presets').orderBy('id')).filter(
    (row) => holdsOn({ from: row.valid_from, to: row.valid_to }, on) && (row.rule.entity ?? entity_id) === entity_id,
  );
  return [
    ...own.map((row) => ({ ...row, id: String(row.id) })),
    ...shared.map(({ rule }) => ({ id: null, name: rule.name as string, coding: rule.coding as Coding, split: null })),
  ];
}

const MOST_KEPT = 200;
/** Nobody keeps more than can be looked through. */
async function assertRoom(db: Db, table: 'own_codings' | 'favourite_codes', person: string): Promise<void> {
  const row = await db(table).where({ person_id: person }).count({ all: '*' }).first();
  if (Number(row?.all ?? 0) >= MOST_KEPT) throw new Refused('many-kept', { most: String(MOST_KEPT) });
}

/** Saves a coding under a name; what had the name before is replaced. */
export async function saveCoding(db: Db, person: string, { name, coding, split }: SaveCoding): Promise<void> {
  await assertRoom(db, 'own_codings', person);
  const row = { person_id: person, name, coding: JSON.stringify(coding), split: split && JSON.stringify(split) };
  await db('own_codings').insert(row).onConflict(['person_id', 'name']).merge();
}

/** Forgets a saved coding of one's own; false when there is none. */
export async function forgetCoding(db: Db, person: string, id: bigint): Promise<boolean> {
  return (
    (await db('own_codings')
      .where({ person_id: person })
      .whereRaw('id = ?', [String(id)])
      .delete()) > 0
  );
}
