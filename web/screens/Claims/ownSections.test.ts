import { describe, expect, it } from 'vitest';
import type { ClaimState } from '../../../core/workflow/lifecycles/claim.ts';
import { ownSections, sayToDo, sayWaits, yearsOf, type OwnClaim } from './ownSections.ts';

const claim = (number: string, state: ClaimState, day: number, asked = false): OwnClaim => ({
  number,
  state,
  asked,
  tide: [{ from: `2026-11-${String(day).padStart(2, '0')}T09:00:00.000Z` }],
});
const numbers = (claims: readonly OwnClaim[]) => ownSections(claims).map((s) => [s.title, s.rows.map((r) => r.number)]);

describe('one’s own claims', () => {
  it('begin with what asks something of oneself, then what is under way, then the rest', () => {
    expect(
      numbers([
        claim('C-1', 'paid', 20),
        claim('C-2', 'in review', 3),
        claim('C-3', 'draft', 1),
        claim('C-4', 'in review', 2, true),
        claim('C-5', 'payment rejected', 9),
        claim('C-6', 'declined', 21),
        claim('C-7', 'returned', 5),
        claim('C-8', 'posted', 4),
      ]),
    ).toEqual([
      ['To do', ['C-5', 'C-7', 'C-4', 'C-3']],
      ['Under way', ['C-8', 'C-2']],
      ['Over', ['C-6', 'C-1']],
    ]);
  });
  it('of one moment are ordered by number, not by its letters', () => {
    expect(numbers([claim('C-796', 'posted', 1), claim('C-1031', 'posted', 1)])).toEqual([
      ['Under way', ['C-1031', 'C-796']],
    ]);
    expect(numbers([])).toEqual([]);
  });
  it('say what they ask', () => {
    expect(sayToDo(claim('C-1', 'in review', 1, true))).toBe('a question waits');
    expect(sayToDo(claim('C-1', 'draft', 1))).toBe('not handed in');
    expect(sayToDo(claim('C-1', 'returned', 1))).toBe('came back');
    expect(sayToDo(claim('C-1', 'payment rejected', 1))).toBe('the payment came back');
    expect(sayToDo(claim('C-1', 'cleared', 1))).toBeNull();
  });
  it('say whose decision they wait for, while they wait for one', () => {
    const waitsFor = ['Ana Reis', 'Bo Lund'];
    expect(sayWaits({ state: 'with approver', waitsFor })).toBe('waits for Ana Reis and Bo Lund');
    expect([sayWaits({ state: 'with approver', waitsFor: [] }), sayWaits({ state: 'paid', waitsFor })]).toEqual([
      null,
      null,
    ]);
  });
  it('are of the years in which they were handed in', () => {
    const handedIn = ['2024-12-31', null, '2026-01-01', '2024-02-01'].map((submittedOn) => ({ submittedOn }));
    expect(yearsOf(handedIn)).toEqual(['2026', '2024']);
  });
});
