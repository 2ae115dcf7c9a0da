import { describe, expect, it } from 'vitest';
import { visible } from './visible.ts';

describe('visible', () => {
  it.each([
    ['a\u202eb', 'ab'],
    ['two\nlines\tand\u0000', 'two lines and '],
    ['wi\u200bde\ufeff', 'wide'],
    ['नमस्\u200dते', 'नमस्\u200dते'],
    ['"Watt & Meer", שלום', '"Watt & Meer", שלום'],
    ['', ''],
  ])('%j becomes %j', (text, shown) => {
    expect(visible(text)).toBe(shown);
  });
});
