import type { Coding } from '../../documents/case.schema.ts';

/**
 * The coding that applies where several levels speak, dimension by dimension: the later argument wins, so call it with
 * claim, line, item, share. Levels that say nothing may be null. ({costCentre: "410", fund: "10"}, null, {fund: "20"})
 * → {costCentre: "410", fund: "20"}.
 */
export function mergeCoding(...levels: (Coding | null | undefined)[]): Coding {
  const merged: Coding = {};
  for (const level of levels) for (const dimension in level) merged[dimension] = level[dimension]!;
  return merged;
}

/**
 * Separates the account a coding names (null when it names none) from its dimensions. {account: "6210", fund: "10"} →
 * account "6210", dimensions {fund: "10"}.
 */
export function takeAccount(coding: Coding): { account: string | null; dimensions: Coding } {
  if (coding.account === undefined) return { account: null, dimensions: coding };
  const { account, ...dimensions } = coding;
  return { account, dimensions };
}
