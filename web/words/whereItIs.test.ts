import { describe, expect, it } from 'vitest';
import { CLAIM_STATES } from '../../core/workflow/lifecycles/claim.ts';
import { reasonOf, sayChange, whereItIs } from './whereItIs.ts';

const claim = (fields: object) => ({ claim: fields, tide: [], history: [] }) as never;

describe('where a claim is', () => {
  it('has words for every state', () => {
    for (const state of CLAIM_STATES) expect(whereItIs(claim({ state, deciders: [] }))).toMatch(/^[A-Z].+\.$/);
  });
  it('names who has it, and why finance holds it', () => {
    expect(whereItIs(claim({ state: 'with approver', deciders: ['Tove Holm', 'Bo Berg'] }))).toBe(
      'It is with Tove Holm and Bo Berg.',
    );
    expect(whereItIs(claim({ state: 'with approver', deciders: [] }))).toBe('It is with an approver.');
    expect(whereItIs(claim({ state: 'in review', holdReason: 'Bank', holdUntil: '2026-12-01' }))).toBe(
      'Finance holds it until 2026-12-01: Bank.',
    );
  });
  it('says since when', () => {
    const tide = [{ state: 'paid', from: '2026-11-02T10:00:00Z' }];
    expect(whereItIs({ claim: { state: 'paid' }, tide } as never)).toMatch(/^It is paid since 2026-11-02, /);
  });
});

describe('the reason a claimant has to know', () => {
  const history = [
    { kind: 'returned', words: { reason: 'First' } },
    { kind: 'submitted', words: null },
    { kind: 'returned', words: { reason: 'Second' } },
  ];
  it('is that of the last decision, while it stands', () => {
    expect(reasonOf({ claim: { state: 'returned' }, history } as never)).toBe('Second');
    expect(reasonOf({ claim: { state: 'with approver' }, history } as never)).toBeNull();
    expect(reasonOf({ claim: { state: 'declined' }, history } as never)).toBeNull();
  });
  it('names a category that finance changed with both values', () => {
    expect(sayChange({ field: 'category', from: null, to: 'meal' } as never)).toBe('category from none to meal');
    expect(sayChange({ field: 'tax', from: [], to: [] } as never)).toBe('tax');
  });
});
