import type { Comparison, Tie, TieKind, TieState } from '../tie.types.ts';

const ORDER: readonly TieState[] = ['none', 'tied', 'open', 'off'];

/** The state that most deserves attention; 'none' for no states at all. */
export function worst(states: readonly TieState[]): TieState {
  return states.reduce<TieState>((a, s) => (ORDER.indexOf(s) > ORDER.indexOf(a) ? s : a), 'none');
}

export function fromComparisons(
  line: string,
  kind: TieKind,
  comparisons: Comparison[],
): Omit<Tie, 'difference' | 'steps'> {
  return { line, kind, state: worst(comparisons.map((c) => c.state)), comparisons };
}
