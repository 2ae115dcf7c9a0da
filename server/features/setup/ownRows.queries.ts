import type { Db } from '../../platform/db/connect.ts';

/** Whether somebody owns a code of a dimension. */
export async function ownsCode(db: Db, person: string, code: Record<string, unknown>): Promise<boolean> {
  return (
    (await db('dimension_values')
      .where({ ...code, owner_id: person })
      .first('code')) !== undefined
  );
}
