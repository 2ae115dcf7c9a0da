import { useState, type ComponentProps, type KeyboardEvent } from 'react';
import { DayPick } from './DayPick.tsx';
import { isDayFirst, problemOfDay, readDay } from './readDay.ts';

interface DayFieldProps extends Omit<ComponentProps<'input'>, 'value' | 'onChange' | 'min' | 'max' | 'type'> {
  /** ISO 8601, or empty. */
  value: string;
  min?: string | undefined;
  max?: string | undefined;
  /** The other end of a range this day begins or ends. */
  other?: string | undefined;
  /** Told of each day, and of an empty one where what is typed is none. */
  onChange: (day: string) => void;
}

/** What is typed as a day, by the order the browser's language writes it in; null where it is none. */
export const dayTyped = (typed: string): string | null =>
  typed.trim() === '' ? '' : readDay(typed, new Date(), isDayFirst(navigator.language));

const ISO = /^\d{4}-\d{2}-\d{2}$/;

/** A day, typed in any usual order or chosen from a month, and written as everywhere on the page. */
export function DayField({ value, min, max, other, onChange, onBlur, onKeyDown, className, ...input }: DayFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [open, setOpen] = useState(false);
  const [left, setLeft] = useState(false);
  const day = typed === null ? value : dayTyped(typed);
  const problem = left || typed === null ? problemOfDay(day, { min, max }) : null;
  const type = (text: string) => {
    setTyped(text);
    setLeft(false);
    // half of a day in another order may be another day: it is told of when the field is left
    if (ISO.test(text) || text.trim() === '') onChange(dayTyped(text) ?? '');
  };
  const leave = () => {
    if (typed === null) return;
    if (day === null) setLeft(true);
    else setTyped(null);
    onChange(day ?? '');
  };
  const press = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Enter' && typed !== null && typed !== value) {
      // a form is sent with the day; a row around it is told of the day first, and goes on at the next Enter
      event.stopPropagation();
      if (day === null) event.preventDefault();
      return leave();
    }
    if (event.key === 'ArrowDown' && (event.altKey || typed === null)) {
      event.preventDefault();
      setOpen(true);
    }
    onKeyDown?.(event);
  };
  return (
    <span className="day-field">
      <input
        {...input}
        type="text"
        autoComplete="off"
        aria-invalid={problem !== null || input['aria-invalid'] === true}
        className={className ?? 'input input-sm w-36'}
        value={typed ?? value}
        onChange={(e) => type(e.target.value)}
        onKeyDown={press}
        onBlur={(e) => {
          leave();
          onBlur?.(e);
        }}
      />
      {!input.disabled && (
        <DayPick
          open={open}
          onOpen={setOpen}
          value={day ?? ''}
          min={min}
          max={max}
          other={other}
          onPick={(picked) => {
            setTyped(null);
            setLeft(false);
            onChange(picked);
          }}
        />
      )}
      {problem && (
        <span role="alert" className="block text-xs text-error">
          {problem}
        </span>
      )}
    </span>
  );
}
