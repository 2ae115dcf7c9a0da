import { expect, it } from 'vitest';
import fc from 'fast-check';
import { line, makeCase, valid } from '../../../test/fixtures/caseBuilder.ts';
import type { Line } from '../../documents/case.schema.ts';
import { NO_EVIDENCE, type Evidence } from './tie.types.ts';
import { previewCase } from './previewCase.ts';
import { rememberCase } from './rememberCase.ts';
import { reviewCase } from './reviewCase.ts';

/** Lines that hang together: one day has a limit over all of them, the first three share a receipt, two a charge, two an estimate. */
const LINES = ['1', '2', '3', '4', '5'].map((id, i) =>
  line({
    id,
    amount: '20.00',
    merchant: 'Reedbed Café',
    tax: [{ code: 'IE-23' }],
    ...(i > 2 ? { paidBy: 'card' as const, card: '4410', estimate: 'E1' } : {}),
  }),
);
const dayCap = {
  ...{ id: 'day', kind: 'cap' as const, severity: 'ask' as const, per: 'day' as const },
  cap: { amount: '100.00', currency: 'EUR' },
};
const receipt = {
  ...{ id: 'r1', amount: '60.00', currency: 'EUR', date: '2026-03-02', merchant: 'Reedbed Café', taxNumber: 'IE1' },
  ...{ bought: 'Soup and 2 more', paid: 'Cash', changed: [] },
};
const charge = {
  ...{ id: 'c1', card: '4410', amount: '40.00', currency: 'EUR', elsewhere: '0.00', merchant: 'REEDBED CAFE' },
  ...{ settled: { amount: '40.00', currency: 'EUR' }, purchasedOn: '2026-03-02', bookedOn: '2026-03-03' },
};
const evidence: Evidence = {
  ...NO_EVIDENCE,
  receipts: { 1: receipt, 2: receipt, 3: receipt },
  charges: { 4: charge, 5: charge },
};
const plan = {
  ...{ number: 'T-1', approvedOn: '2026-02-27' },
  estimates: [{ id: 'E1', amount: '40.00', category: 'supplies' }],
};
const document = valid(makeCase({ lines: LINES, claim: { plan }, book: { limits: [dayCap] } }));

const edit = fc.record({
  at: fc.integer({ min: 0, max: 4 }),
  amount: fc.constantFrom('20.00', '20.01', '35.00', '7.50'),
  merchant: fc.constantFrom('Reedbed Café', 'Quay Hardware'),
  date: fc.constantFrom('2026-03-02', '2026-03-04'),
});
type Edit = ReturnType<typeof fc.sample<{ at: number; amount: string; merchant: string; date: string }>>[number];
const typed = ({ at, ...fields }: Edit): Line => ({ ...LINES[at]!, ...fields });

it('a preview says of every line what a look at the changed claim says, whatever was typed before', () => {
  fc.assert(
    fc.property(fc.array(edit, { minLength: 1, maxLength: 6 }), (edits) => {
      const preview = previewCase(document, evidence);
      for (const one of edits) {
        const changed = typed(one);
        const lines = LINES.map((l) => (l.id === changed.id ? changed : l));
        const whole = { ...document, claim: { ...document.claim, lines } };
        const now = preview.withLines([changed]);
        expect(now).toMatchObject({ ok: true, ...reviewCase(whole, evidence) });
      }
    }),
    { numRuns: 150 },
  );
});

it('keeps the very comparisons of lines that hang together with nothing that was typed', () => {
  const preview = previewCase(document, evidence);
  const look = (amount: string) => {
    const now = preview.withLines([{ ...LINES[0]!, amount }]);
    if (!now.ok) throw new Error('it is readable');
    return now.ties.filter((t) => t.line === '4');
  };
  const [first, second] = [look('7.50'), look('7.51')];
  expect(first.length).toBeGreaterThan(0);
  expect(first.every((tie, i) => tie === second[i])).toBe(true);
});

const alike = (amount: string) => [
  {
    ...{ claim: 'C-7', line: '1', claimant: 'Nobody', amount, currency: 'EUR' },
    ...{ date: '2026-03-02', merchant: 'Reedbed Café', reason: 'same purchase' as const },
  },
];
/** What may be other with the lines: a paper, a charge, what is alike, and that more is than was looked at. */
const evidences: Evidence[] = [
  evidence,
  { ...evidence, duplicates: { 2: alike('20.00') } },
  { ...evidence, duplicates: { 2: alike('21.00') }, duplicatesCut: ['3'] },
  { ...evidence, receipts: { 1: { ...receipt, amount: '61.00' }, 2: receipt } },
  { ...evidence, charges: { 4: { ...charge, amount: '41.00' } } },
];

it('a remembered case is reviewed as one nobody knows, whatever was other before', () => {
  const step = fc.record({ edits: fc.array(edit, { maxLength: 3 }), about: fc.constantFrom(...evidences) });
  fc.assert(
    fc.property(fc.array(step, { minLength: 1, maxLength: 6 }), (steps) => {
      const remembered = rememberCase(document, evidence);
      for (const { edits, about } of steps) {
        const put = new Map(edits.map((one) => [LINES[one.at]!.id, typed(one)]));
        const lines = LINES.map((l) => put.get(l.id) ?? l);
        const whole = structuredClone({ ...document, claim: { ...document.claim, lines } });
        expect(remembered.again(whole, about, remembered.changedIn(whole)!)).toEqual({
          document: whole,
          ...reviewCase(whole, about),
        });
      }
    }),
    { numRuns: 150 },
  );
});

it('a remembered case tells which lines are other, and knows nothing of one that is other in more, or cannot be', () => {
  const remembered = rememberCase(document, evidence);
  const { claim } = document;
  const withLines = (lines: Line[]) => ({ ...document, claim: { ...claim, lines } });
  const second = { ...LINES[1]!, amount: '7.50' };
  const other = withLines(LINES.map((l) => (l.id === '2' ? second : l)));
  expect(remembered.changedIn(other)).toEqual([second]);
  for (const unknown of [
    withLines(LINES.slice(1)),
    withLines(LINES.toReversed()),
    { ...document, claim: { ...claim, currency: 'GBP' } },
    { ...document, postingDate: '2026-03-09' },
    { ...document, book: { ...document.book, limits: [] } },
  ]) {
    expect(remembered.changedIn(unknown)).toBeNull();
  }
  const wrong = withLines([{ ...LINES[0]!, amount: '1.234' }, ...LINES.slice(1)]);
  expect(remembered.again(wrong, evidence, remembered.changedIn(wrong)!)).toBeNull();
});

it('a remembered case computes what did not change no second time', () => {
  const remembered = rememberCase(document, evidence);
  for (const line of LINES) expect(remembered.computeNext(), line.id).toBe(true);
  expect(remembered.computeNext()).toBe(false);
  const first = remembered.again(structuredClone(document), evidence, [])!;
  const second = { ...LINES[1]!, amount: '7.50' };
  const now = structuredClone({
    ...document,
    claim: { ...document.claim, lines: LINES.map((l) => (l.id === '2' ? second : l)) },
  });
  const again = remembered.again(now, evidence, remembered.changedIn(now)!)!;
  expect(again.assessment.lines.map((l, i) => l === first.assessment.lines[i])).toEqual([
    true,
    false,
    true,
    true,
    true,
  ]);
});
