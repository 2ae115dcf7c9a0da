import { describe, expect, it, vi } from 'vitest';
import { lineWith, marksOf, partOf, postingOf, undoBench, undoClear } from './bench.ts';

const items = [{ id: 'a', amount: '4.00', coding: { costCentre: '410' } }];
const lines = [
  { id: '1', amount: '5.00', category: 'meal', tax: [{ code: 'IE-23' }] },
  { id: '2', items },
];
const view = {
  claim: { number: 'C-1', revision: 7 },
  document: { postingDate: '2026-11-20', claim: { lines } },
  assessment: { journal: ['kept'] },
  digest: 'kept-digest',
  ties: [{ line: '1', kind: 'tax', about: 'now' }],
  marks: [{ line: '1', kind: 'tax', mark: 'waived', reason: 'Agreed' }],
} as never;
const bench = (fields: object) => ({ line: '1', item: null, kind: 'tax', set: {}, ...fields }) as never;

describe('a bench', () => {
  it('works on the line, or on one of its items', () => {
    expect(partOf(view, { line: '1', item: null })).toBe(lines[0]);
    expect(partOf(view, { line: '2', item: 'a' })).toBe(items[0]);
  });
  it('shows the line as it would be, and leaves the rest', () => {
    expect(lineWith(view, bench({ set: { tax: [] } }))).toEqual({ ...lines[0], tax: [] });
    const changed = lineWith(view, bench({ line: '2', item: 'a', set: { coding: { grant: 'G' } } }));
    expect(changed).toEqual({ id: '2', items: [{ id: 'a', amount: '4.00', coding: { grant: 'G' } }] });
  });
  it('is undone by what the part says now of the fields it changes', async () => {
    const correct = vi.fn();
    await undoBench(view, bench({ set: { tax: [], split: null } })).run({ correct } as never, 8);
    expect(correct).toHaveBeenCalledWith('1', {
      revision: 8,
      item: null,
      set: { tax: [{ code: 'IE-23' }], split: null },
    });
    await undoBench(view, bench({ line: '2', item: 'a', set: { coding: {} } })).run({ correct } as never, 9);
    expect(correct).toHaveBeenLastCalledWith('2', { revision: 9, item: 'a', set: { coding: { costCentre: '410' } } });
  });
});

describe('a mark', () => {
  it('names the comparison as it is seen, and can be brought back with its reason', () => {
    const { about, before } = marksOf(view, { line: '1', kind: 'tax' });
    expect([about, before]).toEqual([
      'now',
      { line: '1', kind: 'tax', mark: 'waived', reason: 'Agreed', about: 'now' },
    ]);
  });
  it('where there was none is undone by none', () => {
    expect(marksOf(view, { line: '1', kind: 'rate' }).before).toEqual({ line: '1', kind: 'rate', mark: 'none' });
    expect(marksOf(undefined, { line: '1', kind: 'tax' }).before.mark).toBe('none');
  });
});

describe('the journal that would be posted', () => {
  const preview = (date: string) => ({ date, assessment: {}, digest: 'previewed' }) as never;
  it('is the preview of that very date', () => {
    expect(postingOf(view, '2026-11-25', preview('2026-11-25'))?.digest).toBe('previewed');
    expect(postingOf(view, '2026-11-25', preview('2026-11-24'))).toBeNull();
    expect(postingOf(view, '2026-11-25', undefined)).toBeNull();
  });
  it('is the kept one as long as nothing newer is there for its date', () => {
    expect(postingOf(view, '2026-11-20', undefined)?.digest).toBe('kept-digest');
    expect(postingOf(view, '2026-11-20', preview('2026-11-20'))?.digest).toBe('previewed');
  });
});

it('clearing is undone by taking the claim back into review', async () => {
  const plain = vi.fn();
  await undoClear(view).run({ plain } as never, 9);
  expect(plain).toHaveBeenCalledWith('reopen', 9);
});
