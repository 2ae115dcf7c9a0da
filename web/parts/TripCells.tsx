import type { ReactNode } from 'react';
import { Cell } from './Cell.tsx';
import { DayCell } from './days/DayCell.tsx';
import { longerThan, problemOfCountry, problemOfPurpose } from './cellProblems.ts';

type Done = (error: Error | null) => void;

/** A cell of a record's header under its name. */
export const Named = ({ head, children }: { head: string; children: ReactNode }) => (
  <div>
    <span className="quiet block px-1 text-xs">{head}</span>
    {children}
  </div>
);

interface HeaderCellProps {
  head: string;
  label: string;
  value: string | null;
  placeholder?: string;
  problemOf: (typed: string) => string | null;
  onSave: (typed: string, done: Done) => void;
}
export const HeaderCell = ({ head, value, ...cell }: HeaderCellProps) => (
  <Named head={head}>
    <Cell {...cell} row={-1} column={head} value={value ?? ''} />
  </Named>
);
/** As `HeaderCell`, of a day; an empty one is none. */
export const HeaderDay = ({ head, value, ...cell }: HeaderCellProps) => (
  <Named head={head}>
    <DayCell {...cell} row={-1} column={head} value={value ?? ''} />
  </Named>
);

/** What a plan and a claim say of a trip. */
export interface TripSaid {
  purpose: string;
  country: string | null;
  place: string | null;
  from: string | null;
  to: string | null;
}
interface TripCellsProps {
  of: 'trip' | 'claim';
  said: TripSaid;
  onSave: SaveTrip;
}
/** One field at a time, as it is left; an empty one is null, which the purpose is not. */
export type SaveTrip = (set: Partial<TripSaid>, done: Done) => void;

/** The days of a trip in words. Example: "2026-11-02 to 2026-11-29". */
export const sayTrip = (from: string | null, to: string | null): string =>
  [...new Set([from, to].filter(Boolean))].join(' to ');

/** What it is for, as the title of the page. */
export const PurposeCell = ({ of, said, onSave }: TripCellsProps) => (
  <Cell
    row={-1}
    column="purpose"
    label={`What the ${of} is for`}
    value={said.purpose}
    problemOf={problemOfPurpose(of)}
    onSave={(typed, done) => onSave({ purpose: typed.trim() }, done)}
  />
);

/** Where and when, each saved as it is left. */
export function TripCells({ of, said, onSave }: TripCellsProps) {
  const { country, place, from, to } = said;
  const day = (field: 'from' | 'to') => (typed: string, done: Done) => onSave({ [field]: typed || null }, done);
  return (
    <div className="grid gap-x-3 sm:grid-cols-[5rem_minmax(0,1fr)_10rem_10rem]">
      <HeaderCell
        head="Country"
        label={`Country of the ${of}`}
        value={country}
        placeholder="IE"
        problemOf={problemOfCountry}
        onSave={(typed, done) => onSave({ country: typed.trim().toUpperCase() || null }, done)}
      />
      <HeaderCell
        head="City or place"
        label={`Place of the ${of}`}
        value={place}
        problemOf={longerThan(120)}
        onSave={(typed, done) => onSave({ place: typed.trim() || null }, done)}
      />
      <HeaderDay
        head="From"
        label="First day"
        value={from}
        problemOf={(typed) => (typed && to && typed > to ? 'It is after the last day.' : null)}
        onSave={day('from')}
      />
      <HeaderDay
        head="To"
        label="Last day"
        value={to}
        problemOf={(typed) => (typed && from && typed < from ? 'It is before the first day.' : null)}
        onSave={day('to')}
      />
    </div>
  );
}
