import type { Need, Route, RoutedLevel } from './route.types.ts';

/** A decision of a record that was sent, as it stands. */
export interface TakenNeed extends Need {
  level: string;
  place: number;
  decidedBy: string | null;
}

/** A route with the decisions that were taken on it, in the order of its levels. */
export interface Continued {
  levels: RoutedLevel[];
  needs: TakenNeed[];
}

/**
 * How a record that was sent goes on when those it waits for changed: decisions that were taken stay, of the others those of the
 * route as it would be computed now are asked, of somebody who decided already none. Null where nothing changes, and where the
 * new route would leave nobody to decide. Examples: waits for B who left, whose approver is C → waits for C; B decided, waits for
 * D who has a substitute E since today → waits for E.
 */
export function continueRoute(needs: readonly TakenNeed[], now: Route): Continued | null {
  if (now.unfilled) return null;
  const decided = needs.filter((n) => n.decidedBy !== null);
  const people = new Set(decided.map((n) => n.decidedBy));
  const levels = now.levels.map((level) => {
    const taken = decided.filter((n) => n.level === level.name && n.place === level.place);
    const open = level.needs
      .flatMap((need) => leftOf(need, taken))
      .filter((need) => !need.people.some((p) => people.has(p)));
    return { ...level, taken, open };
  });
  const known = new Set(levels.flatMap((l) => l.taken));
  // a level that is no longer asked was decided all the same
  const gone = decided.filter((n) => !known.has(n));
  const open = levels.flatMap(({ name, place, open: asked }) => asked.map((need) => placed(need, name, place)));
  const waited = needs.filter((n) => n.decidedBy === null);
  if (open.length === 0 || sameNeeds(open, waited)) return null;
  const shown = [...levels, ...levelsOf(gone)].sort((a, b) => a.place - b.place);
  return {
    levels: shown.map(({ taken, open: asked, ...level }) => ({ ...level, needs: [...taken.map(plain), ...asked] })),
    needs: shown.flatMap(({ name, place, taken, open: asked }) => [
      ...taken,
      ...asked.map((n) => placed(n, name, place)),
    ]),
  };
}

const placed = (need: Need, level: string, place: number): TakenNeed => ({
  ...plain(need),
  level,
  place,
  decidedBy: null,
});
const plain = ({ people, about, detours }: Need): Need => ({ people, about, detours });

/** What of a need was not decided on its level: one about codes without those that were, any other one not at all once it was. */
function leftOf(need: Need, taken: readonly TakenNeed[]): Need[] {
  if (taken.length === 0) return [need];
  const done = new Set(taken.flatMap((n) => n.about.map(codeOf)));
  const about = need.about.filter((code) => !done.has(codeOf(code)));
  return about.length > 0 ? [{ ...need, about }] : [];
}

const codeOf = ({ dimension, code }: Need['about'][number]): string => `${dimension} ${code}`;

/** Levels by which something was decided and which are no longer among the computed ones. */
const levelsOf = (gone: readonly TakenNeed[]) =>
  gone.map((need) => ({
    ...{ id: need.level, name: need.level, place: need.place, needs: [], skipped: [] },
    ...{ taken: [need], open: [] as Need[] },
  }));

function sameNeeds(a: readonly TakenNeed[], b: readonly TakenNeed[]): boolean {
  const key = ({ level, place, people, about }: TakenNeed) =>
    JSON.stringify([place, level, [...people].sort(), about.map(codeOf).sort()]);
  const keys = new Set(b.map(key));
  return a.length === b.length && a.every((need) => keys.has(key(need)));
}
