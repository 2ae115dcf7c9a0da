import { addDays } from '../core/numbers/isoDate.ts';
import { findDuplicates, reasonOf, type DuplicateLine } from '../core/evidence/duplicates/findDuplicates.ts';
import { randomFrom } from '../demo/random.ts';
import { median, type Row } from './measure.ts';

const SHOPS = ['Quay Stores', 'Reedbed Cafe', 'Curlew Rooms', 'Tidewater Outfitters', 'Harbour Rail', 'Marsh Motors'];
const HEX = [...'0123456789abcdef'];

/** Lines of some years: every hundredth is claimed twice, every second has a receipt with a picture. */
function linesOf(count: number): DuplicateLine[] {
  const random = randomFrom(43);
  const lines: DuplicateLine[] = [];
  for (let i = 0; lines.length < count; i += 1) {
    const line: DuplicateLine = {
      id: `l${i}`,
      amount: BigInt(random.whole(200, 2_000_000)),
      currency: 'EUR',
      date: addDays('2020-01-01', random.whole(0, 2000)),
      merchant: `${random.pick(SHOPS)} ${random.whole(1, 400)}`,
      receipt: i % 2 ? `r${i}` : null,
      likeness: i % 2 ? Array.from({ length: 16 }, () => random.pick(HEX)).join('') : null,
      shows: null,
      charge: i % 3 ? null : `c${i}`,
    };
    lines.push(line);
    if (i % 100 === 0 && lines.length < count) lines.push({ ...line, id: `again ${i}`, receipt: null, charge: null });
  }
  return lines;
}

/** Every line with every other one. */
function everyPair(lines: readonly DuplicateLine[]): number {
  let found = 0;
  for (let i = 0; i < lines.length; i += 1)
    for (let j = i + 1; j < lines.length; j += 1) if (reasonOf(lines[i]!, lines[j]!)) found += 1;
  return found;
}

const SMALL = 2000;
const LARGE = 200_000;

export async function* benchDuplicates(): AsyncGenerator<Row> {
  const small = linesOf(SMALL);
  if (findDuplicates(small).length !== everyPair(small)) throw new Error('the baseline finds other duplicates');
  const large = linesOf(LARGE);
  const time = await median(() => findDuplicates(large), 3);
  yield {
    what: 'duplicates among 200,000 lines, cost of a line',
    baseline: `comparing every pair among ${SMALL.toLocaleString('en')}, cost of a line`,
    ratio: time / LARGE / ((await median(() => everyPair(small), 3)) / SMALL),
    aim: 1,
  };
  const tenth = linesOf(LARGE / 10);
  yield {
    what: 'duplicates among 200,000 lines',
    baseline: 'the same among 20,000 (10 would be linear)',
    ratio: time / (await median(() => findDuplicates(tenth), 3)),
    aim: 20,
  };
}
