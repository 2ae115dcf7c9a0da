import { describe, expect, it } from 'vitest';
import { concerned } from './concerned.ts';
import { LIFECYCLES } from './lifecycles/all.ts';

const people = (more: object) => ({ people: { claimant: 'C', preparer: 'C', ...more } });

describe('who hears of an act', () => {
  it('is whose record it is, once, and not who did it', () => {
    expect(concerned(['claimant', 'preparer'], people({}), people({}), 'F')).toEqual([{ person: 'C', as: 'maker' }]);
    expect(concerned(['claimant', 'preparer'], people({}), people({ preparer: 'P' }), 'C')).toEqual([
      { person: 'P', as: 'maker' },
    ]);
    expect(concerned(['claimant'], people({}), people({}), null)).toEqual([{ person: 'C', as: 'maker' }]);
  });
  it('is who is asked anew, not who was asked before, nor a maker who is on the route', () => {
    const [before, after] = [people({ approver: ['A', 'B'] }), people({ approver: ['B', 'D', 'C'] })];
    expect(concerned(['approver', 'claimant'], before, after, 'A')).toEqual([
      { person: 'D', as: 'decider' },
      { person: 'C', as: 'maker' },
    ]);
    expect(concerned(['owner'], people({}), people({ owner: ['O'] }), 'F')).toEqual([{ person: 'O', as: 'decider' }]);
  });
  it('leaves whoever did something before to the history', () => {
    expect(concerned([{ did: 'asked' }], people({}), people({}), 'C')).toEqual([]);
  });
});

describe('the lifecycles of claims, plans and advances', () => {
  it('tell whose record it is of every decision, and of money', () => {
    const silent = LIFECYCLES.filter((l) => ['claim', 'plan', 'advance'].includes(l.kind)).flatMap(({ kind, acts }) =>
      Object.entries(acts)
        .filter(([name]) =>
          /^(approve|decline|return|clear|post|reverse|pay|payPart|rejectPayment|grant|payOut|giveBack|settle)$/.test(
            name,
          ),
        )
        .filter(([, rule]) => !rule.tells.includes('claimant'))
        .map(([name]) => `${kind} ${name}`),
    );
    expect(silent).toEqual([]);
  });
});
