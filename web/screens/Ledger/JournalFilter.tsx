import type { JournalWishes } from '../../api/journals.ts';
import { DayField } from '../../parts/days/DayField.tsx';

interface JournalFilterProps {
  wishes: JournalWishes;
  entities: readonly string[];
  onChange: (wishes: JournalWishes) => void;
}

export const NO_WISHES: JournalWishes = { entity: '', from: '', to: '', q: '', state: '', order: 'posted' };

const STATES = [
  ['', 'all journals'],
  ['standing', 'standing'],
  ['reversed', 'reversed'],
  ['reversals', 'reversals'],
] as const;
const ORDERS = [
  ['posted', 'last posted first'],
  ['date', 'by date'],
] as const;

/** Which journals are shown, and in which order. */
export function JournalFilter({ wishes, entities, onChange }: JournalFilterProps) {
  const set = (field: keyof JournalWishes) => (e: { target: { value: string } }) =>
    onChange({ ...wishes, [field]: e.target.value });
  return (
    <form
      role="search"
      aria-label="Find journals"
      className="flex flex-wrap items-center gap-2 px-4 pb-2 text-sm"
      onSubmit={(e) => e.preventDefault()}
    >
      <input
        type="search"
        className="input input-sm w-52"
        aria-label="Person, claim or journal"
        placeholder="Person, claim or journal"
        value={wishes.q}
        onChange={set('q')}
      />
      <label className="flex items-center gap-1">
        from
        <DayField
          className="input input-sm w-36"
          value={wishes.from}
          other={wishes.to}
          max={wishes.to}
          onChange={(day) => onChange({ ...wishes, from: day })}
        />
      </label>
      <label className="flex items-center gap-1">
        to
        <DayField
          className="input input-sm w-36"
          value={wishes.to}
          other={wishes.from}
          min={wishes.from}
          onChange={(day) => onChange({ ...wishes, to: day })}
        />
      </label>
      <Choice label="Entity" value={wishes.entity} onChange={set('entity')}>
        {[['', 'all entities'], ...entities.map((e) => [e, e])]}
      </Choice>
      <Choice label="State" value={wishes.state} onChange={set('state')}>
        {STATES}
      </Choice>
      <Choice label="Order" value={wishes.order} onChange={set('order')}>
        {ORDERS}
      </Choice>
      {JSON.stringify(wishes) !== JSON.stringify(NO_WISHES) && (
        <button type="button" className="link" onClick={() => onChange(NO_WISHES)}>
          Show all
        </button>
      )}
    </form>
  );
}

interface ChoiceProps {
  label: string;
  value: string;
  onChange: (e: { target: { value: string } }) => void;
  children: readonly (readonly string[])[];
}

const Choice = ({ label, value, onChange, children }: ChoiceProps) => (
  <select className="select select-sm w-auto" aria-label={label} value={value} onChange={onChange}>
    {children.map(([key, name]) => (
      <option key={key} value={key}>
        {name}
      </option>
    ))}
  </select>
);
