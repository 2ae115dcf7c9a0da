import { useNavigate } from 'react-router';
import { z } from 'zod';
import { ADVANCE_KINDS, type AdvanceKind } from '../../../core/advances/advance.schema.ts';
import { advances } from '../../api/advances.ts';
import { BeginDialog } from '../../parts/BeginDialog.tsx';
import { ChoiceOf, DayOf, TextEntry } from '../../parts/form/entries.tsx';
import { isSpan, moneyTyped, NO_SPAN, spanTyped, wanted } from '../../parts/form/typedSchemas.ts';
import { useTypedForm } from '../../parts/form/useTypedForm.ts';
import { readMoney } from '../../parts/readMoney.ts';
import { ADVANCE_KINDS_SAID } from '../../words/sayAdvance.ts';

const schemaOf = (currency: string) =>
  z
    .object({
      purpose: wanted('Say what the money is for.'),
      amount: moneyTyped(currency),
      kind: z.enum(ADVANCE_KINDS),
      ...spanTyped,
    })
    .refine(isSpan, NO_SPAN);
const START = { purpose: '', amount: '', kind: 'trip' as AdvanceKind, from: '', to: '' };
const KINDS = ADVANCE_KINDS.map((id) => ({ id, name: ADVANCE_KINDS_SAID[id] }));

/** Begins an advance: what for, how much, and when, if it is for a trip. */
export function BeginAdvance({ currency, onClose }: { currency: string; onClose: () => void }) {
  const navigate = useNavigate();
  const typed = useTypedForm({ says: 'new advance', schema: schemaOf(currency), start: START }, async (said) => {
    const money = readMoney(said.amount, currency);
    if (!money.ok) throw new Error(money.problem);
    const { number } = await advances.begin({
      kind: said.kind,
      purpose: said.purpose.trim(),
      amount: money.amount,
      currency: money.currency,
      from: said.from || null,
      to: said.to || null,
    });
    await navigate(`/advances/${number}`);
  });
  const { control, watch } = typed.form;
  const [kind, from, to] = watch(['kind', 'from', 'to']);
  return (
    <BeginDialog title="A new advance" typed={typed} onClose={onClose}>
      <TextEntry control={control} name="purpose" label="What the money is for" />
      <TextEntry
        control={control}
        name="amount"
        label="How much"
        placeholder={`300 ${currency}, or 60000 KES`}
        decimal
      />
      <ChoiceOf control={control} name="kind" label="Kind" options={KINDS} />
      {kind === 'trip' && (
        <div className="grid grid-cols-2 gap-3">
          <DayOf control={control} name="from" label="First day" other={to} />
          <DayOf control={control} name="to" label="Last day" other={from} />
        </div>
      )}
    </BeginDialog>
  );
}
