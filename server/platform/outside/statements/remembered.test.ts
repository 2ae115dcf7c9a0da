import { describe, expect, it } from 'vitest';
import type { Mapping } from '../../../../contract/statements.ts';
import { entriesOfTable } from './tableRows.ts';
import { proposeMapping } from './columns/proposeMapping.ts';
import { toldBy } from './columns/columnOf.ts';
import { notContradicted } from './columns/ways.ts';
import { readTable } from './csv.ts';

describe('columns that were remembered', () => {
  const kept = proposeMapping(tableFrom('Date;Amount;Name\n25/03/2026;12,50;Quay\n26/03/2026;8,00;Pier')) as Mapping;
  const proposed = (rows: string) => notContradicted(kept, toldBy(tableFrom(`Date;Amount;Name\n${rows}`)));
  it('are proposed as they were, as long as the rows agree', () => {
    expect([kept.order, kept.mark, kept.spent]).toEqual(['dmy', ',', 'positive']);
    expect(proposed('27/03/2026;9,00;Quay\n28/03/2026;7,00;Pier')).toEqual(kept);
    expect(proposed('01/02/2026;9,00;Quay')).toEqual(kept);
    // a day that is none in any order says nothing of the order
    expect(proposed('31/02/2026;9,00;Quay\n28/03/2026;7,00;Pier')).toEqual(kept);
  });
  it('are left open where the rows contradict them', () => {
    const { order: _, ...withoutOrder } = kept;
    expect(proposed('03/25/2026;9,00;Quay\n03/04/2026;7,00;Pier')).toEqual(withoutOrder);
    const { mark: __, ...withoutMark } = kept;
    expect(proposed('27/03/2026;9.00;Quay\n28/03/2026;7.50;Pier')).toEqual(withoutMark);
    const { spent: ___, ...withoutSign } = kept;
    expect(proposed('27/03/2026;-9,00;Quay\n28/03/2026;-7,50;Pier')).toEqual(withoutSign);
  });
});

describe('rows that are no charge of the card', () => {
  const read = (heading: string, cells: string[]) => {
    const rows = cells.map((cell, i) => `0${i + 1}/03/2026;${i + 1},50;Quay;${cell}`);
    const table = tableFrom(`Date;Amount;Name;${heading}\n${rows.join('\n')}`);
    const mapping = { ...proposeMapping(table), order: 'dmy' } as Mapping;
    return entriesOfTable(table, mapping, { currency: 'EUR', digits: '4410', today: '2026-03-20' });
  };
  it.each([
    ['Card', ['**** 4410', '**** 4427', '**** 4410'], 3, /ends in 4427, not in 4410/],
    ['Nummer', ['4539 1200 0000 4410', '4539 1200 0000 4427'], 3, /4427/],
    ['Kort', ['4410', '4427', '4410'], 3, /4427/],
    ['Status', ['Booked', 'Pending', 'Booked'], 3, /not booked: “Pending”/],
    ['Umsatzart', ['Gebucht', 'vorgemerkt'], 3, /vorgemerkt/],
  ])('are named and not taken: %s', (heading, cells, line, says) => {
    const { entries, problems } = read(heading, cells);
    expect([entries.length, problems.map((p) => p.line)]).toEqual([cells.length - 1, [line]]);
    expect(problems[0]!.says).toMatch(says);
  });
  it('are not those whose other columns say nothing of the kind', () => {
    for (const [heading, cells] of [
      ['Note', ['room 4410', '', 'x']],
      ['Valuta', ['01.03.2026', '02.03.2026', '04.03.2026']],
      ['Till', ['0001', '0002', '0003']],
      ['Card', ['**** 4410', '', '**** 4410']],
    ] as const)
      expect(read(heading, [...cells]).problems).toEqual([]);
  });
  it('are those of a day that has not come', () => {
    const table = tableFrom('Date;Amount;Name\n01/03/2199;1,50;Quay\n02/03/2199;2,50;Pier');
    const mapping = { ...proposeMapping(table), order: 'dmy' } as Mapping;
    const { entries, problems } = entriesOfTable(table, mapping, { currency: 'EUR', today: '2026-03-20' });
    expect([entries, problems.map((p) => p.says)]).toEqual([
      [],
      ['2199-03-01 has not come yet', '2199-03-02 has not come yet'],
    ]);
  });
});

function tableFrom(text: string) {
  const read = readTable(text);
  if (!read.ok) throw new Error(read.says);
  return read.table;
}
