import { describe, expect, it } from 'vitest';
import { sameClaim, sameLines } from './stands.ts';

const claim = ({ amount = '9.00', other = '5.00', state = 'in review', answer = null as string | null } = {}) =>
  ({
    claim: { state, version: 1 },
    document: {
      claim: {
        lines: [
          { id: '1', amount },
          { id: '2', amount: other },
        ],
      },
    },
    queries: [{ id: '7', sent: true, answer: answer === null ? null : { text: answer } }],
  }) as never;

describe('an act after somebody else’s', () => {
  it('on the whole claim stands while lines, state and answers are the same', () => {
    expect(sameClaim(claim(), claim())).toBe(true);
    const others = [claim({ amount: '8.00' }), claim({ state: 'returned' }), claim({ answer: 'Yes' })];
    expect(others.map((now) => sameClaim(claim(), now))).toEqual([false, false, false]);
  });
  it('on some lines stands while those are the same', () => {
    const stands = (now: never) => sameLines(['1'])(claim(), now);
    expect([claim({ other: '4.00' }), claim({ answer: 'Yes' })].map(stands)).toEqual([true, true]);
    expect([claim({ amount: '8.00' }), claim({ state: 'cleared' })].map(stands)).toEqual([false, false]);
  });
});
