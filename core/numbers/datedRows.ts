import { holdsOn, type Dated } from './isoDate.ts';

/** Rows of one kind, looked up by their key and a date. */
export interface DatedRows<T> {
  /** The row that holds on the date, or undefined. checkCase has refused overlapping rows. */
  on(key: string, date: string): T | undefined;
  has(key: string): boolean;
}

/**
 * Rows looked up by key and date. A row to 30 June and one from 1 July → `on(key, "2026-07-01")` gives the second.
 */
export function datedRows<T extends Dated>(rows: readonly T[], keyOf: (row: T) => string): DatedRows<T> {
  const index = new Map<string, T[]>();
  for (const row of rows) {
    const list = index.get(keyOf(row));
    if (list) list.push(row);
    else index.set(keyOf(row), [row]);
  }
  return {
    on: (key, date) => index.get(key)?.find((row) => holdsOn(row, date)),
    has: (key) => index.has(key),
  };
}
