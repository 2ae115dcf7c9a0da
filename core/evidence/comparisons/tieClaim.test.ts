import { describe, expect, it } from 'vitest';
import { line, makeCase, valid, type CaseParts } from '../../../test/fixtures/caseBuilder.ts';
import { NO_EVIDENCE, type ChargeEvidence, type Evidence, type ReceiptEvidence, type TieKind } from './tie.types.ts';
import { reviewCase } from './reviewCase.ts';

const receipt = (fields: Partial<ReceiptEvidence> = {}): ReceiptEvidence => ({
  id: 'r1',
  amount: '100.00',
  currency: 'EUR',
  date: '2026-03-02',
  merchant: 'Wexford Chandlery Ltd',
  taxNumber: 'IE1',
  changed: [],
  ...fields,
});
const charge = (fields: Partial<ChargeEvidence> = {}): ChargeEvidence => ({
  id: 'h1',
  card: '4410',
  amount: '108.34',
  currency: 'USD',
  elsewhere: '0.00',
  settled: { amount: '100.00', currency: 'EUR' },
  purchasedOn: '2026-03-02',
  bookedOn: '2026-03-04',
  merchant: 'WEXFORD CHANDL',
  ...fields,
});
const ties = (parts: CaseParts, receipts: Evidence['receipts'] = {}, others: Partial<Evidence> = {}) => {
  return reviewCase(valid(makeCase(parts)), { ...NO_EVIDENCE, ...others, receipts }).ties;
};
const tie = (kind: TieKind, parts: CaseParts, evidence?: Evidence['receipts'], id = '1') =>
  ties(parts, evidence).find((t) => t.kind === kind && t.line === id)!;
const claimed = line({ merchant: 'Wexford chandlery' });

describe('receipt with line', () => {
  it('ties when amount, currency, date and merchant agree', () => {
    expect(tie('receipt', { lines: [claimed] }, { 1: receipt() })).toMatchObject({ state: 'tied', difference: null });
  });
  const off: [string, Partial<ReceiptEvidence>, string][] = [
    ['the amount', { amount: '109.00' }, '−9.00'],
    ['the currency', { currency: 'GBP' }, 'EUR ≠ GBP'],
    ['the date', { date: '2026-03-04' }, '−2 days'],
    ['the merchant', { merchant: 'Mourne Flowers' }, 'other merchant'],
  ];
  it.each(off)('is off by %s', (_, fields, difference) => {
    const found = tie('receipt', { lines: [claimed] }, { 1: receipt(fields) });
    expect(found.state).toBe('off');
    expect(found.comparisons.some((c) => c.state === 'off' && c.difference === difference)).toBe(true);
  });
  it('is open without a receipt, and where the receipt says nothing', () => {
    expect(tie('receipt', { lines: [claimed] }).state).toBe('open');
    expect(tie('receipt', { lines: [claimed] }, { 1: receipt({ date: null }) }).state).toBe('open');
  });
  it('needs the tax number only where tax could be reclaimed', () => {
    const taxed = { ...claimed, tax: [{ code: 'IE-23' }] };
    const entity = { taxNumberRequired: true };
    expect(tie('receipt', { lines: [taxed], entity }, { 1: receipt({ taxNumber: null }) }).state).toBe('open');
    expect(tie('receipt', { lines: [claimed], entity }, { 1: receipt({ taxNumber: null }) }).state).toBe('tied');
  });
  const missing: [string, Partial<ReceiptEvidence>, string][] = [
    ['what was bought', { bought: null, paid: 'Paid by card' }, 'what was bought'],
    ['that it was paid', { bought: 'Rope', paid: null }, 'proof of payment'],
    ['who sold', { bought: 'Rope', paid: 'Cash', merchant: null }, 'merchant'],
    ['the date', { bought: 'Rope', paid: 'Cash', date: null }, 'date'],
  ];
  it.each(missing)('names %s where a paper does not say it', (_, fields, fact) => {
    const found = tie('receipt', { lines: [claimed] }, { 1: receipt(fields) });
    expect(found.state).toBe('open');
    expect(found.comparisons.filter((c) => c.state === 'open').map((c) => c.fact)).toEqual([fact]);
  });
  it('takes a charge of the bank as proof of payment, and asks for none of what is paid centrally', () => {
    const paper = receipt({ bought: 'Rope', paid: null });
    const card = line({ merchant: 'Wexford chandlery', paidBy: 'card', card: '4410' });
    const charges = { 1: charge() };
    const of = (lines: (typeof card)[], more: Partial<Evidence>) =>
      ties({ lines }, { 1: paper }, more).find((t) => t.kind === 'receipt')!;
    expect(of([card], {}).state).toBe('open');
    expect(of([card], { charges }).comparisons).toContainEqual(
      expect.objectContaining({ fact: 'proof of payment', evidence: 'charged to card 4410 on 2026-03-02' }),
    );
    expect(of([line({ merchant: 'Wexford chandlery', paidBy: 'central' })], {}).state).toBe('tied');
  });
  it('compares what is about the paper once, at the first of its lines, and what a line says of itself at each', () => {
    const lines = ['1', '2'].map((id) => line({ id, amount: '60.00', merchant: 'Wexford Chandlery' }));
    const off = receipt({ bought: null, paid: null, changed: [{ fact: 'amount', read: '90.00', sure: true }] });
    const [first, second] = ['1', '2'].map((id) => tie('receipt', { lines }, { 1: off, 2: off }, id));
    expect([first!.state, first!.difference]).toEqual(['off', '+20.00']);
    expect(first!.comparisons.filter((c) => c.state === 'open')).toHaveLength(3);
    expect([second!.state, second!.difference]).toEqual(['tied', null]);
    expect(second!.comparisons[0]!.fact).toBe('amount of 2 lines, compared at line 1');
    const others = [lines[0]!, { ...lines[1]!, date: '2026-03-04' }];
    expect(tie('receipt', { lines: others }, { 1: off, 2: off }, '2')).toMatchObject({
      state: 'off',
      difference: '+2 days',
    });
  });
  it('takes a proof from any line of the paper, and asks for one unless all of them are paid centrally', () => {
    const paper = receipt({ bought: 'Rope', paid: null });
    const half = (id: string, fields: object) =>
      line({ id, amount: '50.00', merchant: 'Wexford chandlery', ...fields });
    const of = (fields: object, charges: Evidence['charges'] = {}) =>
      ties(
        { lines: [half('1', fields), half('2', { paidBy: 'card', card: '4410' })] },
        { 1: paper, 2: paper },
        { charges },
      )[0]!;
    expect(of({ paidBy: 'central' }).state).toBe('open');
    expect(of({ paidBy: 'central' }, { 2: charge() }).state).toBe('tied');
    expect(of({}, { 2: charge() }).state).toBe('tied');
  });
  it('looks for neither where nobody read the paper for them', () => {
    expect(tie('receipt', { lines: [claimed] }, { 1: receipt() }).comparisons.map((c) => c.fact)).toEqual([
      'amount',
      'currency',
      'date',
      'merchant',
    ]);
  });
  it('compares a shared receipt with the sum of its lines', () => {
    const lines = [
      line({ amount: '60.00', merchant: 'Wexford Chandlery' }),
      line({ id: '2', amount: '40.00', merchant: 'Wexford Chandlery' }),
    ];
    expect(tie('receipt', { lines }, { 1: receipt(), 2: receipt() }, '2')).toMatchObject({ state: 'tied' });
    const more = [lines[0]!, { ...lines[1]!, amount: '40.01' }];
    expect(tie('receipt', { lines: more }, { 1: receipt(), 2: receipt() })).toMatchObject({
      state: 'off',
      difference: '+0.01',
    });
  });
});

describe('rate with the published rate', () => {
  const rates = [{ from: 'EUR', to: 'USD', date: '2026-03-02', rate: '1.25', source: 'Invented' }];
  it('does not apply within one currency', () => {
    expect(tie('rate', { lines: [claimed] }).state).toBe('none');
  });
  it('ties a published rate and shows its steps', () => {
    const found = tie('rate', { lines: [line({ currency: 'USD' })], book: { rates } });
    expect(found.state).toBe('tied');
    expect(found.steps.map((s) => s.value)).toEqual(['2026-03-02', '80', '80.00 EUR']);
  });
  it('compares card and own rates within the tolerance', () => {
    const card = (amount: string) =>
      line({ paidBy: 'card', currency: 'USD', rate: { kind: 'card', settled: { amount, currency: 'EUR' } } });
    expect(tie('rate', { lines: [card('84.00')], book: { rates } }).state).toBe('tied');
    expect(tie('rate', { lines: [card('84.01')], book: { rates } })).toMatchObject({
      state: 'off',
      difference: '+5.01 %',
    });
    expect(tie('rate', { lines: [card('84.00')] }).state).toBe('open');
    expect(
      tie('rate', { lines: [line({ currency: 'USD', rate: { kind: 'own', value: '0.7' } })], book: { rates } }),
    ).toMatchObject({ state: 'off', difference: '−12.5 %' });
  });
  it('is off where no rate is there', () => {
    expect(tie('rate', { lines: [line({ currency: 'USD' })] })).toMatchObject({ state: 'off', difference: 'no rate' });
  });
});

describe('tax claimed with tax computed', () => {
  it('does not apply without tax, ties within a minor unit, is off beyond', () => {
    const given = (tax: string) => tie('tax', { lines: [line({ tax: [{ code: 'IE-23', tax }] })] });
    expect(tie('tax', { lines: [claimed] }).state).toBe('none');
    expect(given('18.71').state).toBe('tied');
    expect(given('18.72')).toMatchObject({ state: 'off', difference: '0.02' });
  });
  it('says why nothing is reclaimed', () => {
    const found = tie('tax', { lines: [line({ tax: [{ code: 'PT-6' }] })] });
    expect(found.state).toBe('tied');
    expect(found.comparisons.find((c) => c.fact === 'PT-6 reclaimable')).toMatchObject({
      claimed: '0.00',
      evidence: expect.stringContaining('not registered'),
    });
  });
  it('of a code that begins another is not off with that one', () => {
    const code = { country: 'PT', rate: '6', account: '1410', recovery: '100' };
    const taxCodes = [
      { code: 'PT-6', ...code },
      { code: 'PT-6R', ...code, country: 'IE' },
    ];
    const entries = [
      { code: 'PT-6', gross: '50.00' },
      { code: 'PT-6R', gross: '50.00', tax: '9.00' },
    ];
    const found = tie('tax', { lines: [line({ tax: entries })], book: { taxCodes } });
    expect(found.comparisons.filter((c) => c.fact.endsWith(' tax')).map((c) => [c.fact, c.state])).toEqual([
      ['PT-6 tax', 'tied'],
      ['PT-6R tax', 'off'],
    ]);
  });
  it('is off for a tax of another country', () => {
    expect(tie('tax', { lines: [line({ country: 'GB', tax: [{ code: 'IE-23' }] })] })).toMatchObject({
      state: 'off',
      difference: 'country',
    });
  });
});

describe('what was read with what its owner says', () => {
  it('stays in sight where the two differ', () => {
    const changed = [{ fact: 'amount', read: '90.00', sure: true }];
    const found = tie('receipt', { lines: [claimed] }, { 1: receipt({ changed }) });
    expect(found.state).toBe('open');
    expect(found.comparisons.find((c) => c.fact === 'amount as read')).toMatchObject({
      evidence: '90.00',
      difference: 'changed by hand, read with certainty',
    });
  });
});

describe('card charge with line', () => {
  const settled = { kind: 'card' as const, settled: { amount: '100.00', currency: 'EUR' } };
  const paid = line({
    paidBy: 'card',
    card: '4410',
    amount: '108.34',
    currency: 'USD',
    merchant: 'Wexford Chandlery',
    rate: settled,
  });
  const card = (lines: (typeof paid)[], charges: Evidence['charges']) =>
    ties({ lines }, {}, { charges }).find((t) => t.kind === 'card' && t.line === '1')!;

  it('ties when amount, currency, what the bank took, date, merchant and card agree', () => {
    const found = card([paid], { 1: charge() });
    expect([found.state, found.comparisons.map((c) => c.state)]).toEqual(['tied', Array(6).fill('tied')]);
  });
  const off: [string, Partial<ChargeEvidence>, string][] = [
    ['the amount', { amount: '108.35' }, '−0.01'],
    ['what the bank took', { settled: { amount: '99.00', currency: 'EUR' } }, '+1.00'],
    ['more than three days', { purchasedOn: '2026-03-06' }, '−4 days'],
    ['the merchant', { merchant: 'HARBOUR GIFTS' }, 'other merchant'],
    ['the card', { card: '4427' }, '4410 ≠ 4427'],
  ];
  it.each(off)('is off by %s', (_, fields, difference) => {
    expect(card([paid], { 1: charge(fields) })).toMatchObject({ state: 'off', difference });
  });
  it('is open until the bank has sent the charge, and nothing for own money', () => {
    expect(card([paid], {}).state).toBe('open');
    expect(card([claimed as never], {}).state).toBe('none');
  });
  it('compares the sum of all lines of a charge, here and on other claims', () => {
    const half = {
      ...paid,
      amount: '54.17',
      rate: { kind: 'card' as const, settled: { amount: '50.00', currency: 'EUR' } },
    };
    const both = { 1: charge(), 2: charge() };
    expect(card([half, { ...half, id: '2' }], both).state).toBe('tied');
    expect(card([half], { 1: charge({ elsewhere: '54.17' }) }).state).toBe('tied');
    expect(card([half], { 1: charge() })).toMatchObject({ state: 'off', difference: '−54.17' });
  });
  it('compares what the card took, where the bank does not tell the currency of the purchase', () => {
    const inEuros = { 1: charge({ amount: '100.00', currency: 'EUR' }) };
    expect(card([paid], inEuros).state).toBe('tied');
    const other = { ...paid, rate: { kind: 'card' as const, settled: { amount: '99.00', currency: 'EUR' } } };
    expect(card([other], inEuros)).toMatchObject({ state: 'off', difference: '−1.00' });
    const { rate: _, ...bare } = paid;
    expect(card([bare as typeof paid], inEuros).state).toBe('off');
  });
});

describe('earlier claims with line', () => {
  it('tie when nothing is alike, and are off with each that is', () => {
    const alike = {
      claim: 'C-9',
      line: '2',
      claimant: 'Somebody',
      amount: '100.00',
      currency: 'EUR',
      date: '2026-03-02',
      merchant: null,
      reason: 'same receipt',
    };
    const duplicate = (duplicates: Evidence['duplicates']) =>
      ties({ lines: [claimed] }, {}, { duplicates }).find((t) => t.kind === 'duplicate')!;
    expect(duplicate({}).state).toBe('tied');
    expect(duplicate({ 1: [alike] })).toMatchObject({ state: 'off', difference: '1 alike' });
  });
  it('are open where there were more than could be looked at', () => {
    const evidence = { duplicates: {}, duplicatesCut: ['1'] };
    expect(ties({ lines: [claimed] }, {}, evidence).find((t) => t.kind === 'duplicate')!.state).toBe('open');
  });
});
