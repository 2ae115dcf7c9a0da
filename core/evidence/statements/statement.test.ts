import fc from 'fast-check';
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

  it('may count batches once, and what is pending or not', () => {
    const counted = [
      { count: 1, sum: '70.00' },
      { count: 2, sum: '79.00' },
    ];
    for (const stated of [...counted, { count: null, sum: '79.00' }, { count: 1, sum: null }])
      expect(checkStatement(statement({ stated, counted }))).toEqual([]);
    expect(checkStatement(statement({ stated: { count: 1, sum: '79.00' }, counted }))).toHaveLength(1);
  });

  it('has no entry of nothing, and none of another year', () => {
    const balances = { opening: null, closing: null, stated: { count: null, sum: null } };
    expect(checkStatement(statement({ ...balances, entries: [entry('0.00')] }))).toEqual(['Its entry 1 is of 0.00.']);
    const old = entry('5.00', null, '2025-02-27');
    expect(checkStatement(statement({ ...balances, entries: [entry('5.00', null, '2025-03-01')] }))).toEqual([]);
    expect(checkStatement(statement({ ...balances, entries: [old] }))[0]).toContain('more than a year beyond its days');
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

  it('that stand twice in one statement with one reference are two, and known as two the next time', () => {
    const twice = [entry('5.00', 'R1'), entry('5.00', 'R1')];
    expect(fresh(twice, [])).toEqual(['5.00', '5.00']);
    expect(fresh(twice, [charge('1', '5.00', 'R1')])).toEqual(['5.00']);
    expect(fresh(twice, [charge('1', '5.00', 'R1'), charge('2', '5.00', 'R1')])).toEqual([]);
  });

  it('whose reference comes back with another day, amount or side are other movements', () => {
    const known = [charge('1', '5.00', 'R1')];
    expect(fresh([entry('5.00', 'R1', '2026-04-02'), entry('6.00', 'R1'), entry('-5.00', 'R1')], known)).toEqual([
      '5.00',
      '6.00',
      '-5.00',
    ]);
  });

  it('of a random history are added once each, however statements overlap', () => {
    const references = [null, 'CARD', '1', '2'];
    fc.assert(
      fc.property(
        fc.array(
          fc.record({ amount: fc.integer({ min: 1, max: 3 }), day: fc.integer({ min: 1, max: 4 }), by: fc.nat(3) }),
        ),
        fc.nat(4),
        fc.nat(4),
        (history, one, other) => {
          const entries = history.map(({ amount, day, by }) =>
            entry(`${amount}.00`, references[by]!, `2026-03-0${day}`),
          );
          const [from, to] = [Math.min(one, other), Math.max(one, other)];
          const charges: KnownCharge[] = [];
          const take = (some: StatementEntry[]) => {
            for (const e of newEntries(some, charges).fresh)
              charges.push({
                id: String(charges.length),
                reference: e.reference,
                bookedOn: e.bookedOn,
                settled: e.settled,
              });
          };
          take(entries.filter((e) => e.bookedOn <= `2026-03-0${to}`));
          take(entries.filter((e) => e.bookedOn > `2026-03-0${from}`));
          take(entries);
          const key = (e: Pick<KnownCharge, 'bookedOn' | 'settled'>) => `${e.bookedOn} ${e.settled}`;
          expect(charges.map(key).sort()).toEqual(entries.map(key).sort());
        },
      ),
    );
  });
});
