import { Plus } from 'lucide-react';
import { useFieldArray, type Control, type FieldErrors, type UseFormRegister } from 'react-hook-form';
import { RemoveButton } from '../../parts/RemoveButton.tsx';
import type { Typed, TypedTax } from './facts.ts';

interface TaxFieldsProps {
  control: Control<Typed>;
  register: UseFormRegister<Typed>;
  errors: FieldErrors<Typed>['taxes'];
  locked: boolean;
}
const COLUMNS: readonly [keyof TypedTax, string][] = [
  ['rate', 'Rate in %'],
  ['base', 'Base'],
  ['tax', 'Tax'],
];
const MOST = 10;

/** The taxes of a receipt by rate: what was read can be put right, others added, wrong ones taken out. */
export function TaxFields({ control, register, errors, locked }: TaxFieldsProps) {
  const { fields, append, remove } = useFieldArray({ control, name: 'taxes' });
  return (
    <fieldset className="sm:col-span-2" disabled={locked}>
      <legend className="flex w-full items-center justify-between text-sm">
        Taxes
        {!locked && fields.length < MOST && (
          <button type="button" className="btn btn-xs" onClick={() => append({ rate: '', base: '', tax: '' })}>
            <Plus size={13} /> Add a tax
          </button>
        )}
      </legend>
      {fields.length > 0 && (
        <div aria-hidden className="quiet grid grid-cols-[5rem_1fr_1fr_2rem] gap-2 text-xs">
          {COLUMNS.map(([, name]) => (
            <span key={name}>{name}</span>
          ))}
        </div>
      )}
      {fields.map((row, i) => (
        <div key={row.id} className="mb-1 grid grid-cols-[5rem_1fr_1fr_2rem] gap-2">
          {COLUMNS.map(([field, name]) => (
            <TaxField
              key={field}
              label={`${name}, tax ${i + 1}`}
              entry={register(`taxes.${i}.${field}`)}
              fault={errors?.[i]?.[field]?.message}
            />
          ))}
          {!locked && <RemoveButton what={`tax ${i + 1}`} onRemove={() => remove(i)} />}
        </div>
      ))}
      {errors?.root && <p className="text-sm text-error">{errors.root.message}</p>}
    </fieldset>
  );
}

interface TaxFieldProps {
  label: string;
  entry: ReturnType<UseFormRegister<Typed>>;
  fault: string | undefined;
}

const TaxField = ({ label, entry, fault }: TaxFieldProps) => (
  <span>
    <input
      className={`input input-sm w-full text-right tabular-nums ${fault ? 'input-error' : ''}`}
      aria-label={label}
      inputMode="decimal"
      aria-invalid={fault !== undefined}
      {...entry}
    />
    {fault && <span className="text-sm text-error">{fault}</span>}
  </span>
);
