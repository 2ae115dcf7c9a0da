import { describe, expect, it } from 'vitest';
import { checkStatement } from './checkStatement.ts';
import { newEntries, type KnownCharge } from './newEntries.ts';
import type { Statement, StatementEntry } from './statement.types.ts';

const entry = (settled: string, reference: string | null = null, bookedOn = '2026-03-02'): StatementEntry => ({
  reference,
  bookedOn,
  purchasedOn: null,
  settled,
  charged: null,
  merchant: 'Quay Stores',
  country: 'IE',
  categoryCode: '5411',
});
const statement = (over: Partial<Statement> = {}): Statement => ({
  id: 'S1',
  account: '4410',
  currency: 'EUR',
  from: '2026-03-01',
  to: '2026-03-31',
  opening: '-100.00',
  closing: '-130.00',
  entries: [entry('50.00'), entry('-20.00')],
  stated: { count: 2, sum: '70.00' },
  ...over,
});

describe('a statement', () => {
  it('agrees when what was spent leads from opening to closing', () => {
    expect(checkStatement(statement())).toEqual([]);
    expect(checkStatement(statement({ opening: null, stated: { count: null, sum: null } }))).toEqual([]);
  });

  it('says what does not agree, with the difference', () => {
    expect(checkStatement(statement({ closing: '-130.01' }))[0]).toContain('-0.01 does not agree');
    expect(checkStatement(statement({ stated: { count: 3, sum: null } }))[0]).toContain(
      'says it has 3 entries, and 2 are in it',
    );
    expect(checkStatement(statement({ stated: { count: null, sum: '71.00' } }))[0]).toContain('they come to 70.00');
  });
});

describe('entries', () => {
  const charge = (id: string, settled: string, reference: string | null = null): KnownCharge => ({
    id,
    reference,
    bookedOn: '2026-03-02',
    settled,
  });
  const fresh = (entries: StatementEntry[], charges: KnownCharge[]) =>
    newEntries(entries, charges).fresh.map((e) => e.settled);

  it('are known by the reference of the bank', () => {
    expect(fresh([entry('5.00', 'R1'), entry('5.00', 'R2')], [charge('1', '5.00', 'R1')])).toEqual(['5.00']);
  });

  it('without a reference are the same as one of that day and amount, one for one', () => {
    expect(fresh([entry('5.00'), entry('5.00'), entry('6.00')], [charge('1', '5.00')])).toEqual(['5.00', '6.00']);
    expect(fresh([entry('5.00'), entry('5.00')], [charge('1', '5.00', 'R1'), charge('2', '5.00', 'R2')])).toEqual([]);
  });

  it('with a reference take up one that came without, and not one with another', () => {
    expect(newEntries([entry('5.00', 'R1')], [charge('1', '5.00')]).known).toMatchObject([{ id: '1' }]);
    expect(fresh([entry('5.00', 'R1')], [charge('1', '5.00', 'R9')])).toEqual(['5.00']);
  });

  it('that stand twice in one statement with one reference are one', () => {
    expect(fresh([entry('5.00', 'R1'), entry('5.00', 'R1')], [])).toEqual(['5.00']);
  });
});
