/**
 * The calendar date (YYYY-MM-DD) of a moment in a time zone of the IANA database. Example: 2026-03-01T23:30:00Z is
 * 2026-03-02 in Asia/Tokyo and 2026-03-01 in Europe/Dublin. A zone that is none throws a RangeError.
 */
export function localDate(moment: Date, timeZone: string): string {
  const format = formats.get(timeZone) ?? dateFormat(timeZone);
  formats.set(timeZone, format);
  return format.format(moment);
}

/** Making a format takes longer than all else that is done with dates; there are some 600 zones. */
const formats = new Map<string, Intl.DateTimeFormat>();
const dateFormat = (timeZone: string) =>
  new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' });

/** Whether a text names a time zone of the IANA database. Examples: "Asia/Tokyo" is one, "Mars/Olympus" and "" are none. */
export function isTimeZone(text: string): boolean {
  try {
    return text !== '' && new Intl.DateTimeFormat('en', { timeZone: text }) instanceof Intl.DateTimeFormat;
  } catch {
    return false;
  }
}

/** The hour (0 to 23) of a moment in a time zone. Example: 2026-03-01T23:30:00Z is 8 in Asia/Tokyo, 23 in Europe/Dublin. */
export const localHour = (moment: Date, timeZone: string): number =>
  Number(new Intl.DateTimeFormat('en-GB', { timeZone, hour: '2-digit', hourCycle: 'h23' }).format(moment));
