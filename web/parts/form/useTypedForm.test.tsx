// @vitest-environment happy-dom
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { z } from 'zod';
import { ApiError } from '../../api/client.ts';
import { Problem } from '../Field.tsx';
import { forgetKept, keepFor } from '../kept.ts';
import { unsaved } from '../unsaved.ts';
import { ChoiceOf, DayOf, TextEntry } from './entries.tsx';
import { isSpan, moneyTyped, NO_SPAN, spanTyped, wanted } from './typedSchemas.ts';
import { useTypedForm } from './useTypedForm.ts';

beforeEach(() => keepFor('P05'));
afterEach(() => {
  cleanup();
  forgetKept();
});

const SCHEMA = z
  .object({ purpose: wanted('Say what for.'), amount: moneyTyped('EUR'), kind: z.string(), ...spanTyped })
  .refine(isSpan, NO_SPAN);
type Typed = z.infer<typeof SCHEMA>;
const START: Typed = { purpose: '', amount: '', kind: 'b', from: '', to: '' };

function Form({ run }: { run: (typed: Typed) => Promise<unknown> }) {
  const { form, submit } = useTypedForm({ says: 'a form', schema: SCHEMA, start: START }, run);
  const { control, formState } = form;
  return (
    <form onSubmit={submit} noValidate>
      <TextEntry control={control} name="purpose" label="Purpose" />
      <TextEntry control={control} name="amount" label="Amount" decimal />
      <ChoiceOf
        control={control}
        name="kind"
        label="Kind"
        options={[
          { id: 'a', name: 'Anchor' },
          { id: 'b', name: 'Buoy' },
        ]}
      />
      <DayOf control={control} name="from" label="From" />
      <DayOf control={control} name="to" label="To" />
      <Problem says={formState.errors.root?.message ?? null} />
      <button>Send</button>
    </form>
  );
}
const show = (run: (typed: Typed) => Promise<unknown> = async () => undefined) =>
  render(
    <MemoryRouter>
      <Form run={run} />
    </MemoryRouter>,
  );
const field = (name: string) => screen.getByRole<HTMLInputElement>('textbox', { name });
const alerts = () => screen.queryAllByRole('alert').map((alert) => alert.textContent);
const heard = (name: string) => document.getElementById(field(name).getAttribute('aria-describedby')!)?.textContent;

describe('a form', () => {
  it('says what is wrong beside each field, told with it, and goes to the first; nothing is sent', async () => {
    const user = userEvent.setup();
    const run = vi.fn();
    show(run);
    await user.type(field('Amount'), 'many');
    await user.type(field('From'), '2026-11-05');
    await user.type(field('To'), '2026-11-01');
    await user.click(screen.getByRole('button', { name: 'Send' }));
    expect(alerts()).toHaveLength(3);
    expect(heard('Purpose')).toBe('Say what for.');
    expect(heard('To')).toBe('The last day is before the first.');
    expect(field('Amount').getAttribute('aria-invalid')).toBe('true');
    expect(document.activeElement).toBe(field('Purpose'));
    expect(run).not.toHaveBeenCalled();
  });

  it('sends what is typed, and keeps it on the device until then', async () => {
    const user = userEvent.setup();
    const run = vi.fn(async (_: Typed) => undefined);
    const { unmount } = show(run);
    await user.type(field('Purpose'), 'Terns');
    await user.type(field('Amount'), '12,50');
    unmount();
    show(run);
    expect([field('Purpose').value, field('Amount').value]).toEqual(['Terns', '12,50']);
    await user.selectOptions(screen.getByRole('combobox', { name: 'Kind' }), 'Anchor');
    await user.click(screen.getByRole('button', { name: 'Send' }));
    const sent = { ...START, purpose: 'Terns', amount: '12,50', kind: 'a' };
    expect(run.mock.calls.map(([typed]) => typed)).toEqual([sent]);
    cleanup();
    show(run);
    expect(field('Purpose').value).toBe('');
  });

  it('counts as not saved while something is typed in it, and does not hold back the act it is about', async () => {
    const user = userEvent.setup();
    show();
    await user.type(field('Purpose'), 'Terns');
    expect(unsaved().map(({ says, kept, show: goTo }) => [says, kept, goTo])).toEqual([['a form', true, undefined]]);
  });

  it('has what the server refuses at the field it names, and else at its foot', async () => {
    const user = userEvent.setup();
    const refusals = [
      new ApiError(400, { code: 'invalid', says: 'Purpose is too long.', numbers: { path: 'claim.purpose' } }),
      new ApiError(422, { code: 'closed', says: 'The month is closed.' }),
    ];
    show(() => Promise.reject(refusals.shift()!));
    await user.type(field('Purpose'), 'Terns');
    await user.type(field('Amount'), '5');
    await user.click(screen.getByRole('button', { name: 'Send' }));
    await vi.waitFor(() => expect(heard('Purpose')).toBe('Purpose is too long.'));
    expect(document.activeElement).toBe(field('Purpose'));
    await user.click(screen.getByRole('button', { name: 'Send' }));
    await vi.waitFor(() => expect(alerts()).toEqual(['The month is closed.']));
    expect(field('Purpose').value).toBe('Terns');
  });
});
