const DAY = 86_400_000;

/**
 * True for a calendar date written YYYY-MM-DD that exists (2026-02-31 does not). "2024-02-29" → true; "2026-02-29" →
 * false.
 */
export function isIsoDate(text: string): boolean {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return false;
  const time = Date.parse(`${text}T00:00:00Z`);
  return !Number.isNaN(time) && new Date(time).toISOString().slice(0, 10) === text;
}

/**
 * Whole days from one ISO date to another; negative when `to` is earlier. ("2026-02-28", "2026-03-01") → 1; the other
 * way round → -1.
 */
export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / DAY);
}

/**
 * The ISO date `days` after `date` (before it when negative). ("2026-03-01", -1) → "2026-02-28"; 0 → the same day.
 */
export function addDays(date: string, days: number): string {
  return new Date(Date.parse(`${date}T00:00:00Z`) + days * DAY).toISOString().slice(0, 10);
}

/** A row that holds from one date to another, both included; a missing end is open. */
export interface Dated {
  from?: string | null | undefined;
  to?: string | null | undefined;
}

/**
 * ISO dates compare as text, so no date arithmetic is needed to see whether a row holds on a day. {from: "2026-01-01",
 * to: null} on "2026-01-01" → true, on "2025-12-31" → false.
 */
export function holdsOn(row: Dated, date: string): boolean {
  return (!row.from || row.from <= date) && (!row.to || date <= row.to);
}

/** 1 for Monday to 7 for Sunday. "2026-11-26" → 4. */
export function weekday(date: string): number {
  return new Date(Date.parse(`${date}T00:00:00Z`)).getUTCDay() || 7;
}
