import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bitsApart, findDuplicates, type DuplicateLine } from './findDuplicates.ts';

const line = (id: string, over: Partial<DuplicateLine> = {}): DuplicateLine => ({
  id,
  amount: 8450n,
  currency: 'EUR',
  date: '2026-03-02',
  merchant: `Merchant${id}`,
  receipt: null,
  likeness: null,
  shows: null,
  charge: null,
  ...over,
});
const pairs = (lines: DuplicateLine[]) => findDuplicates(lines).map((d) => `${d.first}-${d.second}: ${d.reason}`);

describe('duplicates', () => {
  it('are found by the file, by the charge and by what was bought', () => {
    expect(pairs([line('a', { receipt: 'f' }), line('b', { receipt: 'f' })])).toEqual(['a-b: same receipt']);
    expect(pairs([line('a', { charge: '7' }), line('b', { charge: '7' })])).toEqual(['a-b: same charge']);
    const shop = { merchant: 'Reedbed Café' };
    expect(pairs([line('a', shop), line('b', { merchant: 'REEDBED CAFE Ltd', date: '2026-03-05' })])).toEqual([
      'a-b: same amount, date and merchant',
    ]);
  });

  it('are not lines that differ in amount, currency, merchant, or by more than three days', () => {
    const shop = { merchant: 'Reedbed Café' };
    expect(pairs([line('a', shop), line('b', { ...shop, amount: 8451n })])).toEqual([]);
    expect(pairs([line('a', shop), line('b', { ...shop, currency: 'USD' })])).toEqual([]);
    expect(pairs([line('a', shop), line('b', { ...shop, date: '2026-03-06' })])).toEqual([]);
    expect(pairs([line('a'), line('b')])).toEqual([]);
  });

  it('are pictures that differ in up to three bits, wherever these are', () => {
    const near = (likeness: string, receipt: string) => ({ likeness, receipt });
    expect(pairs([line('a', near('0123456789abcdef', 'x')), line('b', near('8123456789abcdee', 'y'))])).toEqual([
      'a-b: near-identical receipt',
    ]);
    expect(pairs([line('a', near('0123456789abcdef', 'x')), line('b', near('f123456789abcdef', 'y'))])).toEqual([]);
  });

  it('are not pictures that show different amounts', () => {
    const near = (receipt: string, shows: string | null) => ({ likeness: '0123456789abcdef', receipt, shows });
    expect(pairs([line('a', near('x', '84.50 EUR')), line('b', near('y', '84.51 EUR'))])).toEqual([]);
    expect(pairs([line('a', near('x', '84.50 EUR')), line('b', near('y', null))])).toHaveLength(1);
  });

  it('are the same whether neighbours or everybody is compared', () => {
    const any = fc.record({
      amount: fc.constantFrom(100n, 200n),
      date: fc.constantFrom('2026-03-01', '2026-03-03', '2026-03-08'),
      merchant: fc.constantFrom('Quay', 'Dune'),
      receipt: fc.constantFrom(null, 'f', 'g'),
    });
    fc.assert(
      fc.property(fc.array(any, { maxLength: 14 }), (rows) => {
        const lines = rows.map((row, i) => line(String.fromCharCode(97 + i), row));
        expect(groups(lines, findDuplicates(lines))).toEqual(groups(lines, byComparingAll(lines)));
      }),
      { seed: 3, numRuns: 300 },
    );
  });
});

function byComparingAll(lines: DuplicateLine[]) {
  return lines.flatMap((a, i) =>
    lines.slice(i + 1).flatMap((b) => {
      const days = Math.abs(Date.parse(a.date) - Date.parse(b.date)) / 86_400_000;
      const same = a.amount === b.amount && a.merchant === b.merchant && days <= 3;
      return (a.receipt !== null && a.receipt === b.receipt) || same ? [{ first: a.id, second: b.id }] : [];
    }),
  );
}

/** Who belongs together when the pairs are followed. */
function groups(lines: DuplicateLine[], found: { first: string; second: string }[]): string[] {
  const group = new Map(lines.map((l) => [l.id, l.id]));
  for (let round = 0; round < lines.length; round += 1)
    for (const { first, second } of found) {
      const least = [group.get(first)!, group.get(second)!].sort()[0]!;
      group.set(first, least).set(second, least);
    }
  return [...group.values()];
}

describe('likeness', () => {
  it('counts the bits that differ', () => {
    expect(bitsApart('0000000000000000', 'ffffffffffffffff')).toBe(64);
    expect(bitsApart('8000000000000001', '0000000000000000')).toBe(2);
  });
});
