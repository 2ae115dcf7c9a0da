import { groupBy } from '../../../core/numbers/groupBy.ts';
import type { Db } from '../../platform/db/connect.ts';
import { selectStateChanges } from '../../platform/history/history.queries.ts';
import type { ListedClaim } from './listed.queries.ts';

/** Rows of a list with the states each claim went through and since when. */
export async function withTides<Row extends ListedClaim>(db: Db, rows: readonly Row[]) {
  const changes = await selectStateChanges(
    db,
    'claim',
    rows.map((row) => row.number),
  );
  const byClaim = groupBy(changes, (change) => change.recordId);
  return rows.map((row) => ({
    ...row,
    tide: (byClaim.get(row.number) ?? []).map(({ state, at }) => ({ state, from: at })),
  }));
}
