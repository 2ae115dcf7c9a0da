const DAY = 86_400_000;

/** How long something waits, in whole days: "since today", "for one day", "for 12 days". */
export function sayWait(since: string, now = Date.now()): string {
  const days = Math.floor((now - Date.parse(since)) / DAY);
  if (days < 1) return 'since today';
  return days === 1 ? 'for one day' : `for ${days} days`;
}
