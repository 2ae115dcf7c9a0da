import { zodResolver } from '@hookform/resolvers/zod';
import { useForm, useController, useWatch, type Control, type UseFormRegisterReturn } from 'react-hook-form';
import { FIELDS, type Field } from '../../../core/evidence/reading/reading.types.ts';
import { gather, type GatheredReceipt, type ReceiptsView } from '../../api/gather.ts';
import { useKeptForm } from '../../parts/form/keptForm.ts';
import { FIELD_NAMES } from '../../parts/spots.ts';
import { todayHere } from '../../parts/today.ts';
import { confirmationOf, surenessOf, typedOf, typedSchema, type Typed } from './facts.ts';
import { TaxFields } from './TaxFields.tsx';
import { DayField } from '../../parts/days/DayField.tsx';

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

/**
 * What was read, to be confirmed or put right; the field that is looked at is marked on the page. It can be filled in while
 * the file is still being read: what was typed stays, the rest is filled in when the reading comes.
 */
export function ReceiptForm({ receipt, onFocus, onDone, onFail }: ReceiptFormProps) {
  const unread = receipt.state === 'waiting' && !receipt.confirmed;
  const form = useForm<Typed>({
    defaultValues: typedOf(receipt),
    // What stands there stays while the file is read, or read again.
    ...(unread ? {} : { values: typedOf(receipt) }),
    resetOptions: { keepDirtyValues: true },
    resolver: zodResolver(typedSchema(todayHere())),
    mode: 'onChange',
  });
  const { register, control, handleSubmit, formState } = form;
  const { errors, isSubmitting, isDirty } = formState;
  const forget = useKeptForm(form, receipt.name, isDirty);
  const locked = receipt.usedOn.some((use) => use.state !== 'draft' && use.state !== 'returned');
  const submit = handleSubmit((typed) =>
    gather.confirm(receipt.id, confirmationOf(receipt, typed)).then((answer) => {
      forget();
      onDone(answer);
    }, onFail),
  );
  return (
    <form
      aria-label="What the receipt shows"
      className="grid gap-x-4 gap-y-2 p-4 sm:grid-cols-2"
      noValidate
      onSubmit={(e) => void submit(e)}
    >
      {FIELDS.map((field) => (
        <ReadField
          key={field}
          field={field}
          receipt={receipt}
          control={control}
          entry={register(field)}
          fault={errors[field]?.message}
          locked={locked}
          onFocus={() => onFocus(field)}
        />
      ))}
      <TaxFields control={control} register={register} errors={errors.taxes} locked={locked} />
      <Foot receipt={receipt} locked={locked} busy={isSubmitting} />
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
  control: Control<Typed>;
  entry: UseFormRegisterReturn;
  fault: string | undefined;
  locked: boolean;
  onFocus: () => void;
}

/** One fact of a receipt: what is typed, how sure the reading is of it, and what is wrong with it. */
function ReadField({ field, receipt, control, entry, fault, locked, onFocus }: ReadFieldProps) {
  const value = useWatch({ control, name: field });
  return (
    <label className="block text-sm">
      <FieldName
        name={FIELD_NAMES[field]}
        sure={surenessOf(receipt, field, value)}
        because={receipt.reading?.[field]?.because}
      />
      {field === 'date' ? (
        <ReadDay control={control} fault={fault} locked={locked} onFocus={onFocus} />
      ) : (
        <input
          className={`input input-sm w-full ${field === 'amount' ? 'text-right tabular-nums' : ''} ${fault ? 'input-error' : ''}`}
          inputMode={field === 'amount' ? 'decimal' : field === 'cardDigits' ? 'numeric' : 'text'}
          disabled={locked}
          aria-invalid={fault !== undefined}
          onFocus={onFocus}
          {...entry}
        />
      )}
      {fault && <span className="text-error">{fault}</span>}
    </label>
  );
}

function ReadDay({
  control,
  fault,
  locked,
  onFocus,
}: Pick<ReadFieldProps, 'control' | 'fault' | 'locked' | 'onFocus'>) {
  const { field } = useController({ control, name: 'date', disabled: locked });
  return (
    <DayField
      {...field}
      className={`input input-sm w-full ${fault ? 'input-error' : ''}`}
      aria-invalid={fault !== undefined}
      onFocus={onFocus}
    />
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
