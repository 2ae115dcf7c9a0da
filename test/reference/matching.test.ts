import munkres from 'munkres-js';
import { describe, expect, it } from 'vitest';
import { assign, type Edge } from '../../core/evidence/matching/assign.ts';
import { randomFrom } from '../../demo/random.ts';

/** The choice of pairs against a general-purpose package for the assignment problem (the Hungarian method, dense). */
const MOST = 100;

function problem(seed: number) {
  const random = randomFrom(seed);
  const [rows, columns] = [random.whole(1, 14), random.whole(1, 14)];
  const edges: Edge[] = [];
  for (let row = 0; row < rows; row += 1)
    for (let column = 0; column < columns; column += 1)
      if (random.next() < 0.4) edges.push({ row, column, worth: random.whole(1, MOST) });
  return { rows, columns, edges };
}

/** Square, with a cost for every pair: what a pair is worth less than the most; pairs that are none are worth nothing. */
function worthByPackage(rows: number, columns: number, edges: readonly Edge[]): number {
  const size = Math.max(rows, columns);
  const cost = Array.from({ length: size }, () => Array.from({ length: size }, () => MOST));
  for (const { row, column, worth } of edges) cost[row]![column] = MOST - worth;
  return munkres(cost).reduce((sum, [row, column]) => sum + MOST - cost[row]![column]!, 0);
}

describe('assigning pairs', () => {
  it('is worth as much as the package’s choice, and takes no row and no column twice', () => {
    for (let seed = 1; seed <= 400; seed += 1) {
      const { rows, columns, edges } = problem(seed);
      const chosen = [...assign(rows, columns, edges)];
      const taken = chosen.filter((c) => c >= 0);
      expect(new Set(taken).size).toBe(taken.length);
      const worth = edges.reduce((sum, e) => sum + (chosen[e.row] === e.column ? e.worth : 0), 0);
      expect([seed, worth]).toEqual([seed, worthByPackage(rows, columns, edges)]);
    }
  });
});
