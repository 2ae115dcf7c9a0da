import { canonical } from '../../../core/numbers/canonical.ts';

/** The rows that are not among those there were before, whatever the order of their fields: what was stored comes back in another one. */
export function rowsNotIn<Row extends object>(before: readonly Row[], rows: readonly Row[]): Row[] {
  const known = new Set(before.map(canonical));
  return rows.filter((row) => !known.has(canonical(row)));
}
