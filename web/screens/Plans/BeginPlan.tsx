import { useNavigate } from 'react-router';
import { z } from 'zod';
import { plans, useTemplates } from '../../api/plans.ts';
import { useSession } from '../../api/session.ts';
import { BeginDialog } from '../../parts/BeginDialog.tsx';
import { ChoiceOf, DayOf, TextEntry } from '../../parts/form/entries.tsx';
import { countryTyped, isSpan, NO_SPAN, spanTyped, wanted } from '../../parts/form/typedSchemas.ts';
import { useTypedForm } from '../../parts/form/useTypedForm.ts';
import { PayeeChoice } from '../../parts/PayeeChoice.tsx';

const SCHEMA = z
  .object({
    purpose: wanted('Say what the trip is for.'),
    kind: z.string(),
    country: countryTyped,
    place: z.string(),
    ...spanTyped,
    claimant: z.string(),
  })
  .refine(isSpan, NO_SPAN);
const START = { purpose: '', kind: '', country: '', place: '', from: '', to: '', claimant: '' };

/** Begins a plan: what for, of which kind, where and when; its kind says with which estimates. */
export function BeginPlan({ onClose }: { onClose: () => void }) {
  const templates = useTemplates().data?.templates ?? [];
  const self = useSession().data?.person?.id ?? '';
  const navigate = useNavigate();
  const typed = useTypedForm({ says: 'new plan', schema: SCHEMA, start: START }, async (said) => {
    const { number } = await plans.begin({
      kind: said.kind || templates[0]!.id,
      purpose: said.purpose.trim(),
      country: said.country.trim().toUpperCase() || null,
      place: said.place.trim() || null,
      from: said.from || null,
      to: said.to || null,
      ...(said.claimant && said.claimant !== self ? { claimant: said.claimant } : {}),
    });
    await navigate(`/plans/${number}`);
  });
  const { control, watch, setValue } = typed.form;
  const [from, to, claimant] = watch(['from', 'to', 'claimant']);
  return (
    <BeginDialog title="A new plan" typed={typed} onClose={onClose}>
      <TextEntry control={control} name="purpose" label="What the trip is for" />
      <ChoiceOf control={control} name="kind" label="Kind of trip" options={templates} />
      <div className="grid grid-cols-[6rem_1fr] gap-3">
        <TextEntry control={control} name="country" label="Country" placeholder="PT" />
        <TextEntry control={control} name="place" label="City or place" />
      </div>
      <div className="grid grid-cols-2 gap-3">
        <DayOf control={control} name="from" label="First day" other={to} />
        <DayOf control={control} name="to" label="Last day" other={from} />
      </div>
      <PayeeChoice value={claimant || self} onChange={(id) => setValue('claimant', id, { shouldDirty: true })} />
    </BeginDialog>
  );
}
