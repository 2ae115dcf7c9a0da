import { describe, expect, it } from 'vitest';
import { isDecided } from './BackActs.tsx';

describe('whether somebody decided', () => {
  const after = (...kinds: string[]) => isDecided(kinds.map((kind) => ({ kind })));
  it('is asked since it was last sent', () => {
    expect(after('drafted', 'edited')).toBe(false);
    expect(after('drafted', 'submitted')).toBe(false);
    expect(after('submitted', 'approved')).toBe(true);
    expect(after('requested', 'approved', 'granted')).toBe(true);
    expect(after('submitted', 'line declined')).toBe(true);
    expect(after('submitted', 'approved', 'returned', 'submitted')).toBe(false);
    expect(after('submitted', 'approved', 'called back')).toBe(false);
    expect(after('submitted', 'returned', 'withdrawn', 'brought back')).toBe(false);
  });
});
