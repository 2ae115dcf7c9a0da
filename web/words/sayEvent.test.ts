import { describe, expect, it } from 'vitest';
import { claimLifecycle } from '../../core/workflow/lifecycles/claim.ts';
import { sayEvent, SAYS } from './sayEvent.ts';

const say = (kind: string, facts: object = {}, words: object | null = null) =>
  sayEvent({ kind, facts, words } as never);

describe('lines in a sentence', () => {
  it.each([
    [['3'], 'put line 3 on it from what was gathered'],
    [['1', '2'], 'put lines 1, 2 on it from what was gathered'],
    [['1', '2', '3', '4', '7'], 'put lines 1 to 4, 7 on it from what was gathered'],
    [['C-1031/9', 'C-1031/10', 'C-1031/11'], 'put lines 9 to 11 on it from what was gathered'],
    [['2a', '2b', '4'], 'put lines 2a, 2b, 4 on it from what was gathered'],
  ])('%j', (lines, says) => {
    expect(say('gathered', { lines })).toBe(says);
  });
});

describe('what happened to a claim', () => {
  it('has words for every event its acts leave', () => {
    const kinds = Object.values(claimLifecycle.acts).map((rule) => rule.event);
    expect(kinds.filter((kind) => !SAYS[kind])).toEqual([]);
    expect(say('something new')).toBe('something new');
  });

  it.each([
    ['marked', { line: '3', tie: 'receipt', mark: 'seen' }, null, 'ticked line 3 receipt'],
    [
      'marked',
      { line: '3', tie: 'receipt', mark: 'waived', also: ['4', '5'] },
      { reason: 'Agreed' },
      'waived line 3 receipt and 2 more: Agreed',
    ],
    ['marked', { line: '3', tie: 'receipt', mark: 'none' }, null, 'took back the mark on line 3 receipt'],
    ['marked', { line: '3', tie: 'tax', mark: 'waived' }, { reason: 'Agreed' }, 'waived line 3 tax: Agreed'],
    ['corrected', { line: '2', item: 'a', to: { tax: [], coding: {} } }, null, 'corrected line 2, item a: tax, coding'],
    ['returned', {}, { reason: 'No receipt' }, 'returned it: No receipt'],
    ['held', { until: '2026-12-01' }, { reason: 'Bank' }, 'put it on hold until 2026-12-01: Bank'],
    ['asked', { line: '4' }, { text: 'Why twice?' }, 'asked about line 4: Why twice?'],
    ['reversed', { reverses: 'IE-000002', journal: 'IE-000009' }, null, 'reversed IE-000002 by IE-000009'],
    ['part paid', { journal: 'IE-000004', date: '2026-11-20' }, null, 'paid part of it by IE-000004 on 2026-11-20'],
  ])('%s %j', (kind, facts, words, says) => {
    expect(say(kind, facts, words)).toBe(says);
  });
});
