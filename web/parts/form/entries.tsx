import { useId, type ReactNode } from 'react';
import { useController, type Control, type FieldValues, type Path } from 'react-hook-form';
import { DayField } from '../days/DayField.tsx';
import { Problem } from '../Field.tsx';

export interface EntryOf<T extends FieldValues> {
  control: Control<T>;
  name: Path<T>;
  label: string;
}

/** What an entry has in common: its name, and what is wrong with it beside it, told with it. */
function useEntryOf<T extends FieldValues>({ control, name }: EntryOf<T>) {
  const { field, fieldState } = useController({ control, name });
  const id = useId();
  const says = fieldState.error?.message ?? null;
  return { says, id, entry: { ...field, 'aria-invalid': says !== null, ...(says && { 'aria-describedby': id }) } };
}

interface LabelledProps {
  label: string;
  id: string;
  says: string | null;
  children: ReactNode;
}
const Labelled = ({ label, id, says, children }: LabelledProps) => (
  <div className="mt-2">
    <label className="block">
      <span className="mb-1 block font-medium">{label}</span>
      {children}
    </label>
    <Problem id={id} says={says} />
  </div>
);

/** Words or a figure, typed. */
export function TextEntry<T extends FieldValues>(props: EntryOf<T> & { placeholder?: string; decimal?: boolean }) {
  const { entry, ...said } = useEntryOf(props);
  return (
    <Labelled label={props.label} {...said}>
      <input
        type="text"
        className="input w-full"
        placeholder={props.placeholder}
        inputMode={props.decimal ? 'decimal' : undefined}
        {...entry}
      />
    </Labelled>
  );
}

/** A day; `other` is the other end of a span. */
export function DayOf<T extends FieldValues>({ other, ...props }: EntryOf<T> & { other?: string }) {
  const { entry, ...said } = useEntryOf(props);
  return (
    <Labelled label={props.label} {...said}>
      <DayField className="input w-full" other={other} {...entry} />
    </Labelled>
  );
}

interface Named {
  id: string;
  name: string;
}
/** One of some named things. */
export function ChoiceOf<T extends FieldValues>({ options, ...props }: EntryOf<T> & { options: readonly Named[] }) {
  const { entry, ...said } = useEntryOf(props);
  return (
    <Labelled label={props.label} {...said}>
      <select className="select w-full pr-9 text-ellipsis" {...entry}>
        {options.map((o) => (
          <option key={o.id} value={o.id}>
            {o.name}
          </option>
        ))}
      </select>
    </Labelled>
  );
}
