import { describe, expect, it, vi } from 'vitest';
import {
  linesLike,
  linesWith,
  marksOf,
  partOf,
  postingOf,
  savedWords,
  undoAsk,
  undoBench,
  undoClear,
} from './bench.ts';

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
const bench = (fields: object) => ({ line: '1', item: null, kind: 'tax', set: {}, also: [], ...fields }) as never;

describe('a bench', () => {
  it('works on the line, or on one of its items', () => {
    expect(partOf(view, { line: '1', item: null })).toBe(lines[0]);
    expect(partOf(view, { line: '2', item: 'a' })).toBe(items[0]);
  });
  it('shows the line as it would be, and leaves the rest', () => {
    expect(linesWith(view, bench({ set: { tax: [] } }))).toEqual([{ ...lines[0], tax: [] }]);
    const [changed] = linesWith(view, bench({ line: '2', item: 'a', set: { coding: { grant: 'G' } } }));
    expect(changed).toEqual({ id: '2', items: [{ id: 'a', amount: '4.00', coding: { grant: 'G' } }] });
  });
  it('is undone by what the part says now of the fields it changes', async () => {
    const correct = vi.fn();
    await undoBench(view, bench({ set: { tax: [], split: null } })).run({ correct } as never, 8);
    expect(correct).toHaveBeenCalledWith(8, [
      { line: '1', item: null, set: { tax: [{ code: 'IE-23' }], split: null } },
    ]);
    await undoBench(view, bench({ line: '2', item: 'a', set: { coding: {} } })).run({ correct } as never, 9);
    expect(correct).toHaveBeenLastCalledWith(9, [{ line: '2', item: 'a', set: { coding: { costCentre: '410' } } }]);
  });
});

describe('several lines', () => {
  const three = [
    { id: '1', category: 'meal', coding: { fund: '10' } },
    { id: '2', category: 'meal', coding: { fund: '20' } },
    { id: '3', category: 'meal', coding: { fund: '10' } },
    { id: '4', category: 'taxi', coding: { fund: '10' } },
    { id: '5', category: 'meal', coding: { fund: '10' }, items: [{ id: 'a' }] },
  ];
  const seen = { document: { claim: { lines: three } } } as never;
  const coding = (also: string[] = []) => bench({ kind: 'coding', set: { coding: { fund: '30' } }, also });
  it('are alike when they say the same now of what is changed', () => {
    expect(linesLike(seen, '1', ['coding'])).toEqual(['3']);
    expect(linesLike(seen, '1', ['coding', 'split'])).toEqual(['3']);
    expect(linesLike(seen, '1', ['id'])).toEqual([]);
  });
  it('are shown as they would be, and undone each to what it was', async () => {
    expect(linesWith(seen, coding(['2'])).map((l) => l.coding)).toEqual([{ fund: '30' }, { fund: '30' }]);
    const correct = vi.fn();
    await undoBench(seen, coding(['2'])).run({ correct } as never, 4);
    expect(correct.mock.calls[0]![1].map((c: any) => c.set.coding)).toEqual([{ fund: '10' }, { fund: '20' }]);
    expect([savedWords(coding()), savedWords(coding(['2']))]).toEqual(['coding of line 1', 'coding of 2 lines']);
  });
});

it('a question is undone by taking back the one that was asked last', async () => {
  const dropQuery = vi.fn();
  const queries = [
    { id: '7', line: '1' },
    { id: '9', line: '2' },
  ];
  await undoAsk({ queries } as never).run({ dropQuery } as never, 5);
  expect(dropQuery).toHaveBeenCalledWith('9', 5);
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
    const several = marksOf(view, { line: '1', kind: 'rate', also: ['2'] });
    expect(several.also).toEqual([{ line: '2', about: '' }]);
    expect(several.before).toMatchObject({ line: '1', mark: 'none', also: [{ line: '2' }] });
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
