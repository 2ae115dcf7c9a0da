import { describe, expect, it } from 'vitest';
import { gridOf, moved, sized, toggled, USUAL } from './columns.tsx';

const ids = (columns: readonly { id: string }[]) => columns.map((c) => c.id);

describe('the columns of the Desk', () => {
  it('are shown and hidden, moved within their bounds, and sized', () => {
    expect(ids(toggled(USUAL, 'ties'))).toEqual(['progress', 'risk', 'pay']);
    expect(ids(toggled(USUAL, 'submitted'))).toEqual(['progress', 'ties', 'risk', 'pay', 'submitted']);
    expect(ids(moved(USUAL, 'pay', -1))).toEqual(['progress', 'ties', 'pay', 'risk']);
    expect([ids(moved(USUAL, 'pay', 1)), ids(moved(USUAL, 'progress', -1))]).toEqual([ids(USUAL), ids(USUAL)]);
    expect(sized(USUAL, 'pay', 12).at(-1)).toEqual({ id: 'pay', width: 12 });
    expect(gridOf([{ id: 'pay', width: 12 }])).toBe('1rem minmax(14rem, 1fr) 12rem');
  });
});
