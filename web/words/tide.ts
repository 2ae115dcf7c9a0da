import { scaleLinear } from 'd3-scale';
import type { TidePiece } from '../api/claims.ts';

/** The least part of the bar a state gets, so that an hour among months is still seen. */
const LEAST = 0.06;
const DAY = 86_400_000;

export interface TidePart {
  state: string;
  /** Time spent there, in milliseconds. */
  ms: number;
  /** Where it begins and how wide it is on a bar of 100. */
  x: number;
  width: number;
}

/** The states a claim went through, each as wide as the time spent there until the next one or now; together 100. */
export function tideParts(pieces: readonly TidePiece[], now: number): TidePart[] {
  const ends = [...pieces.slice(1).map((p) => Date.parse(p.from)), now];
  const spans = pieces.map((p, i) => Math.max(0, ends[i]! - Date.parse(p.from)));
  const total = spans.reduce((a, b) => a + b, 0) || 1;
  const raw = spans.map((span) => Math.max(span / total, LEAST));
  const scale = scaleLinear([0, raw.reduce((a, b) => a + b, 0)], [0, 100]);
  let sum = 0;
  return pieces.map((piece, i) => {
    const x = scale(sum);
    sum += raw[i]!;
    return { state: piece.state, ms: spans[i]!, x, width: scale(sum) - x };
  });
}

/** A time as its largest whole unit: "3 d", "5 h", at least "1 min". */
export function age(ms: number): string {
  const days = Math.floor(ms / DAY);
  if (days >= 1) return `${days} d`;
  const hours = Math.floor(ms / 3_600_000);
  return hours >= 1 ? `${hours} h` : `${Math.max(1, Math.floor(ms / 60_000))} min`;
}
