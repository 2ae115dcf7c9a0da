/** A decision that is needed, as it stands: not yet taken (null), or by whom. */
export interface StandingNeed {
  place: number;
  people: readonly string[];
  decidedBy: string | null;
}

/**
 * The decisions that wait now: those at the first place where one is not yet taken; [] when all are. Example: B at place 1 has
 * decided, C and D at place 2 have not → C's and D's.
 */
export function waitingNeeds<N extends StandingNeed>(needs: readonly N[]): N[] {
  const open = needs.filter((n) => n.decidedBy === null);
  const place = Math.min(...open.map((n) => n.place));
  return open.filter((n) => n.place === place);
}

/**
 * The decisions somebody takes by deciding now, for themselves and for those whose substitute they are: what waits for them,
 * and, since nobody decides twice, what would wait for them later. [] when nothing waits for them now.
 */
export function decidedWith<N extends StandingNeed>(
  needs: readonly N[],
  person: string,
  standsFor: readonly string[],
): N[] {
  const theirs = (need: N) => need.people.includes(person) || need.people.some((p) => standsFor.includes(p));
  if (!waitingNeeds(needs).some(theirs)) return [];
  return needs.filter((n) => n.decidedBy === null && theirs(n));
}
