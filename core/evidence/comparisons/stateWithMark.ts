import type { Tie, TieState } from './tie.types.ts';

/** What a reviewer said of a comparison. */
export const MARKS = ['seen', 'waived'] as const;
export type MarkKind = (typeof MARKS)[number];
/** A tie's state with what the reviewer said of it. */
export type ShownTie = TieState | MarkKind;

/**
 * The state of a tie with its mark: what is off can be waived, what cannot be compared waived or ticked as seen. A mark
 * on what is tied, and a tick on what is off, change nothing. Off and waived → "waived"; off and seen → "off"; tied and
 * seen → "tied".
 */
export function stateWithMark(tie: Pick<Tie, 'state'>, mark: MarkKind | null): ShownTie {
  if (mark === 'waived' && (tie.state === 'off' || tie.state === 'open')) return 'waived';
  if (mark === 'seen' && tie.state === 'open') return 'seen';
  return tie.state;
}

/**
 * Whether a comparison still has to be dealt with before the claim can be cleared. "off" and "open" → true; "waived",
 * "seen", "tied" and "none" → false.
 */
export const isLoose = (state: ShownTie): boolean => state === 'off' || state === 'open';
