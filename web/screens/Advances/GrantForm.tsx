import { z } from 'zod';
import type { AdvanceAnswer } from '../../api/advances.ts';
import { Problem } from '../../parts/Field.tsx';
import { DayOf, TextEntry } from '../../parts/form/entries.tsx';
import { moneyTyped, wanted } from '../../parts/form/typedSchemas.ts';
import { useTypedForm } from '../../parts/form/useTypedForm.ts';
import { readMoney } from '../../parts/readMoney.ts';
import { FormButtons } from './FormButtons.tsx';

interface GrantFormProps {
  view: AdvanceAnswer;
  onClose: () => void;
  onGrant: (grant: { amount?: string; dueBy: string; reason?: string }) => Promise<unknown>;
}

/** What is granted where it is less than what is asked for, as it is sent; null where it is all of it, or no amount yet. */
function lessOf({ requested, currency }: AdvanceAnswer['advance'], typed: string): string | null {
  const money = readMoney(typed, currency);
  return money.ok && money.amount !== requested ? money.amount : null;
}

function schemaOf({ advance, problems }: AdvanceAnswer) {
  const { currency, exception } = advance;
  return z
    .object({
      amount: moneyTyped(currency).refine((typed) => {
        const money = readMoney(typed, currency);
        return !money.ok || money.currency === currency;
      }, `It was asked for in ${currency}.`),
      dueBy: wanted('Set the day by which it is to be accounted for.'),
      reason: z.string(),
    })
    .superRefine(({ amount, reason }, context) => {
      const less = lessOf(advance, amount) !== null;
      const unusual = problems.length > 0 && !exception;
      if (reason.trim() !== '' || !(less || unusual)) return;
      const message = less ? 'Say why it is less.' : 'Say why there is an exception.';
      context.addIssue({ code: 'custom', path: ['reason'], message });
    });
}

/** What a reviewer grants: all that is asked for or less, and the day by which it is accounted for. */
export function GrantForm({ view, onClose, onGrant }: GrantFormProps) {
  const { advance, problems } = view;
  const start = { amount: advance.amount, dueBy: advance.dueBy ?? advance.proposedDue, reason: '' };
  const typed = useTypedForm({ says: 'grant', schema: schemaOf(view), start }, (said) => {
    const [amount, reason] = [lessOf(advance, said.amount), said.reason.trim()];
    return onGrant({ dueBy: said.dueBy, ...(amount ? { amount } : {}), ...(reason ? { reason } : {}) });
  });
  const { control, watch, formState } = typed.form;
  const [amount, reason] = watch(['amount', 'reason']);
  const less = lessOf(advance, amount) !== null;
  const asksWhy = less || reason !== '' || (problems.length > 0 && !advance.exception);
  return (
    <form onSubmit={typed.submit} className="mt-3 border-t border-base-300 pt-1" noValidate>
      <div className="grid gap-x-3 sm:grid-cols-2">
        <TextEntry control={control} name="amount" label={`Granted, in ${advance.currency}`} decimal />
        <DayOf control={control} name="dueBy" label="To be accounted for by" />
      </div>
      {asksWhy && (
        <TextEntry control={control} name="reason" label={less ? 'Why it is less' : 'Why there is an exception'} />
      )}
      <Problem says={formState.errors.root?.message ?? null} />
      <FormButtons act="Grant" onClose={() => (typed.forget(), onClose())} />
    </form>
  );
}
