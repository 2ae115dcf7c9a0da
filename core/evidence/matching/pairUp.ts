import { groupBy } from '../../numbers/groupBy.ts';
import { assign, type Edge } from './assign.ts';
import type { Pair, Score, Side } from './matching.types.ts';
import { nearEdges } from './nearPair.ts';
import { scorePair } from './scorePair.ts';
import { sumsOf } from './togetherPairs.ts';

/**
 * Pairs left sides (lines, receipts) with right sides (charges, or receipts), no side twice, best pairs first. First those
 * that agree, the strongest before all others: no pair is given up for weaker ones; of what is left over, one side that is
 * the sum of several on the other; then those of which something differs, which is named. Example: two lines of 20.00, charges of 20.00 and 35.00 → one
 * pair; the line nearer in date has it.
 */
export function pairUp(lefts: readonly Side[], rights: readonly Side[]): Pair[] {
  const exact = chosenOf(lefts, rights, exactEdges);
  const [lefts2, rights2] = without(lefts, rights, exact);
  const split = sumsOf(rights2, lefts2, 'lines').map(({ whole, parts, pair }) => ({
    left: parts,
    right: [whole],
    ...pair,
  }));
  const [lefts3, rights3] = without(lefts2, rights2, split);
  const parted = sumsOf(lefts3, rights3, 'charges').map(({ whole, parts, pair }) => ({
    left: [whole],
    right: parts,
    ...pair,
  }));
  const near = chosenOf(...without(lefts3, rights3, parted), nearEdges);
  return [...exact, ...split, ...parted, ...near].sort((a, b) => b.score - a.score);
}

type EdgesOf = (lefts: readonly Side[], rights: readonly Side[], scores: Map<number, Score>) => Edge[];

/** The pairs of one side each, so that neither side of a pair could have a stronger one with a side that would gain by it. */
function chosenOf(lefts: readonly Side[], rights: readonly Side[], edgesOf: EdgesOf): Pair[] {
  const scores = new Map<number, Score>();
  const chosen = strongestFirst(lefts.length, rights.length, edgesOf(lefts, rights, scores));
  return lefts.flatMap((left, i) => {
    const column = chosen[i]!;
    return column < 0
      ? []
      : [{ left: [left.id], right: [rights[column]!.id], ...scores.get(i * rights.length + column)! }];
  });
}

/**
 * For each row its column, or -1: pairs of the greatest worth first, of equal ones as many as there can be, then the next. A sum
 * over all would give up one that is certain for two that are doubtful.
 */
function strongestFirst(rows: number, columns: number, edges: readonly Edge[]): Int32Array {
  const columnOf = new Int32Array(rows).fill(-1);
  const taken = new Set<number>();
  const levels = [...groupBy(edges, (edge) => edge.worth)].sort(([a], [b]) => b - a);
  for (const [, equal] of levels) {
    const free = equal.filter((edge) => columnOf[edge.row]! < 0 && !taken.has(edge.column));
    if (free.length === 0) continue;
    for (const [row, column] of assign(rows, columns, free).entries()) {
      if (column < 0) continue;
      columnOf[row] = column;
      taken.add(column);
    }
  }
  return columnOf;
}

function without(lefts: readonly Side[], rights: readonly Side[], pairs: readonly Pair[]): [Side[], Side[]] {
  const [l, r] = [new Set(pairs.flatMap((p) => p.left)), new Set(pairs.flatMap((p) => p.right))];
  return [lefts.filter((side) => !l.has(side.id)), rights.filter((side) => !r.has(side.id))];
}

/** Only sides that agree in an amount can be a pair, so only those are looked at. */
function exactEdges(lefts: readonly Side[], rights: readonly Side[], scores: Map<number, Score>): Edge[] {
  const byAmount = new Map<string, number[]>();
  const note = (amount: bigint | null, currency: string | null, j: number) => {
    if (amount === null || currency === null) return;
    const key = `${currency} ${amount}`;
    const list = byAmount.get(key);
    if (!list) byAmount.set(key, [j]);
    else if (list.at(-1) !== j) list.push(j);
  };
  rights.forEach((right, j) => {
    note(right.amount, right.currency, j);
    if (right.settled) note(right.settled.amount, right.settled.currency, j);
  });
  return lefts.flatMap((left, i) =>
    (byAmount.get(`${left.currency} ${left.amount}`) ?? []).flatMap((j) => {
      const score = scorePair(left, rights[j]!);
      if (!score) return [];
      scores.set(i * rights.length + j, score);
      return [{ row: i, column: j, worth: score.score }];
    }),
  );
}
