import { describe, expect, it } from 'vitest';
import { readPasted, type PasteContext } from './pastedLines.ts';

const context: PasteContext = {
  categories: [
    { id: 'meal', name: 'Meals' },
    { id: 'taxi', name: 'Taxi and local transport' },
  ],
  currency: 'EUR',
  category: 'meal',
};
const paste = (text: string, more: Partial<PasteContext> = {}) => readPasted(text, { ...context, ...more });
const lines = (text: string, more?: Partial<PasteContext>) =>
  paste(text, more).rows.map((r) => r.line && [r.line.date, r.line.merchant, r.line.amount.amount, r.line.category]);

describe('a block from a spreadsheet', () => {
  it('is known by its headings, in any order', () => {
    const text = 'Amount\tWhat\tDate\tSupplier\tCategory\n12.50\tLunch\t2026-11-02\tQuay Café\tMeals\n';
    const { columns, rows } = paste(text);
    expect(columns).toEqual(['amount', 'description', 'date', 'merchant', 'category']);
    expect(rows).toMatchObject([
      {
        row: 2,
        cells: ['12.50', 'Lunch', '2026-11-02', 'Quay Café', 'Meals'],
        problems: [],
        line: {
          date: '2026-11-02',
          amount: { amount: '12.50', currency: 'EUR' },
          category: 'meal',
          merchant: 'Quay Café',
          description: 'Lunch',
        },
      },
    ]);
  });

  it('without headings is known by what stands in its columns', () => {
    const text = '02.11.2026\tQuay Stores\tRope and tape\tUSD\t1.234,56\tIE\n13.11.2026\tPier\t\tUSD\t7,00\tIE';
    const { columns, order, mark, rows } = paste(text);
    expect(columns).toEqual(['date', 'merchant', 'description', 'currency', 'amount', 'country']);
    expect([order, mark]).toEqual(['dmy', ',']);
    expect(rows.map((r) => r.line!.amount)).toEqual([
      { amount: '1234.56', currency: 'USD' },
      { amount: '7.00', currency: 'USD' },
    ]);
  });

  it('takes a category by its code, its name, or the beginning of one alone', () => {
    const categories = [...context.categories, { id: 'taxes', name: 'Taxes and duties' }];
    const of = (cell: string) =>
      paste(`2026-11-02\tQuay\t9.00\t${cell}`, { categories, category: null }).rows[0]!.line?.category;
    expect([of('TAXI'), of('meals'), of('Meal'), of('Taxi and'), of('Meals out')]).toEqual([
      'taxi',
      'meal',
      'meal',
      'taxi',
      'meal',
    ]);
    expect([of('Tax'), of('Yacht')]).toEqual([undefined, undefined]);
  });

  it('names the category that is not known, where another row of the column is', () => {
    const { columns, rows } = paste('03.11.2026\tCafé\tLunch\tMeals\t12,50\n04.11.2026\tLoja\tRope\tYacht\t21,00');
    expect(columns[3]).toBe('category');
    expect(rows.map((r) => r.problems)).toEqual([[], ['there is no category "Yacht"']]);
  });

  it('keeps tabs, line breaks and quotes inside quoted cells', () => {
    expect(lines('2026-11-02\t"Quay ""Inn""\n& Bar"\t9.00')).toEqual([
      ['2026-11-02', 'Quay "Inn"\n& Bar', '9.00', 'meal'],
    ]);
    expect(lines('2026-11-02;"Rope; tape";9,00')).toEqual([['2026-11-02', 'Rope; tape', '9.00', 'meal']]);
  });

  it('takes the way of writing dates and amounts that is said', () => {
    expect(lines('02/03/2026\tQuay\t9.00')[0]![0]).toBe('2026-03-02');
    expect(lines('02/03/2026\tQuay\t9.00', { order: 'mdy' })[0]![0]).toBe('2026-02-03');
    expect(paste('2026-03-02\tQuay\t1,234', { currency: 'BHD', mark: ',' }).rows[0]!.line!.amount.amount).toBe('1.234');
    expect(paste('2026-03-02\tQuay\t1,234', { currency: 'JPY' }).rows[0]!.line!.amount.amount).toBe('1234');
  });

  it('says of every row what could not be read, and loses none', () => {
    const text = [
      'Date\tMerchant\tAmount\tCategory',
      '2026-02-31\tQuay\t9.00\tMeals',
      '2026-11-02\tQuay\tnine\tYacht',
      '\t\t\t',
      '2026-11-02\tQuay\t9.005\tmeal',
      '2026-11-02\tQuay\t9.00\tmeal',
    ].join('\n');
    expect(paste(text).rows.map((r) => r.problems)).toEqual([
      ['"2026-02-31" is not a date'],
      ['"nine" is not an amount', 'there is no category "Yacht"'],
      ['"9.005" has more decimals than EUR'],
      [],
    ]);
  });

  it('takes no row with a country or words that a line cannot have', () => {
    const row = (merchant: string, country: string) =>
      paste(`Date\tMerchant\tAmount\tCountry\n2026-11-02\t${merchant}\t9.00\t${country}`).rows[0]!;
    expect([row('Quay', 'IE').line?.country, row('Quay', 'Ireland').line]).toEqual(['IE', null]);
    expect(row('x'.repeat(141), 'IE')).toMatchObject({
      line: null,
      problems: ['the merchant is longer than 140 characters'],
    });
  });

  it('of 2,000 rows, or of rubbish, gives as many rows as it has', () => {
    const many = Array.from({ length: 2000 }, (_, i) => `2026-11-02\tShop ${i}\t${i}.00`).join('\n');
    expect(paste(many).rows.filter((r) => r.line)).toHaveLength(2000);
    for (const rubbish of [
      '',
      '\n\n',
      '"',
      '\u0000\u0001',
      'a'.repeat(10_000),
      '💥\t💥',
      '<script>alert(1)</script>\t=',
    ])
      expect(paste(rubbish).rows.every((r) => r.line === null)).toBe(true);
  });

  it('takes a currency beside the amount, before it or behind', () => {
    const money = (cell: string, more?: Partial<PasteContext>) => {
      const [row] = paste(`2026-11-02\tQuay\t${cell}`, more).rows;
      return row!.line ? `${row!.line.amount.amount} ${row!.line.amount.currency}` : row!.problems[0];
    };
    expect(['1500 JPY', 'jpy 1500', 'EUR 12.50', '12.50EUR', '-7.00 USD'].map((cell) => money(cell))).toEqual([
      '1500 JPY',
      '1500 JPY',
      '12.50 EUR',
      '12.50 EUR',
      '-7.00 USD',
    ]);
    expect([money('12,345 BHD', { mark: ',' }), money('12,345 BHD', { mark: '.' })]).toEqual([
      '12.345 BHD',
      '12345.000 BHD',
    ]);
    expect(money('12.505 EUR', { mark: '.' })).toBe('"12.505" has more decimals than EUR');
    const { rows } = paste('2026-11-02\tQuay\t9.00\n2026-11-03\tPier\t12.5 XXY');
    expect(rows[1]!.problems).toEqual(['"12.5 XXY" is not an amount']);
  });

  it('is put right row by row, and tells what stands in a row by its columns', () => {
    const text = '2026-11-02\tQuay\t9.00\n31.31.2026\tPier\t8.00\n2026-11-04\tInn\tnine';
    const bad = paste(text).rows.filter((r) => !r.line);
    expect(bad.map((r) => [r.row, r.said.date, r.said.merchant, r.said.amount])).toEqual([
      [2, '31.31.2026', 'Pier', '8.00'],
      [3, '2026-11-04', 'Inn', 'nine'],
    ]);
    const put = { 2: { date: '2026-11-03' }, 3: { amount: '900 jpy', merchant: 'Inn at the pier' } };
    expect(paste(text, { put }).rows.map((r) => r.line && [r.line.date, r.line.merchant, r.line.amount])).toEqual([
      ['2026-11-02', 'Quay', { amount: '9.00', currency: 'EUR' }],
      ['2026-11-03', 'Pier', { amount: '8.00', currency: 'EUR' }],
      ['2026-11-04', 'Inn at the pier', { amount: '900', currency: 'JPY' }],
    ]);
  });
});
