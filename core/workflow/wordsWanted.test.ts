import { describe, expect, it } from 'vitest';
import type { Finding } from '../documents/finding.ts';
import { wordsWanted, wordTo } from './wordsWanted.ts';

const finding = (fields: Partial<Finding> = {}): Finding => ({
  code: 'meal',
  severity: 'ask',
  line: '1',
  item: null,
  says: '12.00 above',
  difference: null,
  ...fields,
});
const word = { line: '1', code: 'meal', about: '12.00 above', text: 'A guest came.' };

describe('a word of the claimant', () => {
  it('is to one finding as it was when it was said', () => {
    expect(wordTo(finding(), [word])).toBe('A guest came.');
    for (const other of [{ says: '15.00 above' }, { line: '2' }, { line: null }, { code: 'lodging' }])
      expect(wordTo(finding(other), [word])).toBeNull();
    const ofClaim = { ...word, line: null };
    expect(wordTo(finding({ line: null }), [ofClaim])).toBe('A guest came.');
    expect(wordTo(finding(), null)).toBeNull();
  });
  it('is wanted for each ask without one, and for nothing else', () => {
    const all = [
      finding(),
      finding({ line: '2' }),
      finding({ severity: 'note', line: '3' }),
      finding({ severity: 'stop' }),
    ];
    expect(wordsWanted(all, [word]).map((f) => f.line)).toEqual(['2']);
    expect(wordsWanted([finding({ code: 'budget-over' })], [])).toEqual([]);
  });
});
