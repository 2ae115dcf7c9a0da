import { describe, expect, it } from 'vitest';
import { LIFECYCLES } from '../workflow/lifecycles/all.ts';
import { sayMessage, type Message } from './sayMessage.ts';

const message = (more: Partial<Message>): Message => ({
  ...{ record: 'claim', number: 'C-7', event: 'submitted', as: 'decider', whose: 'Ana', by: 'Ben' },
  ...{ purpose: 'Nets', amount: '12.00', currency: 'EUR', insteadOf: null, waits: true, facts: {} },
  ...more,
});

describe('the words of a message', () => {
  it('say what it is about, how much, and what to do', () => {
    expect(sayMessage(message({}))).toEqual({
      subject: 'C-7 waits for your decision',
      says: 'The claim C-7 of Ana: Nets, 12.00 EUR to pay.',
      next: 'Open it to approve, decline or return it.',
    });
    expect(sayMessage(message({ record: 'plan', amount: null, insteadOf: 'Cy' })).says).toBe(
      'The plan C-7 of Ana: Nets. You stand in for Cy.',
    );
    expect(sayMessage(message({ as: 'maker', event: 'approved', facts: { state: 'in review' } }))).toMatchObject({
      subject: 'Ben approved C-7',
      says: 'Your claim C-7: Nets, 12.00 EUR to pay.',
      next: 'Finance looks at it next.',
    });
  });
  it('group the digits of what is large', () => {
    expect(sayMessage(message({ amount: '1234567.50' })).says).toContain(', 1\u2009234\u2009567.50 EUR to pay.');
    const granted = { record: 'advance', as: 'maker', event: 'granted' } as const;
    const facts = { amount: '40000', currency: 'KES', dueBy: '2026-12-24' };
    expect(sayMessage(message({ ...granted, facts })).subject).toBe('Ben granted 40\u2009000 KES of C-7');
  });
  it('ask for nothing that was decided meanwhile', () => {
    expect(sayMessage(message({ waits: false }))).toMatchObject({ subject: 'C-7 no longer waits for you', next: null });
  });
  it('are there for everything that is told, and no event is told by its bare name', () => {
    const hears = {
      ...{ approver: ['decider'], owner: ['decider'], claimant: ['maker'], preparer: ['maker'] },
      ...{ questioned: ['maker', 'decider'] },
    } as const;
    const bare = LIFECYCLES.flatMap(({ kind: record, acts }) =>
      Object.values(acts).flatMap(({ event, tells }) =>
        tells
          .flatMap(
            (told) =>
              (typeof told === 'string' ? hears[told] : (['reviewer'] as const)) as (
                'maker' | 'decider' | 'reviewer'
              )[],
          )
          .filter((as) => sayMessage(message({ record, event, as })).subject === `C-7: ${event}`)
          .map((as) => `${record} ${event} to ${String(as)}`),
      ),
    );
    expect(bare).toEqual([]);
  });
});
