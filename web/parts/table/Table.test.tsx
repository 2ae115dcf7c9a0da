// @vitest-environment happy-dom
import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Column } from './columns.tsx';
import { Table } from './Table.tsx';

afterEach(cleanup);

interface Gate {
  name: string;
  days: number;
  shut?: boolean;
}
const GATES: readonly Gate[] = [
  { name: 'Wexford', days: 9 },
  { name: 'Årdal', days: 100, shut: true },
  { name: 'Cork', days: 20 },
];
const COLUMNS: readonly Column<Gate>[] = [
  { id: 'name', header: 'Name', meta: { leads: true }, cell: ({ row }) => row.original.name },
  { id: 'days', header: 'Days', accessorFn: (gate) => gate.days, size: 80, meta: { right: true } },
  { id: 'acts', header: 'Acts', meta: { unseen: true }, cell: () => null },
];

interface GatesProps {
  onKey?: (name: string) => void;
  onSized?: (id: string, width: number) => void;
}
function Gates({ onKey, onSized }: GatesProps) {
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  return (
    <>
      <Table
        label="Gates"
        rows={GATES}
        columns={COLUMNS}
        keyOf={(gate) => gate.name}
        pathOf={(gate) => `/gates/${gate.name}`}
        keysOf={(gate) => ({ choose: () => onKey?.(gate.name) })}
        below={(gate) => gate.shut && <p>shut</p>}
        choosing={{ chosen, onChange: setChosen, may: (gate) => !gate.shut }}
        {...(onSized && { onSized })}
      />
      <output>{[...chosen].join(' ')}</output>
    </>
  );
}
function show(props: GatesProps = {}) {
  const router = createMemoryRouter([
    { path: '/', element: <Gates {...props} /> },
    { path: '/gates/:name', element: <p>the gate</p> },
  ]);
  render(<RouterProvider router={router} />);
  return router;
}
const names = () => screen.getAllByRole('link').map((link) => link.textContent);

describe('a table', () => {
  it('is gone through with the arrow keys, one row in the order of Tab, and Enter opens', async () => {
    const user = userEvent.setup();
    const router = show();
    const [first, second, third] = screen.getAllByRole('link');
    expect([first, second, third].map((link) => link!.tabIndex)).toEqual([0, -1, -1]);
    await user.keyboard('{ArrowDown}');
    expect(document.activeElement).toBe(first);
    await user.keyboard('{ArrowDown}{ArrowDown}{ArrowDown}');
    expect(document.activeElement).toBe(third);
    await user.keyboard('{ArrowUp}');
    expect([first, second, third].map((link) => link!.tabIndex)).toEqual([-1, 0, -1]);
    await user.keyboard('{Enter}');
    expect(router.state.location.pathname).toBe('/gates/Årdal');
  });

  it('is sorted by a column with a value, by number and both ways, and says so; others are not', async () => {
    const user = userEvent.setup();
    show();
    expect(within(screen.getByRole('columnheader', { name: 'Name' })).queryByRole('button')).toBeNull();
    const days = screen.getByRole('columnheader', { name: 'Days' });
    const told = [];
    for (let i = 0; i < 3; i += 1) {
      await user.click(screen.getByRole('button', { name: 'Days' }));
      told.push([days.getAttribute('aria-sort'), ...names()]);
    }
    expect(told).toEqual([
      ['ascending', 'Wexford', 'Cork', 'Årdal'],
      ['descending', 'Årdal', 'Cork', 'Wexford'],
      [null, 'Wexford', 'Årdal', 'Cork'],
    ]);
  });

  it('has rows chosen where they may be, and keys act on the row one is at', async () => {
    const user = userEvent.setup();
    const onKey = vi.fn();
    show({ onKey });
    expect(screen.queryByRole('checkbox', { name: 'Choose Årdal' })).toBeNull();
    await user.click(screen.getByRole('checkbox', { name: 'Choose Cork' }));
    await user.click(screen.getByRole('checkbox', { name: 'Choose Wexford' }));
    await user.click(screen.getByRole('checkbox', { name: 'Choose Cork' }));
    expect(screen.getByRole('status').textContent).toBe('Wexford');
    (document.activeElement as HTMLElement).blur();
    await user.keyboard('{ArrowDown}{ArrowDown}v');
    expect(onKey.mock.calls).toEqual([['Årdal']]);
  });

  it('shows what stands below a row, and a heading that is only heard', () => {
    show();
    const rows = screen.getAllByRole('row').map((row) => row.textContent);
    expect(rows.indexOf('shut')).toBe(rows.findIndex((text) => text!.startsWith('Årdal')) + 1);
    expect(screen.getByRole('columnheader', { name: 'Acts' }).querySelector('.sr-only')).not.toBeNull();
  });

  it('is sized by the left edge of a column, told once it is let go', async () => {
    const onSized = vi.fn();
    show({ onSized });
    const edge = document.querySelector('[data-edge="days"]')!;
    edge.dispatchEvent(new MouseEvent('mousedown', { bubbles: true, clientX: 500 }));
    document.dispatchEvent(new MouseEvent('mousemove', { clientX: 470 }));
    await vi.waitFor(() => expect(document.querySelector('col[style*="110"]')).not.toBeNull());
    expect(onSized).not.toHaveBeenCalled();
    document.dispatchEvent(new MouseEvent('mouseup', { clientX: 460 }));
    await vi.waitFor(() => expect(onSized.mock.calls).toEqual([['days', 120]]));
    expect(document.querySelectorAll('[data-edge]')).toHaveLength(1);
  });
});
