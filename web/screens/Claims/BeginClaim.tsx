import { Link, useNavigate } from 'react-router';
import { z } from 'zod';
import { drafts, useBeginnings, type Beginnings } from '../../api/drafts.ts';
import { plans } from '../../api/plans.ts';
import { useSession } from '../../api/session.ts';
import { BeginDialog } from '../../parts/BeginDialog.tsx';
import { DayOf, TextEntry } from '../../parts/form/entries.tsx';
import { isSpan, NO_SPAN, spanTyped } from '../../parts/form/typedSchemas.ts';
import { useTypedForm } from '../../parts/form/useTypedForm.ts';
import { PayeeChoice } from '../../parts/PayeeChoice.tsx';

const SCHEMA = z
  .object({
    purpose: z.string(),
    ...spanTyped,
    payee: z.string(),
    source: z.string(),
    place: z.string(),
    currency: z.string(),
  })
  .refine(isSpan, NO_SPAN)
  .refine(({ purpose, source }) => source.startsWith('plan ') || purpose.trim() !== '', {
    path: ['purpose'],
    message: 'Say what the claim is for.',
  });
type Typed = z.infer<typeof SCHEMA>;
const START: Typed = { purpose: '', from: '', to: '', payee: '', source: '', place: '', currency: '' };

/** Begins a claim: from nothing, from an approved plan, or as a copy; what it is for, and, of a trip, its days. */
export function BeginClaim({ onClose }: { onClose: () => void }) {
  const self = useSession().data?.person?.id ?? '';
  const navigate = useNavigate();
  const typed = useTypedForm({ says: 'new claim', schema: SCHEMA, start: START }, async (said) => {
    await navigate(`/claims/${(await begin(said, self)).number}`);
  });
  const { control, watch, setValue, getValues } = typed.form;
  const said = watch();
  const payee = said.payee || self;
  const from = useBeginnings(payee).data ?? NOTHING_YET;
  const set = (fields: Partial<Typed>) => {
    for (const [field, value] of Object.entries(fields)) setValue(field as keyof Typed, value, { shouldDirty: true });
  };
  const isPlanned = said.source.startsWith('plan ');
  return (
    <BeginDialog title="A new claim" typed={typed} onClose={onClose}>
      <PayeeChoice value={payee} onChange={(next) => set({ ...START, purpose: getValues('purpose'), payee: next })} />
      <SourceChoice from={from} value={said.source} onChange={(source) => set(startOf(source, from, said))} />
      {!isPlanned && (
        <>
          <TextEntry control={control} name="purpose" label="What it is for" />
          <div className="grid grid-cols-2 gap-3">
            <DayOf control={control} name="from" label="First day, of a trip" other={said.to} />
            <DayOf control={control} name="to" label="Last day" other={said.from} />
          </div>
          {said.source !== '' && (
            <p className="quiet mt-1 text-sm">
              Its lines move with the first day. What came from a card or was private is not copied, nor are receipts.
            </p>
          )}
          <PaidWhere payable={from.payable} typed={said} onChange={set} />
        </>
      )}
    </BeginDialog>
  );
}

const NOTHING_YET: Beginnings = { payable: [], plans: [], claims: [] };

function begin(said: Typed, self: string): Promise<{ number: string }> {
  const [kind, number, revision] = said.source.split(' ');
  if (kind === 'plan' && number) return plans.claim(number, Number(revision));
  const payee = said.payee || self;
  return drafts.begin({
    purpose: said.purpose.trim(),
    tripFrom: said.from || null,
    tripTo: said.to || null,
    ...(kind === 'claim' && number ? { copyOf: number } : {}),
    ...(payee !== self ? { claimant: payee } : {}),
    ...(said.place ? { entity: said.place } : {}),
    ...(said.currency ? { currency: said.currency } : {}),
  });
}

/** A copy begins with the purpose of what it is a copy of, where nothing else was typed. */
function startOf(source: string, from: Beginnings, typed: Typed): Partial<Typed> {
  const copied = from.claims.find((c) => `claim ${c.number}` === source);
  return { source, ...(copied && !typed.purpose ? { purpose: copied.purpose } : {}) };
}

interface SourceChoiceProps {
  from: Beginnings;
  value: string;
  onChange: (source: string) => void;
}

function SourceChoice({ from, value, onChange }: SourceChoiceProps) {
  return (
    <label className="mt-2 block">
      <span className="mb-1 flex justify-between font-medium">
        Begin with
        <Link className="link text-sm font-normal" to="/gather">
          or from receipts and charges
        </Link>
      </span>
      <select
        className="select w-full"
        aria-label="Begin with"
        value={value}
        onChange={(e) => onChange(e.target.value)}
      >
        <option value="">nothing</option>
        {from.plans.map((p) => (
          <option key={p.number} value={`plan ${p.number} ${p.revision}`}>
            plan {p.number}, {p.purpose}
          </option>
        ))}
        {from.claims.map((c) => (
          <option key={c.number} value={`claim ${c.number}`}>
            a copy of {c.number}, {c.purpose}
          </option>
        ))}
      </select>
    </label>
  );
}

interface PaidWhereProps {
  payable: Beginnings['payable'];
  typed: Typed;
  onChange: (fields: Partial<Typed>) => void;
}

/** By which entity and in which currency, for a person who has a choice. */
function PaidWhere({ payable, typed, onChange }: PaidWhereProps) {
  const there = payable.find((p) => p.entity === typed.place) ?? payable[0];
  if (!there || (payable.length < 2 && there.currencies.length < 2)) return null;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_8rem] gap-3">
      <label className="mt-2 block">
        <span className="mb-1 block font-medium">Paid by</span>
        <select
          className="select w-full"
          aria-label="Paid by"
          value={there.entity}
          onChange={(e) => onChange({ place: e.target.value, currency: '' })}
        >
          {payable.map((p) => (
            <option key={p.entity} value={p.entity}>
              {p.name}
            </option>
          ))}
        </select>
      </label>
      <label className="mt-2 block">
        <span className="mb-1 block font-medium">In</span>
        <select
          className="select w-full"
          aria-label="Currency"
          value={typed.currency || there.currencies[0]}
          onChange={(e) => onChange({ currency: e.target.value })}
        >
          {there.currencies.map((currency) => (
            <option key={currency}>{currency}</option>
          ))}
        </select>
      </label>
    </div>
  );
}
