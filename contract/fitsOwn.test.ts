import { describe, expect, it } from 'vitest';
import { fitsOwn } from './fitsOwn.ts';

const claim = { number: 'C-1031', purpose: 'Reed survey, Ålesund', submittedOn: '2026-03-02' };

describe('one’s own claims', () => {
  it('are found by parts of the number and of what they are for, in any order', () => {
    const found = ['', 'c-1031', 'ålesund reed', '103'].map((q) => fitsOwn(claim, { q, year: '' }));
    expect(found).toEqual([true, true, true, true]);
    expect(fitsOwn(claim, { q: 'reed Bergen', year: '' })).toBe(false);
  });
  it('are of the year they were handed in; a draft is of any', () => {
    expect(['2026', '2025', '202'].map((year) => fitsOwn(claim, { q: '', year }))).toEqual([true, false, false]);
    expect(fitsOwn({ ...claim, submittedOn: null }, { q: 'reed', year: '2025' })).toBe(true);
  });
});
