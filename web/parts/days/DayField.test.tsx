// @vitest-environment happy-dom
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { DayField } from './DayField.tsx';

afterEach(cleanup);

function Form({ start = '', onDay, onEnter }: { start?: string; onDay?: (day: string) => void; onEnter?: () => void }) {
  const [day, setDay] = useState(start);
  return (
    <div onKeyDown={(e) => e.key === 'Enter' && onEnter?.()}>
      <label>
        First day
        <DayField
          value={day}
          min="2026-01-01"
          onChange={(next) => {
            setDay(next);
            onDay?.(next);
          }}
        />
      </label>
      <output>{day}</output>
    </div>
  );
}
const field = () => screen.getByRole<HTMLInputElement>('textbox');
const told = () => screen.getByRole('status').textContent;

describe('a field for a day', () => {
  it('tells of a whole day at once, and writes one that was typed otherwise as days are written when it is left', async () => {
    const user = userEvent.setup();
    render(<Form />);
    await user.type(field(), '2026-11-26');
    expect(told()).toBe('2026-11-26');
    await user.clear(field());
    expect(told()).toBe('');
    await user.type(field(), '27 Nov 2026');
    expect(told()).toBe('');
    await user.tab();
    expect(told()).toBe('2026-11-27');
    expect(field().value).toBe('2026-11-27');
  });
  it('keeps what is no day in the field, says so, and lets nothing be sent of it', async () => {
    const user = userEvent.setup();
    render(<Form start="2026-11-26" />);
    await user.clear(field());
    await user.type(field(), 'soon');
    expect(screen.queryByRole('alert')).toBeNull();
    await user.tab();
    expect(field().value).toBe('soon');
    expect(field().getAttribute('aria-invalid')).toBe('true');
    expect(screen.getByRole('alert').textContent).toContain('no day');
    expect(told()).toBe('');
  });
  it('says where a day is outside of what may be chosen', async () => {
    const user = userEvent.setup();
    render(<Form />);
    await user.type(field(), '2025-12-31');
    await user.tab();
    expect(screen.getByRole('alert').textContent).toBe('Not before 2026-01-01.');
  });
  it('reads what was typed at the first Enter, and lets the next one through', async () => {
    const user = userEvent.setup();
    const onEnter = vi.fn();
    render(<Form onEnter={onEnter} />);
    await user.type(field(), '26.11.2026{Enter}');
    expect(told()).toBe('2026-11-26');
    expect(onEnter).not.toHaveBeenCalled();
    await user.keyboard('{Enter}');
    expect(onEnter).toHaveBeenCalledOnce();
  });
  it('is sent with its form at the first Enter, and not where it is no day', async () => {
    const user = userEvent.setup();
    const sent: string[] = [];
    function Sent() {
      const [day, setDay] = useState('');
      return (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            sent.push(day);
          }}
        >
          <DayField value={day} onChange={setDay} />
        </form>
      );
    }
    render(<Sent />);
    await user.type(field(), 'soon{Enter}');
    expect(sent).toEqual([]);
    await user.clear(field());
    await user.type(field(), '26.11.2026{Enter}');
    expect(sent).toEqual(['2026-11-26']);
  });
  it('opens a month by its key, which gives the focus back when a day is taken', async () => {
    const user = userEvent.setup();
    const onDay = vi.fn();
    render(<Form start="2026-11-26" onDay={onDay} />);
    await user.click(field());
    await user.keyboard('{Alt>}{ArrowDown}{/Alt}');
    const next = await screen.findByRole('button', { name: /November 27/ }, { timeout: 5000 });
    await user.click(next);
    expect(onDay).toHaveBeenLastCalledWith('2026-11-27');
    expect(field().value).toBe('2026-11-27');
    expect(screen.queryByRole('grid')).toBeNull();
    await vi.waitFor(() => expect(document.activeElement).toBe(field()));
  });
});
