import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { assign, type Edge } from './assign.ts';
import type { Side } from './matching.types.ts';
import { pairUp } from './pairUp.ts';
import { scorePair } from './scorePair.ts';

const side = (id: string, over: Partial<Side> = {}): Side => ({
  id,
  amount: 8450n,
  currency: 'EUR',
  date: '2026-03-02',
  merchant: 'Slaney Quay Stores Ltd',
  ...over,
});

describe('a score', () => {
  it('is 100 for the same in everything, and says so', () => {
    expect(scorePair(side('a'), side('b'))).toEqual({
      score: 100,
      reasons: ['same amount', 'same day', 'same merchant'],
      differs: null,
    });
  });

  it('falls with the days between, and ends after twelve', () => {
    const later = (date: string) => scorePair(side('a'), side('b', { date }))?.score ?? null;
    expect([later('2026-03-03'), later('2026-03-05'), later('2026-03-14'), later('2026-03-15')]).toEqual([
      97,
      92,
      79,
      null,
    ]);
    expect(scorePair(side('a'), side('b', { date: '2026-03-05' }))!.reasons).toContain('3 days later');
  });

  it('needs the amount to the cent, in the purchase or in what the bank took', () => {
    expect(scorePair(side('a'), side('b', { amount: 8451n }))).toBeNull();
    const foreign = side('b', { amount: 10834n, currency: 'USD', settled: { amount: 8450n, currency: 'EUR' } });
    expect(scorePair(side('a'), foreign)!.reasons[0]).toBe('same amount as the bank took');
  });

  it('knows a merchant the bank cut off, and refuses another card', () => {
    expect(scorePair(side('a'), side('b', { merchant: 'SLANEY QUAY STO' }))!.reasons[2]).toBe('same merchant');
    expect(scorePair(side('a', { card: '4410' }), side('b', { card: '4427' }))).toBeNull();
  });
});

describe('merchants', () => {
  const scoreOf = (a: string, b: string) => scorePair(side('a', { merchant: a }), side('b', { merchant: b }))!.score;
  it('are not alike by the words of their trade, nor with another trade under one name', () => {
    for (const [a, b] of [
      ['PETREL PRINT', 'Petrel Cafe'],
      ['Quay Cafe', 'Pier Cafe'],
      ['Taxi', 'Avocet Taxi'],
      ['Ristorante Avocet', 'HOTEL CURLEW RISTORANTE'],
    ] as const)
      expect(scoreOf(a, b), `${a}, ${b}`).toBe(80);
  });
  it('are by the words that are theirs, with or without their trade, and by the whole of a name that has no others', () => {
    for (const [a, b] of [
      ['Petrel Cafe', 'PETREL'],
      ['Petrel Cafe and Bar', 'PETREL BAR CORK'],
      ['Cafe', 'CAFE'],
    ] as const)
      expect(scoreOf(a, b), `${a}, ${b}`).toBe(100);
  });
});

describe('pairs', () => {
  const idsOf = (pairs: readonly { left: readonly string[]; right: readonly string[] }[]) =>
    pairs.map((p) => `${p.left} ${p.right}`).sort();

  it('of which one is perfect are not given up for two that are poor', () => {
    const lines = [side('l1', { date: '2026-03-02' }), side('l2', { date: '2026-03-05' })];
    const charges = [side('c1', { date: '2026-03-05' }), side('c2', { date: '2026-03-16' })];
    expect(idsOf(pairUp(lines, charges).filter((p) => p.differs === null))).toEqual(['l2 c1']);
  });
  it('of equal strength are as many as there can be', () => {
    // the first line could have either, the second the first alone
    const lines = [side('l1', { date: '2026-03-03' }), side('l2', { date: '2026-03-01' })];
    const charges = [side('c1', { date: '2026-03-02' }), side('c2', { date: '2026-03-04' })];
    expect(idsOf(pairUp(lines, charges))).toEqual(['l1 c2', 'l2 c1']);
  });
  it('are such that no two sides would both have it better with each other', () => {
    const day = fc.integer({ min: 1, max: 14 }).map((d) => `2026-03-${String(d).padStart(2, '0')}`);
    const merchant = fc.constantFrom('Quay Hotel', 'Pier Cafe', 'Ferry');
    const sides = (id: string) =>
      fc
        .array(fc.record({ date: day, merchant, amount: fc.constantFrom(380n, 420n) }), { maxLength: 7 })
        .map((all) => all.map((over, i) => side(`${id}${i}`, over)));
    fc.assert(
      fc.property(sides('l'), sides('c'), (lefts, rights) => {
        const agreeing = pairUp(lefts, rights).filter(
          (p) => p.differs === null && p.left.length + p.right.length === 2,
        );
        const scoreOf = new Map(agreeing.flatMap((p) => [...p.left, ...p.right].map((id) => [id, p.score] as const)));
        for (const left of lefts)
          for (const right of rights) {
            const score = scorePair(left, right)?.score ?? 0;
            const better = score > (scoreOf.get(left.id) ?? 0) && score > (scoreOf.get(right.id) ?? 0);
            const inSum = [left.id, right.id].some((id) => idsOf(pairUp(lefts, rights)).some((p) => p.includes(id)));
            expect(better && !inSum, `${left.id} ${right.id}: ${score}`).toBe(false);
          }
      }),
      { seed: 26, numRuns: 150 },
    );
  });

  it('put several lines to one charge when they add up to it', () => {
    const lines = [
      side('night', { amount: 6000n }),
      side('breakfast', { amount: 2450n }),
      side('other', { amount: 999n }),
    ];
    expect(pairUp(lines, [side('bill')])).toEqual([
      {
        left: ['night', 'breakfast'],
        right: ['bill'],
        score: 90,
        reasons: ['2 lines add up to it', 'same day', 'same merchant'],
        differs: null,
      },
    ]);
  });

  it('put one line to the charges that add up to it', () => {
    const charges = [side('out', { amount: 6000n }), side('back', { amount: 2450n, date: '2026-03-03' })];
    expect(pairUp([side('return')], charges)).toMatchObject([{ left: ['return'], right: ['out', 'back'], score: 80 }]);
  });

  it('leave alone what has no partner', () => {
    expect(pairUp([side('a')], [side('b', { amount: 1n })])).toEqual([]);
    expect(pairUp([], [])).toEqual([]);
    expect(pairUp([side('a', { amount: null })], [side('b', { amount: null })])).toEqual([]);
  });
});

describe('what differs', () => {
  const near = (left: Partial<Side>, right: Partial<Side>) => pairUp([side('a', left)], [side('b', right)])[0] ?? null;

  it('is proposed with the difference named, below everything that agrees', () => {
    const cases: [Partial<Side>, Partial<Side>, string][] = [
      [{}, { amount: 8451n }, '0.01 EUR more'],
      [{}, { amount: 8449n, date: '2026-03-04' }, '0.01 EUR less'],
      [{ amount: 3800n }, { amount: 4200n }, '4.00 EUR more, as a tip would be'],
      [{}, { date: '2026-03-18' }, '16 days apart'],
      [
        { amount: 10834n, currency: 'USD', estimates: [{ amount: 8400n, currency: 'EUR' }] },
        { amount: 8450n },
        '84.00 EUR at the rate of the day, 0.5 % apart',
      ],
    ];
    for (const [left, right, differs] of cases) {
      const pair = near(left, right);
      expect(pair?.differs).toBe(differs);
      expect(pair!.score).toBeLessThanOrEqual(80);
    }
  });

  it('is not proposed when it differs too much, in two things, or is of strangers', () => {
    expect(near({ amount: 3800n }, { amount: 4751n })).toBeNull();
    expect(near({ amount: 3800n }, { amount: 3794n })).toBeNull();
    expect(near({ amount: 100n }, { amount: 102n, date: '2026-03-09' })).toBeNull();
    expect(near({}, { date: '2026-04-02' })).toBeNull();
    expect(near({}, { amount: 8451n, merchant: 'Pier Cafe' })).toBeNull();
    expect(near({}, { amount: 8451n, currency: 'USD' })).toBeNull();
    const dollars = { amount: 10834n, currency: 'USD', estimates: [{ amount: 8000n, currency: 'EUR' }] };
    expect(near(dollars, {})).toBeNull();
    expect(near({ amount: -8450n }, { amount: 8451n })).toBeNull();
  });

  it('never takes the place of a pair that agrees', () => {
    const pairs = pairUp([side('a')], [side('tip', { amount: 9000n }), side('same', { date: '2026-03-06' })]);
    expect(pairs).toMatchObject([{ right: ['same'], differs: null }]);
  });
});

describe('strangers', () => {
  it('that add up by chance, lie eleven days apart or have no date are no pair', () => {
    const parts = [
      side('x', { amount: 6000n, merchant: 'Pier Cafe' }),
      side('y', { amount: 2450n, merchant: 'Ferry' }),
    ];
    expect(pairUp(parts, [side('bill')])).toEqual([]);
    expect(pairUp([side('a', { merchant: 'Pier Cafe' })], [side('b', { date: '2026-03-13' })])).toEqual([]);
    expect(pairUp([side('a', { date: null })], [side('b')])).toEqual([]);
    expect(pairUp([side('a', { merchant: 'Pier Cafe' })], [side('b', { date: '2026-03-03' })])).toHaveLength(1);
  });
});

describe('the digits of a card', () => {
  it('that were read lower the score where they differ, and forbid nothing', () => {
    const score = (digits: string) =>
      pairUp([side('a', { digits })], [side('b', { digits: '4410', card: 'K1' })])[0]!.score;
    expect([score('4410'), score('4416'), score('8803')]).toEqual([100, 94, 80]);
  });
});

/** Every choice of pairs, tried. */
function bestByTrying(rows: number, edges: readonly Edge[], row = 0, used: ReadonlySet<number> = new Set()): number {
  if (row === rows) return 0;
  const alone = bestByTrying(rows, edges, row + 1, used);
  const paired = edges
    .filter((e) => e.row === row && !used.has(e.column))
    .map((e) => e.worth + bestByTrying(rows, edges, row + 1, new Set([...used, e.column])));
  return Math.max(alone, ...paired);
}

describe('an assignment', () => {
  const worthOf = (columnOf: Int32Array, edges: readonly Edge[]) =>
    [...columnOf].reduce(
      (a, column, row) => a + (edges.find((e) => e.row === row && e.column === column)?.worth ?? 0),
      0,
    );
  const edges = fc.uniqueArray(
    fc.record({ row: fc.nat(5), column: fc.nat(5), worth: fc.integer({ min: 1, max: 100 }) }),
    {
      selector: (e) => `${e.row} ${e.column}`,
      maxLength: 22,
    },
  );

  it('is worth as much as the best of all choices', () => {
    fc.assert(
      fc.property(edges, (given) => {
        const chosen = assign(6, 6, given);
        const columns = [...chosen].filter((c) => c >= 0);
        expect(new Set(columns).size).toBe(columns.length);
        expect(worthOf(chosen, given)).toBe(bestByTrying(6, given));
      }),
      { seed: 7, numRuns: 400 },
    );
  });
});
