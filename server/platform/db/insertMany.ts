import type { Db } from './connect.ts';

/** A statement holds 65,535 values; no table has more columns than this leaves room for. */
const AT_A_TIME = 1000;

/** Puts any number of rows, also none, into a table with as few statements as will hold them. */
export async function insertMany(trx: Db, table: string, rows: readonly object[]): Promise<void> {
  for (let from = 0; from < rows.length; from += AT_A_TIME) await trx(table).insert(rows.slice(from, from + AT_A_TIME));
}
