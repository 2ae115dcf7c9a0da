/** Something to be done by a helper: for whom, how big, and whether it may take long. */
export interface Claimant {
  person: string;
  /** Done before what takes long, and never left without a helper by it. */
  short: boolean;
  /** Bytes; the smaller comes first. */
  weight: number;
}
export interface Places {
  /** How many run at once, and how many of them may be long. */
  most: number;
  mostLong: number;
}

/**
 * Which of those that wait begins next, by its index; -1 when none may. Whoever has least running comes first, then what
 * is short, then what is small, then what came first. The last free place is kept for somebody who has nothing running, so
 * that one person's files hold up nobody else. Example: A has one running, A and B wait, one place free → B.
 */
export function nextToBegin(waiting: readonly Claimant[], running: readonly Claimant[], places: Places): number {
  const free = places.most - running.length;
  if (free <= 0) return -1;
  const has = (person: string) => running.filter((r) => r.person === person).length;
  const longFull = running.filter((r) => !r.short).length >= places.mostLong;
  const may = (w: Claimant) => (w.short || !longFull) && (free > 1 || has(w.person) === 0);
  const order = (a: Claimant, b: Claimant) =>
    has(a.person) - has(b.person) || Number(b.short) - Number(a.short) || a.weight - b.weight;
  const first = waiting.filter(may).reduce<Claimant | null>((a, b) => (a === null || order(a, b) > 0 ? b : a), null);
  return first === null ? -1 : waiting.indexOf(first);
}
