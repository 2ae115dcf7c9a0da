import { SHORTEST_PASSWORD } from '../../contract/session.ts';

interface FieldProps {
  id: string;
  label: string;
  type?: 'text' | 'email' | 'password';
  complete: string;
  hint?: string;
  first?: boolean;
  digits?: boolean;
  value: string;
  onChange: (value: string) => void;
}

/** A labelled entry of a short form. */
export function Field({
  id,
  label,
  type = 'text',
  complete,
  hint,
  first = false,
  digits = false,
  ...rest
}: FieldProps) {
  const { value, onChange } = rest;
  return (
    <>
      <label className="mb-1 block font-medium" htmlFor={id}>
        {label}
      </label>
      <input
        id={id}
        className={`input w-full ${hint ? 'mb-1' : 'mb-3'} ${digits ? 'font-mono tracking-widest' : ''}`}
        type={type}
        required
        autoFocus={first}
        autoComplete={complete}
        inputMode={digits ? 'numeric' : undefined}
        aria-describedby={hint ? `${id}-hint` : undefined}
        value={value}
        onChange={(e) => onChange(e.target.value)}
      />
      {hint && (
        <p id={`${id}-hint`} className="quiet mb-3 text-sm">
          {hint}
        </p>
      )}
    </>
  );
}

/** A password that is to be, with what makes a good one. */
export const NewPasswordField = (rest: Pick<FieldProps, 'first' | 'value' | 'onChange'>) => (
  <Field
    id="new"
    label="New password"
    type="password"
    complete="new-password"
    hint={`At least ${SHORTEST_PASSWORD} characters. Several words are easy to remember.`}
    {...rest}
  />
);

/** What went wrong with a form, said where it is. */
export const Problem = ({ says, id }: { says: string | null; id?: string }) =>
  says ? (
    <p role="alert" id={id} className="mt-1 text-error">
      {says}
    </p>
  ) : null;
