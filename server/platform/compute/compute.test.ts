import { afterAll, describe, expect, it } from 'vitest';
import { reviewCase } from '../../../core/evidence/comparisons/reviewCase.ts';
import { pairUp } from '../../../core/evidence/matching/pairUp.ts';
import { line, makeCase, valid } from '../../../test/fixtures/caseBuilder.ts';
import { compute, endCompute } from './compute.ts';

afterAll(() => endCompute());
const evidence = { receipts: {}, charges: {}, duplicates: {} } as never;
const lines = (count: number) => Array.from({ length: count }, (_, i) => line({ id: String(i + 1), amount: '12.30' }));

describe('what is computed in a thread of its own', () => {
  it('is what is computed here, with every figure', async () => {
    const document = valid(makeCase({ lines: lines(40) }));
    expect(await compute('reviewCase', 10_000, document, evidence)).toEqual(reviewCase(document, evidence));
    const side = (id: string, amount: bigint) => ({
      id,
      amount,
      currency: 'EUR',
      date: '2026-03-02',
      merchant: 'Quay Hotel',
      cardDigits: null,
    });
    const [lefts, rights] = [[side('1', 1230n)], [side('a', 1230n), side('b', 1500n)]] as never[];
    expect(await compute('pairUp', 10_000, lefts!, rights!)).toEqual(pairUp(lefts!, rights!));
  });
  it('leaves this thread free to answer others', async () => {
    const document = valid(makeCase({ lines: lines(5000) }));
    let turns = 0;
    const timer = setInterval(() => (turns += 1), 1);
    await compute('reviewCase', 15_000, document, evidence);
    const before = turns;
    reviewCase(document, evidence);
    expect(turns).toBe(before);
    clearInterval(timer);
    expect(before).toBeGreaterThan(20);
  });
});
