import { describe, expect, it } from 'vitest';
import { age, tideParts } from './tide.ts';

const DAY = 86_400_000;
const at = (day: number) => new Date(day * DAY).toISOString();
const pieces = (...days: [string, number][]) => days.map(([state, day]) => ({ state, from: at(day) }));

describe('a claim’s progress', () => {
  it('gives each state the part of the bar its time was, and the last one until now', () => {
    const parts = tideParts(pieces(['with approver', 0], ['in review', 1], ['cleared', 3]), 4 * DAY);
    expect(parts.map((p) => [p.state, p.ms / DAY, p.x, p.width])).toEqual([
      ['with approver', 1, 0, 25],
      ['in review', 2, 25, 50],
      ['cleared', 1, 75, 25],
    ]);
  });

  it('keeps a state of a minute among months wide enough to be seen, and the whole at 100', () => {
    const parts = tideParts(pieces(['with approver', 0], ['in review', 100], ['posted', 100.001]), 200 * DAY);
    expect(parts[1]!.width).toBeGreaterThan(5);
    expect(parts.reduce((sum, p) => sum + p.width, 0)).toBeCloseTo(100);
    expect(parts[2]!.x).toBeCloseTo(parts[0]!.width + parts[1]!.width);
  });

  it('is whole when everything happened at once', () => {
    expect(tideParts(pieces(['with approver', 1]), DAY)).toMatchObject([{ x: 0, width: 100, ms: 0 }]);
  });

  it.each([
    [0, '1 min'],
    [59 * 60_000, '59 min'],
    [3_600_000, '1 h'],
    [DAY - 1, '23 h'],
    [3 * DAY, '3 d'],
  ])('%i ms is %s', (ms, says) => {
    expect(age(ms)).toBe(says);
  });
});
