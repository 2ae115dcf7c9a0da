import { describe, expect, it } from 'vitest';
import { joinBook, type SharedBook } from './splitBook.ts';

const value = (code: string) => ({ code, name: code });
const shared = {
  entities: [],
  taxCodes: [],
  categories: [],
  dimensions: [{ id: 'grant', values: [value('G-1'), value('G-2')] }],
} as unknown as SharedBook;
const own = { rates: [], people: [{ id: 'P1', kind: 'employee' as const }], advances: [], left: [] };

describe('a book from its two parts', () => {
  it('has what is left of the budgets on their codes, and leaves the shared part as it was', () => {
    const left = [{ dimension: 'grant', code: 'G-2', left: '10.00', caps: [{ category: 'air', left: '-2.00' }] }];
    const book = joinBook(shared, { ...own, left });
    expect(book.dimensions![0]!.values).toEqual([
      value('G-1'),
      { ...value('G-2'), left: '10.00', caps: [{ category: 'air', left: '-2.00' }] },
    ]);
    expect(shared.dimensions![0]!.values).toEqual([value('G-1'), value('G-2')]);
    expect([book.people, book.rates, book.advances]).toEqual([own.people, [], []]);
  });
});
