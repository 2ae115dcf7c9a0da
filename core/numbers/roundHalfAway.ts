/**
 * n/d rounded to the nearest integer, halves away from zero (5.5 → 6, −2.5 → −3, 0 → 0).
 * This is the only rounding Ebbet uses for money. d must be positive.
 */
export function roundHalfAway(n: bigint, d: bigint): bigint {
  return n < 0n ? -((-2n * n + d) / (2n * d)) : (2n * n + d) / (2n * d);
}
