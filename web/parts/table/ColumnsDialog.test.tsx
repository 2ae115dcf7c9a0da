// @vitest-environment happy-dom
import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { afterEach, describe, expect, it } from 'vitest';
import type { Arranged } from './arrange.ts';
import { ColumnsDialog } from './ColumnsDialog.tsx';

afterEach(cleanup);

const ALL = { due: { name: 'Due', width: 6 }, open: { name: 'Open', width: 9 }, age: { name: 'Age', width: 5 } };
type Id = keyof typeof ALL;
const USUAL: readonly Arranged<Id>[] = [
  { id: 'due', width: 6 },
  { id: 'open', width: 9 },
];

function Dialog() {
  const [columns, setColumns] = useState(USUAL);
  return (
    <>
      <ColumnsDialog
        title="Columns"
        all={ALL}
        columns={columns}
        usual={USUAL}
        onChange={setColumns}
        onClose={() => {}}
      />
      <output>{columns.map((c) => `${c.id} ${c.width}`).join(', ')}</output>
    </>
  );
}
const told = () => document.querySelector('output')!.textContent;

describe('the dialog of the columns', () => {
  it('shows and hides, makes wider by keys within bounds, and takes all back', async () => {
    const user = userEvent.setup();
    render(<Dialog />);
    await user.click(screen.getByRole('checkbox', { name: 'Due' }));
    await user.click(screen.getByRole('checkbox', { name: 'Age' }));
    expect(told()).toBe('open 9, age 5');
    within(screen.getByRole('list', { name: 'Not shown' })).getByRole('checkbox', { name: 'Due' });
    screen.getByRole('slider', { name: 'Width of Age' }).focus();
    await user.keyboard('{ArrowRight}{ArrowRight}');
    expect(told()).toBe('open 9, age 6');
    await user.keyboard('{End}{ArrowRight}');
    expect(told()).toBe('open 9, age 24');
    await user.click(screen.getByRole('button', { name: 'As usual' }));
    expect(told()).toBe('due 6, open 9');
  });
});
