/** Numbers that look random and are the same every time: mulberry32 from a seed. */
export interface Random {
  /** From 0 to below 1. */
  next(): number;
  /** A whole number from low to high, both included. */
  whole(low: number, high: number): number;
  pick<T>(from: readonly T[]): T;
}

export function randomFrom(seed: number): Random {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const whole = (low: number, high: number) => low + Math.floor(next() * (high - low + 1));
  return { next, whole, pick: (from) => from[whole(0, from.length - 1)]! };
}
