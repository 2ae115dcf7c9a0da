import { describe, expect, it } from 'vitest';
import { line, makeCase, refusal } from '../../test/fixtures/caseBuilder.ts';
import type { Line } from './case.schema.ts';
import { readCase, sayPath, writePath } from './readCase.ts';

const withLine = (fields: Partial<Line>) => refusal(makeCase({ lines: [line(fields)] }));

describe('documents that are refused, with the path of the fault', () => {
  it('a word to a line that is not there', () => {
    const explanations = [{ line: '9', code: 'meal', about: 'Above.', text: 'A guest came.' }];
    expect(refusal(makeCase({ lines: [line()], claim: { explanations } }))).toContain('the claim has no line "9"');
  });
  it('unknown keys and missing fields', () => {
    expect(refusal({ ...makeCase({ lines: [] }), extra: 1 })).toBe('extra: is not a known field');
    expect(refusal({ format: 'ebbet-case/1' })).toContain('postingDate: is missing');
    expect(refusal([])).toContain(': ');
  });

  const lines: [string, Partial<Line>, string][] = [
    ['an amount with other decimals', { amount: '1.0' }, 'amount: "1.0" is not an amount with the decimals of EUR'],
    ['a negative zero', { amount: '-0.00' }, 'amount: is a negative zero'],
    ['a number instead of a string', { amount: 1 as unknown as string }, 'amount: has to be a text'],
    ['a date that does not exist', { date: '2026-02-31' }, 'date: is not a calendar date'],
    ['a currency without minor units', { currency: 'XAU', amount: '1' }, 'currency: is not an ISO 4217 currency'],
    [
      'a category the book does not have',
      { category: 'yacht' },
      'category: the book has no category "yacht" on 2026-03-02',
    ],
    ['a missing category', { category: null }, 'category: is missing'],
    ['a tax code the book does not have', { tax: [{ code: 'XX' }] }, 'tax.0.code: the book has no tax code "XX"'],
    ['a card on own money', { card: '4410' }, 'card: only a line paid by card has a card'],
    ['personal spending on own money', { personal: true }, 'personal: only what was paid by card can be personal'],
    [
      'tax on a personal line',
      { paidBy: 'card', personal: true, tax: [{ code: 'IE-23' }] },
      'tax: a personal part carries no tax',
    ],
    [
      'coding on a personal line',
      { paidBy: 'card', personal: true, coding: { fund: '10' } },
      'coding: a personal part carries no coding',
    ],
    [
      'a split on a personal line',
      { paidBy: 'card', personal: true, split: { by: 'equal', shares: [{ coding: {} }] } },
      'split: a personal part carries no split',
    ],
    [
      'a category beside items',
      { category: 'meal', items: [{ id: 'a', category: 'meal', amount: '100.00' }] },
      'category: a line with items has no category',
    ],
    [
      'a split beside items',
      { split: { by: 'equal', shares: [{ coding: {} }] }, items: [{ id: 'a', category: 'meal', amount: '100.00' }] },
      'split: a line with items has no split',
    ],
    [
      'two items of one id',
      {
        items: [
          { id: 'a', category: 'meal', amount: '50.00' },
          { id: 'a', category: 'meal', amount: '50.00' },
        ],
      },
      'items.1.id: "a" is used by two items',
    ],
    [
      'an own rate in the claim’s currency',
      { rate: { kind: 'own', value: '1' } },
      'rate.kind: a line in the claim’s currency',
    ],
    ['an own rate of 0', { currency: 'USD', rate: { kind: 'own', value: '0' } }, 'rate.value: must be above 0'],
    [
      'an own rate on a card line',
      { currency: 'USD', paidBy: 'card', rate: { kind: 'own', value: '1' } },
      'rate.kind: a rate of the claimant’s own',
    ],
    [
      'a card rate on own money',
      { currency: 'USD', rate: { kind: 'card', settled: { amount: '1.00', currency: 'EUR' } } },
      'rate.kind: a card rate needs',
    ],
    [
      'a settled amount of the other sign',
      { paidBy: 'card', currency: 'USD', rate: { kind: 'card', settled: { amount: '-1.00', currency: 'EUR' } } },
      'rate.settled.amount: does not have the sign',
    ],
    [
      'a settled amount of 0',
      { paidBy: 'card', currency: 'USD', rate: { kind: 'card', settled: { amount: '0.00', currency: 'EUR' } } },
      'rate.settled.amount: does not have the sign',
    ],
    [
      'another settled amount in the same currency',
      { paidBy: 'card', rate: { kind: 'card', settled: { amount: '99.99', currency: 'EUR' } } },
      "rate.settled.amount: must be the line's 100.00",
    ],
  ];
  it.each(lines)('%s', (_, fields, expected) => {
    const item = (fields.items?.length ?? 0) > 0;
    expect(withLine({ ...(item || fields.personal ? { category: undefined } : {}), ...fields })).toContain(
      `claim.lines.0.${expected}`,
    );
  });

  it('a percent beyond 100 by less than a number can tell', () => {
    const recovery = '100.00000000000000000001';
    const [entity] = makeCase({ lines: [] }).book.entities;
    expect(refusal(makeCase({ lines: [], book: { entities: [{ ...entity!, recovery }] } }))).toContain(
      'recovery: must be between 0 and 100',
    );
  });
  it('two lines of one id', () => {
    expect(refusal(makeCase({ lines: [line(), line()] }))).toBe('claim.lines.1.id: "1" is used by two lines');
  });

  it('advances of others, twice, or with a cap below 0', () => {
    const advances = [{ id: 'A1', person: 'P2', currency: 'EUR', outstanding: '1.00', ledgerOutstanding: '1.00' }];
    const mine = [{ ...advances[0]!, person: 'P1' }];
    const asked = (wanted: object[], book = mine) =>
      refusal(makeCase({ lines: [], claim: { advances: wanted as never }, book: { advances: book } }));
    expect(asked([{ advance: 'A1' }], advances)).toContain('not of the claimant');
    expect(asked([{ advance: 'A1' }, { advance: 'A1' }])).toContain('"A1" is named twice');
    expect(asked([{ advance: 'A1', upTo: '-1.00' }])).toContain('must not be negative');
    expect(asked([{ advance: 'A9' }])).toContain('the book has no advance "A9"');
  });

  it('two quotes for a pair and date, and rows of the book that overlap', () => {
    const quote = { from: 'EUR', to: 'USD', date: '2026-03-02', rate: '1.1' };
    expect(refusal(makeCase({ lines: [], book: { rates: [quote, { ...quote, rate: '1.2' }] } }))).toContain(
      'book.rates.1: there are two quotes',
    );
    const categories = [
      { id: 'meal', account: '1', to: '2026-03-31' },
      { id: 'meal', account: '2', from: '2026-03-31' },
    ];
    expect(refusal(makeCase({ lines: [], book: { categories } }))).toContain(
      'book.categories.1: "meal" is in the book twice',
    );
  });

  it('tax codes that are neither one rate nor components', () => {
    const code = (fields: object) =>
      refusal(makeCase({ lines: [], book: { taxCodes: [{ code: 'X', country: 'IE', ...fields }] } }));
    expect(code({ rate: '23', account: '1' })).toContain('recovery: is missing');
    expect(code({ components: [{ id: 'a', rate: '1', on: 'net', account: '1', recovery: '0' }], rate: '1' })).toContain(
      'rate: belongs to the components',
    );
    expect(code({ rate: '23', account: '1', recovery: '100', selfAssessed: true })).toContain(
      'outputAccount: is missing',
    );
  });
});

describe('dated rows', () => {
  it('are looked up by the line’s date', () => {
    const categories = [
      { id: 'supplies', account: '1', to: '2026-03-01' },
      { id: 'supplies', account: '2', from: '2026-03-02' },
    ];
    expect(
      readCase(makeCase({ lines: [line(), line({ id: '2', date: '2026-03-01' })], book: { categories } })).ok,
    ).toBe(true);
    expect(refusal(makeCase({ lines: [line()], book: { categories: categories.slice(0, 1) } }))).toContain(
      'no category "supplies" on 2026-03-02',
    );
  });
});

it('paths read like the document', () => {
  expect(writePath(['claim', 'lines', 0, 'amount'])).toBe('claim.lines[0].amount');
  expect(writePath([])).toBe('document');
});

describe('a document larger than is computed', () => {
  const many = (count: number, shares: number) =>
    Array.from({ length: count }, (_, i) =>
      line({
        id: String(i + 1),
        split: { by: 'equal', shares: Array.from({ length: shares }, () => ({ coding: {} })) },
      }),
    );
  const first = (lines: ReturnType<typeof line>[]) => {
    const read = readCase(makeCase({ lines }));
    return read.ok ? 'read' : `${writePath(read.problems[0]!.path)} ${read.problems[0]!.message}`;
  };
  it('is refused with the number it has and the number it may have', () => {
    expect(first(many(63, 500))).toBe('read');
    expect(first(many(64, 500))).toBe(
      'claim.lines hold 32064 parts, shares and taxes in all, and at most 32000 are taken',
    );
    expect(first(many(1, 501))).toBe('claim.lines[0].split.shares has more than 500 entries');
    expect(first(many(5001, 1))).toBe('claim.lines has more than 5000 entries');
  });
});

describe('a place in what was sent', () => {
  it.each([
    [['lines', 0, 'merchant'], 'line 1, merchant'],
    [['set', 'tripFrom'], 'trip from'],
    [['set', 'advances', 1, 'upTo'], 'advance 2, up to'],
    [['categories', 2], 'category 3'],
    [['reason'], 'reason'],
    [['set'], 'set'],
    [[3], 'row 4'],
  ])('%j is said as %s', (path, says) => {
    expect(sayPath(path)).toBe(says);
  });
});
