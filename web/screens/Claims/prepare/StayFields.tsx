import { addDays, daysBetween } from '../../../../core/numbers/isoDate.ts';
import type { StayDay } from '../../../../core/documents/allowance.schema.ts';
import { Cell } from '../../../parts/Cell.tsx';
import type { LineRowProps } from './lineRow.types.ts';

const MEALS = ['breakfast', 'lunch', 'dinner'] as const;
const MOST_DAYS = 60;

/** The days away of a line, each with where, what was provided and whether it was private; what they come to is computed. */
export function StayFields({ view, line, row, draft }: Pick<LineRowProps, 'view' | 'line' | 'row' | 'draft'>) {
  const days = line.stay ?? [];
  const save = (next: readonly StayDay[], done?: (error: Error | null) => void) =>
    draft.editLine(line.id, { stay: next.length > 0 ? [...next] : null }, done);
  const change = (index: number, set: Partial<StayDay>, done?: (error: Error | null) => void) =>
    save(
      days.map((day, i) => (i === index ? { ...day, ...set } : day)),
      done,
    );
  return (
    <div>
      {days.length > 0 && (
        <ul aria-label={`Days away of line ${line.id}`} className="mb-1">
          {days.map((day, i) => (
            <li key={day.date} className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-base-300 py-0.5">
              <span className="w-24 tabular-nums">{day.date}</span>
              <span className="w-14">
                <Cell
                  label={`Country on ${day.date}`}
                  row={row + i}
                  column="stay-country"
                  value={day.country}
                  problemOf={(typed) => (/^[a-z]{2}$/i.test(typed.trim()) ? null : 'Two letters.')}
                  onSave={(typed, done) => change(i, { country: typed.trim().toUpperCase() }, done)}
                />
              </span>
              <span className="w-28">
                <Cell
                  label={`Place on ${day.date}`}
                  row={row + i}
                  column="stay-place"
                  value={day.place ?? ''}
                  placeholder="place"
                  onSave={(typed, done) => change(i, { place: typed.trim() || null }, done)}
                />
              </span>
              {MEALS.map((meal) => (
                <Tick
                  key={meal}
                  label={meal}
                  on={day.provided?.includes(meal) ?? false}
                  aria={`${meal} provided on ${day.date}`}
                  onChange={(on) => change(i, { provided: withMeal(day, meal, on) })}
                />
              ))}
              <Tick
                label="private"
                on={day.private ?? false}
                aria={`${day.date} private`}
                onChange={(on) => change(i, { private: on })}
              />
            </li>
          ))}
        </ul>
      )}
      <div className="flex gap-4 text-sm">
        <button type="button" className="link" onClick={() => save(withNext(days, view, line.date))}>
          {days.length === 0 ? `Days ${sayTrip(view, line.date)}` : 'One day more'}
        </button>
        {days.length > 0 && (
          <button type="button" className="link" onClick={() => save(asEdges(days.slice(0, -1)))}>
            One day less
          </button>
        )}
        {days.length > 0 && <span className="quiet">Ticked meals were provided, so they are taken off.</span>}
      </div>
    </div>
  );
}

function withMeal({ provided }: StayDay, meal: (typeof MEALS)[number], on: boolean) {
  const rest = (provided ?? []).filter((m) => m !== meal);
  return on ? [...rest, meal] : rest;
}

/** The first and last day are counted apart. */
const asEdges = (days: readonly StayDay[]): StayDay[] =>
  days.map((day, i) => ({ ...day, edge: i === 0 || i === days.length - 1 }));

type View = LineRowProps['view'];
function tripOf({ claim }: View, date: string): { from: string; to: string } {
  const { tripFrom, tripTo } = claim;
  const fits = tripFrom && tripTo && daysBetween(tripFrom, tripTo) < MOST_DAYS;
  return fits ? { from: tripFrom, to: tripTo } : { from: date, to: date };
}
const sayTrip = (view: View, date: string): string => {
  const { from, to } = tripOf(view, date);
  return from === to ? `from ${from}` : `from ${from} to ${to}`;
};

/** The days of the trip to begin with; afterwards one more, where the last one was. */
function withNext(days: readonly StayDay[], view: View, date: string): StayDay[] {
  const last = days.at(-1);
  if (last)
    return asEdges([...days, { date: addDays(last.date, 1), country: last.country, place: last.place ?? null }]);
  const { from, to } = tripOf(view, date);
  const country = view.claim.country ?? view.document.lines.find((l) => l.country)?.country ?? view.claim.entity;
  return asEdges(Array.from({ length: daysBetween(from, to) + 1 }, (_, i) => ({ date: addDays(from, i), country })));
}

interface TickProps {
  label: string;
  aria: string;
  on: boolean;
  onChange: (on: boolean) => void;
}
const Tick = ({ label, aria, on, onChange }: TickProps) => (
  <label className="flex cursor-pointer items-center gap-1 text-sm">
    <input
      type="checkbox"
      className="checkbox checkbox-xs"
      aria-label={aria}
      checked={on}
      onChange={(e) => onChange(e.target.checked)}
    />
    {label}
  </label>
);
