import { addDays } from '../core/numbers/isoDate.ts';
import { assign } from '../core/evidence/matching/assign.ts';
import type { Side } from '../core/evidence/matching/matching.types.ts';
import { pairUp } from '../core/evidence/matching/pairUp.ts';
import { scorePair } from '../core/evidence/matching/scorePair.ts';
import { randomFrom } from '../demo/random.ts';
import { median, type Row } from './measure.ts';

const COUNT = 2000;
const SHOPS = ['Quay Stores', 'Reedbed Cafe', 'Curlew Rooms', 'Tidewater Outfitters', 'Harbour Rail', 'Marsh Motors'];

/** Lines and the charges they were paid with: a few amounts are common, days are a little apart, a tenth has no partner. */
function sides(): { lines: Side[]; charges: Side[] } {
  const random = randomFrom(41);
  const lines = Array.from({ length: COUNT }, (_, i): Side => ({
    id: `l${i}`,
    amount: BigInt(i % 4 === 0 ? 450 + 50 * random.whole(0, 9) : random.whole(300, 90_000)),
    currency: 'EUR',
    date: addDays('2026-01-01', random.whole(0, 150)),
    merchant: random.pick(SHOPS),
    card: null,
    settled: null,
  }));
  const charges = lines.map((line, i): Side => ({
    ...line,
    id: `c${i}`,
    amount: line.amount! + (i % 10 === 0 ? 1n : 0n),
    date: addDays(line.date!, random.whole(0, 3)),
    card: '4410',
  }));
  return { lines, charges };
}

/** The same choice without knowing which amounts agree: every line is scored with every charge. */
function everyPair(lines: readonly Side[], charges: readonly Side[]): number {
  const edges = lines.flatMap((line, row) =>
    charges.flatMap((charge, column) => {
      const score = scorePair(line, charge);
      return score ? [{ row, column, worth: score.score }] : [];
    }),
  );
  const chosen = assign(lines.length, charges.length, edges);
  return edges.reduce((sum, e) => sum + (chosen[e.row] === e.column ? e.worth : 0), 0);
}

export async function* benchMatching(): AsyncGenerator<Row> {
  const { lines, charges } = sides();
  const worth = pairUp(lines, charges)
    .filter((p) => p.differs === null && p.left.length === 1 && p.right.length === 1)
    .reduce((sum, p) => sum + p.score, 0);
  if (worth !== everyPair(lines, charges)) throw new Error('the baseline pairs other lines');
  yield {
    what: 'matching 2,000 lines with 2,000 charges',
    baseline: 'scoring every line with every charge',
    ratio: (await median(() => pairUp(lines, charges), 5)) / (await median(() => everyPair(lines, charges), 3)),
    aim: 1,
  };
}
