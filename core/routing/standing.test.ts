import { describe, expect, it } from 'vitest';
import { line, makeCase, valid } from '../../test/fixtures/caseBuilder.ts';
import { assess } from '../assess/assess.ts';
import { chargedCodes } from './chargedCodes.ts';
import { decidedWith, waitingNeeds } from './standing.ts';

const need = (id: string, place: number, people: string, decidedBy: string | null = null) => ({
  ...{ id, place, decidedBy },
  people: people.split('|'),
});
const ids = (needs: readonly { id: string }[]) => needs.map((n) => n.id);

describe('where a route stands', () => {
  const needs = [need('a', 1, 'bo', 'bo'), need('b', 2, 'cy'), need('c', 2, 'eve|dee'), need('d', 3, 'eve')];
  it('waits for everybody at the first place that is not decided', () => {
    expect(ids(waitingNeeds(needs))).toEqual(['b', 'c']);
    expect(waitingNeeds([need('a', 1, 'bo', 'bo')])).toEqual([]);
  });
  it('somebody decides once, also where they stand later; nobody decides before their turn', () => {
    expect(ids(decidedWith(needs, 'eve', []))).toEqual(['c', 'd']);
    expect(ids(decidedWith(needs, 'dee', []))).toEqual(['c']);
    expect(decidedWith([need('b', 2, 'cy'), need('d', 3, 'eve')], 'eve', [])).toEqual([]);
    expect(decidedWith(needs, 'bo', [])).toEqual([]);
  });
  it('a substitute decides for whom they stand for', () => {
    expect(ids(decidedWith(needs, 'finn', ['cy']))).toEqual(['b']);
    expect(decidedWith(needs, 'finn', ['bo'])).toEqual([]);
  });
});

describe('what is charged to codes', () => {
  it('sums the cost of shares by code, without private parts', () => {
    const split = {
      by: 'equal' as const,
      shares: [{ coding: { project: 'P-1' } }, { coding: { project: 'P-2' } }],
    };
    const lines = [
      line({ split }),
      line({ id: '2', amount: '10.00', coding: { project: 'P-1', grant: 'G-1' } }),
      line({ id: '3', paidBy: 'card', personal: true }),
    ];
    const charges = chargedCodes(assess(valid(makeCase({ lines }))), ['project', 'grant'], 'EUR');
    expect(charges).toEqual([
      { dimension: 'grant', code: 'G-1', amount: '10.00' },
      { dimension: 'project', code: 'P-1', amount: '60.00' },
      { dimension: 'project', code: 'P-2', amount: '50.00' },
    ]);
  });
});
