import type { ActRule, Lifecycle, Way } from './lifecycle.types.ts';

/**
 * A lifecycle as a Mermaid state diagram: one arrow a way, named by its act. `[*]` is where a record begins; an act that
 * leaves the state as it is goes back to it. Example: `draft --> with_approver : submit`.
 */
export function drawLifecycle({ states, acts }: Lifecycle): string {
  const arrows = Object.entries<ActRule<string>>(acts).flatMap(([act, { ways }]) => ways.flatMap((w) => arrow(act, w)));
  const names = states.filter((s) => s.includes(' ')).map((s) => `  state "${s}" as ${name(s)}`);
  return ['stateDiagram-v2', ...names, ...group(arrows)].join('\n');
}

interface Arrow {
  from: string;
  to: string;
  act: string;
}

const name = (state: string): string => state.replaceAll(' ', '_');

function arrow(act: string, { from, to }: Way<string>): Arrow[] {
  if (from === null) return [{ from: '[*]', to: name(to!), act }];
  return from.map((state) => ({ from: name(state), to: name(to ?? state), act }));
}

/** Arrows between the same two states are drawn once, with all their acts. */
function group(arrows: readonly Arrow[]): string[] {
  const byEnds = new Map<string, string[]>();
  for (const { from, to, act } of arrows) {
    const ends = `  ${from} --> ${to}`;
    byEnds.set(ends, [...(byEnds.get(ends) ?? []), act]);
  }
  return [...byEnds].map(([ends, acts]) => `${ends} : ${[...new Set(acts)].join(', ')}`);
}
