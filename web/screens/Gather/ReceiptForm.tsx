import { useState } from 'react';
import { FIELDS, type Field } from '../../../core/evidence/reading/reading.types.ts';
import { gather, type GatheredReceipt, type ReceiptsView } from '../../api/gather.ts';
import { FIELD_NAMES } from '../../parts/spots.ts';
import { groupDigits } from '../../parts/Money.tsx';
import { confirmationOf, faultOf, surenessOf, typedOf } from './facts.ts';

interface ReceiptFormProps {
  receipt: GatheredReceipt;
  onFocus: (field: Field | null) => void;
  onDone: (answer: ReceiptsView) => void;
  onFail: (error: unknown) => void;
}

const SURE_WORDS = {
  sure: 'read, sure',
  likely: 'read, likely',
  doubtful: 'read, doubtful',
  'by you': 'by you',
  'not found': 'not found',
} as const;

/** What was read, to be confirmed or put right; the field that is looked at is marked on the page. */
export function ReceiptForm({ receipt, onFocus, onDone, onFail }: ReceiptFormProps) {
  const [typed, setTyped] = useState(() => typedOf(receipt));
  const [tried, setTried] = useState(false);
  const [busy, setBusy] = useState(false);
  const locked = receipt.usedOn.some((use) => use.state !== 'draft' && use.state !== 'returned');
  const submit = async () => {
    setTried(true);
    const facts = confirmationOf(receipt, typed);
    if (!facts) return;
    setBusy(true);
    await gather.confirm(receipt.id, facts).then(onDone, onFail);
    setBusy(false);
  };
  return (
    <form
      aria-label="What the receipt shows"
      className="grid gap-x-4 gap-y-2 p-4 sm:grid-cols-2"
      onSubmit={(e) => {
        e.preventDefault();
        void submit();
      }}
    >
      {FIELDS.map((field) => (
        <ReadField
          key={field}
          field={field}
          receipt={receipt}
          typed={typed}
          fault={tried || typed[field] !== '' ? faultOf(field, typed) : null}
          locked={locked}
          onFocus={() => onFocus(field)}
          onChange={(text) => setTyped({ ...typed, [field]: text })}
        />
      ))}
      <Taxes receipt={receipt} />
      <Foot receipt={receipt} locked={locked} busy={busy} />
    </form>
  );
}

function Foot({ receipt, locked, busy }: { receipt: GatheredReceipt; locked: boolean; busy: boolean }) {
  return (
    <div className="flex items-center gap-2 sm:col-span-2">
      {locked ? (
        <p className="quiet text-sm">
          It belongs to claim {receipt.usedOn[0]!.claim}, which is {receipt.usedOn[0]!.state}, and stays as it is.
        </p>
      ) : (
        <button className="btn btn-primary btn-sm" disabled={busy}>
          {receipt.confirmed ? 'Save' : 'Confirm'}
        </button>
      )}
    </div>
  );
}

interface ReadFieldProps {
  field: Field;
  receipt: GatheredReceipt;
  typed: ReturnType<typeof typedOf>;
  fault: string | null;
  locked: boolean;
  onFocus: () => void;
  onChange: (text: string) => void;
}

/** One fact of a receipt: what is typed, how sure the reading is of it, and what is wrong with it. */
function ReadField({ field, receipt, typed, fault, locked, onFocus, onChange }: ReadFieldProps) {
  const sure = surenessOf(receipt, field, typed);
  return (
    <label className="block text-sm">
      <FieldName name={FIELD_NAMES[field]} sure={sure} because={receipt.reading?.[field]?.because} />
      <input
        className={`input input-sm w-full ${field === 'amount' ? 'text-right tabular-nums' : ''} ${fault ? 'input-error' : ''}`}
        type={field === 'date' ? 'date' : 'text'}
        inputMode={field === 'amount' ? 'decimal' : field === 'cardDigits' ? 'numeric' : 'text'}
        value={typed[field]}
        disabled={locked}
        aria-invalid={fault !== null}
        onFocus={onFocus}
        onChange={(e) => onChange(e.target.value)}
      />
      {fault && <span className="text-error">{fault}</span>}
    </label>
  );
}

interface FieldNameProps {
  name: string;
  sure: keyof typeof SURE_WORDS;
  because: string | undefined;
}

function FieldName({ name, sure, because }: FieldNameProps) {
  return (
    <span className="flex justify-between">
      <span>{name}</span>
      <span className={sure === 'doubtful' || sure === 'likely' ? 'text-warning' : 'quiet'} title={because}>
        {SURE_WORDS[sure]}
      </span>
    </span>
  );
}

function Taxes({ receipt }: { receipt: GatheredReceipt }) {
  const taxes = receipt.confirmed?.taxes ?? receipt.reading?.taxes ?? [];
  if (taxes.length === 0) return null;
  return (
    <p className="quiet text-sm sm:col-span-2">
      Taxes read:{' '}
      {taxes.map((t, i) => (
        <span key={i}>
          {i > 0 && '; '}
          {t.rate} %{t.base && ` on ${groupDigits(t.base)}`}
          {t.tax && ` = ${groupDigits(t.tax)}`}
        </span>
      ))}
    </p>
  );
}
