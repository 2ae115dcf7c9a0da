import { describe, expect, it } from 'vitest';
import { sized, toggled } from '../../parts/table/arrange.ts';
import { COLUMNS, USUAL } from './columns.tsx';

const ids = (columns: readonly { id: string }[]) => columns.map((c) => c.id);
const usually = (id: keyof typeof COLUMNS) => ({ id, width: COLUMNS[id].width });

describe('the columns of the Desk', () => {
  it('are shown at the end, hidden, and sized within bounds', () => {
    expect(ids(toggled(USUAL, usually('ties')))).toEqual(['progress', 'risk', 'pay']);
    expect(ids(toggled(USUAL, usually('submitted')))).toEqual(['progress', 'ties', 'risk', 'pay', 'submitted']);
    expect(sized(USUAL, 'pay', 12).at(-1)).toEqual({ id: 'pay', width: 12 });
    expect([sized(USUAL, 'pay', 1), sized(USUAL, 'pay', 99)].map((c) => c.at(-1)!.width)).toEqual([4, 24]);
  });
});
