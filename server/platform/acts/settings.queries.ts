import type { Db } from '../db/connect.ts';

/** The values of some settings by key; one that was never set is missing. */
export async function selectSettings(db: Db, keys: readonly string[]): Promise<Record<string, unknown>> {
  const rows = await db('settings')
    .whereIn('key', [...keys])
    .select('key', 'value');
  return Object.fromEntries(rows.map((r) => [r.key, r.value]));
}
