import { describe, expect, it } from 'vitest';
import { line, makeCase, refusal, valid, type CaseParts } from '../../../test/fixtures/caseBuilder.ts';
import { assess } from '../../assess/assess.ts';
import type { Line, Split } from '../../documents/case.schema.ts';
import type { CodingRule, Dimension, Limit } from '../../documents/rules.schema.ts';
import { NO_EVIDENCE } from '../../evidence/comparisons/tie.types.ts';
import { reviewCase } from '../../evidence/comparisons/reviewCase.ts';

const run = (parts: CaseParts) => assess(valid(makeCase(parts)));
const found = (parts: CaseParts) => run(parts).findings.map((f) => `${f.severity} ${f.code} ${f.line ?? ''}`.trim());
const limited = (limit: Partial<Limit> & { kind: Limit['kind'] }, lines: Line[], extra: Partial<CaseParts> = {}) =>
  found({ lines, ...extra, book: { limits: [{ id: 'L', severity: 'ask', ...limit } as Limit], ...extra.book } });

describe('caps', () => {
  const cap = { amount: '50.00', currency: 'EUR' };
  it('per item, with tolerance, for categories and countries and dates', () => {
    const over = [line({ amount: '50.01' })];
    expect(limited({ kind: 'cap', per: 'item', cap }, [line({ amount: '50.00' })])).toEqual([]);
    expect(limited({ kind: 'cap', per: 'item', cap }, over)).toEqual(['ask L 1']);
    expect(limited({ kind: 'cap', per: 'item', cap, tolerance: '0.02' }, over)).toEqual([]);
    expect(limited({ kind: 'cap', per: 'item', cap, tolerance: '0.019' }, over)).toEqual(['ask L 1']);
    expect(limited({ kind: 'cap', per: 'item', cap, categories: ['meal'] }, over)).toEqual([]);
    expect(limited({ kind: 'cap', per: 'item', cap, countries: ['PT'] }, over)).toEqual([]);
    expect(limited({ kind: 'cap', per: 'item', cap, countries: ['PT'] }, [{ ...over[0]!, country: 'PT' }])).toEqual([
      'ask L 1',
    ]);
    expect(limited({ kind: 'cap', per: 'item', cap, to: '2026-03-01' }, over)).toEqual([]);
  });
  it('per night and head count the units, per day and trip add up', () => {
    expect(limited({ kind: 'cap', per: 'night', cap }, [line({ amount: '150.00', nights: 3 })])).toEqual([]);
    expect(limited({ kind: 'cap', per: 'night', cap }, [line({ amount: '150.00', nights: 2 })])).toEqual(['ask L 1']);
    expect(limited({ kind: 'cap', per: 'head', cap }, [line({ amount: '100.01', attendees: { count: 2 } })])).toEqual([
      'ask L 1',
    ]);
    const days = [
      line({ amount: '30.00' }),
      line({ id: '2', amount: '30.00' }),
      line({ id: '3', amount: '30.00', date: '2026-03-03' }),
    ];
    expect(limited({ kind: 'cap', per: 'day', cap }, days)).toEqual(['ask L 2']);
    expect(limited({ kind: 'cap', per: 'trip', cap: { ...cap, amount: '90.00' } }, days)).toEqual([]);
    expect(limited({ kind: 'cap', per: 'trip', cap: { ...cap, amount: '89.99' } }, days)).toEqual(['ask L 3']);
  });
  it('compare in the cap’s currency, give the difference, and leave personal spending out', () => {
    const book = { rates: [{ from: 'EUR', to: 'USD', date: '2026-03-02', rate: '1.25' }] };
    const result = run({
      lines: [line({ amount: '70.00', currency: 'USD' })],
      book: { ...book, limits: [{ id: 'L', kind: 'cap', per: 'item', severity: 'stop', cap }] },
    });
    expect(result.findings).toMatchObject([
      {
        code: 'L',
        difference: '6.00',
        says: '56.00 EUR is above the limit of 50.00 EUR by 6.00. Reduce it or say why it was needed.',
      },
    ]);
    expect(
      limited({ kind: 'cap', per: 'trip', cap }, [line({ paidBy: 'card', personal: true, amount: '500.00' })]),
    ).toEqual([]);
  });
  it('in a currency that no line uses are never passed over: they are compared, or asked about', () => {
    const limits: Limit[] = [
      { id: 'L', kind: 'cap', per: 'night', severity: 'stop', cap: { amount: '110.00', currency: 'GBP' } },
      { id: 'R', kind: 'receipt', severity: 'stop', above: { amount: '25.00', currency: 'GBP' } },
      { id: 'N', kind: 'near', severity: 'ask', charges: 2, within: '5', cap: { amount: '50.00', currency: 'GBP' } },
      { id: 'P', kind: 'plan', severity: 'stop', above: { amount: '500.00', currency: 'GBP' } },
    ];
    const lines = [line({ amount: '9000.00', currency: 'USD', nights: 1, merchant: 'Pier Hotel' })];
    const rates = [{ from: 'EUR', to: 'USD', date: '2026-03-02', rate: '1.25' }];
    expect(found({ lines, book: { rates, limits } })).toEqual(['ask L 1', 'ask R 1', 'ask N 1', 'ask P']);
    const withGbp = [...rates, { from: 'EUR', to: 'GBP', date: '2026-03-02', rate: '0.8' }];
    expect(found({ lines, book: { rates: withGbp, limits } })).toEqual(['stop L 1', 'stop R 1', 'stop P']);
  });
  it('speak in their own words', () => {
    const limits: Limit[] = [
      { id: 'L', kind: 'cap', per: 'item', severity: 'note', cap, says: 'Only {allowed} here, not {actual}.' },
    ];
    expect(run({ lines: [line()], book: { limits } }).findings[0]!.says).toBe('Only 50.00 here, not 100.00.');
  });
});

describe('other limits', () => {
  it('receipts above an amount', () => {
    const limit = { kind: 'receipt' as const, above: { amount: '25.00', currency: 'EUR' } };
    expect(limited(limit, [line({ amount: '25.00' })])).toEqual([]);
    expect(limited(limit, [line({ amount: '25.01' })])).toEqual(['ask L 1']);
    expect(limited(limit, [line({ amount: '25.01', receipt: {} })])).toEqual([]);
  });
  it('fields, and names of few attendees', () => {
    const limit = { kind: 'fields' as const, fields: ['attendees', 'route'], namesUnder: 4 };
    expect(limited(limit, [line({ attendees: { count: 4 }, fields: { route: 'A–B' } })])).toEqual([]);
    expect(limited(limit, [line({ attendees: { count: 3, names: ['A', 'B'] }, fields: { route: 'A–B' } })])).toEqual([
      'ask L 1',
    ]);
    expect(run({ lines: [line()], book: { limits: [{ id: 'L', severity: 'ask', ...limit }] } }).findings[0]!.says).toBe(
      'attendees, route is missing. Fill it in.',
    );
  });
  it('age at submission, weekends, long descriptions', () => {
    expect(limited({ kind: 'age', days: 6 }, [line()])).toEqual([]);
    expect(limited({ kind: 'age', days: 5 }, [line()])).toEqual(['ask L 1']);
    expect(
      limited({ kind: 'weekend' }, [
        line(),
        line({ id: '2', date: '2026-03-07' }),
        line({ id: '3', date: '2026-03-08' }),
      ]),
    ).toEqual(['ask L 2', 'ask L 3']);
    expect(
      limited({ kind: 'text', longest: 4 }, [line({ description: 'four' }), line({ id: '2', description: '𝒻𝒾𝓋ℯ!' })]),
    ).toEqual(['ask L 2']);
  });
  it('several charges just under a cap at one merchant in a day', () => {
    const near = { kind: 'near' as const, cap: { amount: '50.00', currency: 'EUR' }, within: '10', charges: 2 };
    const charge = (id: string, amount: string, merchant = 'Quay Stores') => line({ id, amount, merchant });
    expect(limited(near, [charge('1', '49.00'), charge('2', '45.00', 'quay  stores')])).toEqual(['ask L 2']);
    expect(limited(near, [charge('1', '49.00'), charge('2', '44.99')])).toEqual([]);
    expect(limited(near, [charge('1', '49.00'), charge('2', '49.00', 'Other')])).toEqual([]);
    expect(limited(near, [charge('1', '50.01'), charge('2', '49.00')])).toEqual([]);
  });
  it('plans that are missing, and what names no estimate of one', () => {
    const plan = { number: 'PL-1', approvedOn: '2026-02-27', estimates: [{ id: 'E1', amount: '100.00' }] };
    const needed = { kind: 'plan' as const, above: { amount: '99.00', currency: 'EUR' } };
    expect(limited(needed, [line()])).toEqual(['ask L']);
    expect(limited(needed, [line({ estimate: 'E1' })], { claim: { plan } })).toEqual([]);
    expect(limited(needed, [line(), line({ id: '2', estimate: 'E1' })], { claim: { plan } })).toEqual(['ask L 1']);
    expect(limited(needed, [line({ amount: '99.00' })])).toEqual([]);
  });
});

const dimensions: Dimension[] = [
  {
    id: 'costCentre',
    values: [
      { code: '410', owner: 'Ann' },
      { code: '420', to: '2026-03-01' },
    ],
  },
  {
    id: 'grant',
    values: [
      {
        code: 'G1',
        owner: 'Ben',
        categories: ['supplies'],
        left: '150.00',
        caps: [{ category: 'supplies', left: '120.00' }],
      },
    ],
  },
];
const coded = (coding: Record<string, string>, fields: Partial<Line> = {}, codingRules: CodingRule[] = []) =>
  found({ lines: [line({ coding, ...fields })], book: { dimensions, codingRules } });

describe('the chart', () => {
  it('knows its codes, their dates and categories, and names whom to ask', () => {
    expect(coded({})).toEqual([]);
    expect(coded({ costCentre: '999' })).toEqual(['stop code-unknown 1']);
    expect(coded({ project: 'P' })).toEqual(['stop code-unknown 1']);
    expect(coded({ costCentre: '420' })).toEqual(['stop code-date 1']);
    expect(coded({ grant: 'G1' }, { category: 'meal' })).toContain('stop code-category 1');
    expect(
      run({ lines: [line({ coding: { grant: 'G1' }, category: 'meal' })], book: { dimensions } }).findings[0]!.says,
    ).toContain('Ask Ben.');
  });
  it('knows its accounts, where they are listed', () => {
    const lines = [line({ coding: { account: '9999' } })];
    expect(found({ lines })).toEqual([]);
    expect(found({ lines, book: { accounts: ['6310', '9999'] } })).toEqual([]);
    expect(found({ lines, book: { accounts: ['6310'] } })).toEqual(['stop account-unknown 1']);
  });
  it('checks combinations: required, allowed, forbidden, by date', () => {
    const rule = (fields: Partial<CodingRule>): CodingRule[] => [
      { id: 'R', severity: 'stop', when: { grant: '*' }, ...fields },
    ];
    expect(coded({ grant: 'G1' }, {}, rule({ require: ['fund'] }))).toEqual(['stop R 1']);
    expect(coded({}, {}, rule({ require: ['fund'] }))).toEqual([]);
    expect(coded({ grant: 'G1' }, {}, rule({ allow: { costCentre: ['420'] } }))).toEqual(['stop R 1']);
    expect(coded({ grant: 'G1' }, {}, rule({ forbid: { account: ['6310'] } }))).toEqual(['stop R 1']);
    expect(coded({ grant: 'G1' }, {}, rule({ forbid: { costCentre: '*' }, to: '2026-03-01' }))).toEqual([]);
    expect(coded({ grant: 'G1' }, {}, rule({ when: { grant: ['G2'] }, forbid: { costCentre: '*' } }))).toEqual([]);
  });
  it('checks each share of a split by its own coding', () => {
    const split = {
      by: 'equal' as const,
      shares: [{ coding: { costCentre: '999' } as Record<string, string> }, { coding: {} }],
    };
    expect(coded({}, { split })).toEqual(['stop code-unknown 1']);
  });
  it('stops once for a budget or cap exceeded by the claim as a whole, net of recoverable tax', () => {
    const charged = (amounts: string[]) =>
      run({
        lines: amounts.map((amount, i) => line({ id: `${i}`, amount, coding: { grant: 'G1' } })),
        book: { dimensions },
      }).findings;
    expect(charged(['60.00', '60.00'])).toEqual([]);
    expect(charged(['60.00', '60.01'])).toMatchObject([{ code: 'budget-over', line: null, difference: '0.01' }]);
    expect(charged(['100.00', '60.00'])).toHaveLength(2);
    expect(coded({ grant: 'G1' }, { amount: '123.00', tax: [{ code: 'IE-23' }], receipt: { taxNumber: 'x' } })).toEqual(
      [],
    );
  });
  it('ties limits, coding and budget where they apply', () => {
    const limits: Limit[] = [
      { id: 'L', kind: 'cap', per: 'item', severity: 'ask', cap: { amount: '50.00', currency: 'EUR' } },
    ];
    const { ties } = reviewCase(
      valid(makeCase({ lines: [line({ coding: { grant: 'G1' } })], book: { dimensions, limits } })),
      NO_EVIDENCE,
    );
    expect(ties.map((t) => [t.kind, t.state, t.difference])).toEqual(
      expect.arrayContaining([
        ['limit', 'off', '+50.00'],
        ['coding', 'tied', null],
        ['budget', 'tied', null],
      ]),
    );
  });
  it('does not call a budget kept while what is charged to it is not known', () => {
    const split: Split = { by: 'percent', shares: [{ coding: { grant: 'G1' }, value: '107' }] };
    const { ties, assessment } = reviewCase(
      valid(makeCase({ lines: [line({ split })], book: { dimensions } })),
      NO_EVIDENCE,
    );
    const budget = ties.find((t) => t.kind === 'budget')!;
    expect(budget).toMatchObject({ state: 'open', difference: 'unknown' });
    expect(budget.comparisons.map((c) => c.claimed)).toEqual(['not known yet', 'not known yet']);
    expect(assessment.findings.map((f) => f.says)).toContain(
      'The split leaves -7 %. Change the shares until nothing is left.',
    );
  });
  it('says which category a code does not take by its name', () => {
    const chart = [{ id: 'grant', name: 'Grant', values: [{ code: 'G1', name: 'One', categories: ['other'] }] }];
    const categories = [{ id: 'lodging', name: 'Lodging', account: '6200' }];
    const { findings } = run({
      lines: [line({ category: 'lodging', coding: { grant: 'G1' } })],
      book: { dimensions: chart, categories },
    });
    expect(findings.map((f) => f.says)).toContain('Grant G1 does not take Lodging. Choose another code or category.');
  });
});

it('about the claim as a whole stand at its first line, where they can be waived', () => {
  const limits: Limit[] = [{ id: 'P', kind: 'plan', severity: 'ask', above: { amount: '50.00', currency: 'EUR' } }];
  const lines = [line({ amount: '40.00' }), line({ id: '2', amount: '40.00' })];
  const { ties } = reviewCase(valid(makeCase({ lines, book: { limits } })), NO_EVIDENCE);
  const about = ties.filter((t) => t.kind === 'plan');
  expect(about.map((t) => [t.line, t.state, t.difference])).toEqual([
    ['1', 'off', 'no plan'],
    ['2', 'none', null],
  ]);
  expect(about[0]!.comparisons[0]).toMatchObject({
    fact: 'Spending above 50.00 EUR needs an approved plan.',
    claimed: 'No plan was approved, which the policy asks for here.',
  });
});

it('rules with amounts of other decimals, or twice on a date, are refused', () => {
  const limit = (amount: string): Limit => ({
    id: 'L',
    kind: 'cap',
    per: 'item',
    severity: 'ask',
    cap: { amount, currency: 'JPY' },
  });
  expect(refusal(makeCase({ lines: [], book: { limits: [limit('1.00')] } }))).toContain('book.limits.0.cap.amount');
  expect(refusal(makeCase({ lines: [], book: { limits: [limit('1'), limit('2')] } }))).toContain(
    'book.limits.1: "L" is in the book twice',
  );
  expect(
    refusal(makeCase({ lines: [], book: { dimensions: [{ id: 'grant', values: [{ code: 'G', left: '1' }] }] } })),
  ).toContain('left');
});
