import { describe, expect, it } from 'vitest';
import { sayEvent } from './sayEvent.ts';

const gathered = (lines: unknown) => sayEvent({ kind: 'gathered', facts: { lines } } as never);

describe('lines in a sentence', () => {
  it.each([
    [['3'], 'put line 3 on it from what was gathered'],
    [['1', '2'], 'put lines 1, 2 on it from what was gathered'],
    [['1', '2', '3', '4', '7'], 'put lines 1 to 4, 7 on it from what was gathered'],
    [['C-1031/9', 'C-1031/10', 'C-1031/11'], 'put lines 9 to 11 on it from what was gathered'],
    [['2a', '2b', '4'], 'put lines 2a, 2b, 4 on it from what was gathered'],
  ])('%j', (lines, says) => {
    expect(gathered(lines)).toBe(says);
  });
});
