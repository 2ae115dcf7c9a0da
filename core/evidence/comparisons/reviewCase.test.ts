import { expect, it } from 'vitest';
import fc from 'fast-check';
import { line, makeCase, valid } from '../../../test/fixtures/caseBuilder.ts';
import type { Line } from '../../documents/case.schema.ts';
import { NO_EVIDENCE, type Evidence } from './tie.types.ts';
import { previewCase, reviewCase } from './reviewCase.ts';

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
