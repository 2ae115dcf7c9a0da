import { useState } from 'react';
import { Cell, type CellProps } from '../Cell.tsx';
import { DayPick } from './DayPick.tsx';
import { dayTyped } from './DayField.tsx';
import { problemOfDay } from './readDay.ts';

/** A cell that holds a day: typed in any usual order, or chosen from a month; saved as ISO 8601, and empty where it may be. */
export function DayCell({ value, problemOf, onSave, ...cell }: Omit<CellProps, 'beside' | 'align' | 'onOpen'>) {
  const [open, setOpen] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const problemOfTyped = (typed: string) => {
    const day = dayTyped(typed);
    return problemOfDay(day, {}) ?? problemOf?.(day!) ?? null;
  };
  const pick = (day: string) => {
    const wrong = problemOf?.(day) ?? null;
    setProblem(wrong);
    if (wrong === null && day !== value) onSave(day, (error) => setProblem(error?.message ?? null));
  };
  return (
    <>
      <Cell
        {...cell}
        value={value}
        problemOf={problemOfTyped}
        onSave={(typed, done) => onSave(dayTyped(typed)!, done)}
        onOpen={() => setOpen(true)}
        beside={<DayPick open={open} onOpen={setOpen} value={value} onPick={pick} />}
      />
      {problem && (
        <span role="alert" className="block px-1 text-xs text-error">
          {problem}
        </span>
      )}
    </>
  );
}
