import { useState, type FormEvent } from 'react';
import type { CardView, Mapping } from '../../api/gather.ts';
import { sayMoment } from '../../words/sayEvent.ts';
import { Rehearsed } from './Rehearsed.tsx';
import type { Asked, Table } from './useStatementFiles.ts';

interface MappingFormProps {
  asked: Asked;
  cards: readonly CardView[];
  /** Asks the server what the rows would become, or, without `rehearse`, to take them. */
  onAsk: (options: { card: string; mapping: Mapping; rehearse?: boolean }) => void;
  /** The answer that was rehearsed holds no longer. */
  onChange: () => void;
  onClose: () => void;
}

const NEEDED = [
  ['date', 'Booking date'],
  ['amount', 'Amount'],
  ['merchant', 'Merchant'],
] as const;
const OPTIONAL = [
  ['credit', 'Came back, in a column of its own'],
  ['side', 'Mark of spent or came back'],
  ['currency', 'Currency of the amount'],
  ['purchased', 'Purchase date'],
  ['reference', 'Bank’s reference'],
  ['originalAmount', 'Original amount'],
  ['originalCurrency', 'Original currency'],
  ['categoryCode', 'Merchant category code'],
] as const;

const FIRST: [string, string] = ['', 'Choose…'];
const WAYS = [
  {
    field: 'order',
    label: 'Dates are written',
    options: [FIRST, ['dmy', 'day, month, year'], ['mdy', 'month, day, year'], ['ymd', 'year, month, day']],
  },
  { field: 'mark', label: 'Before the decimals stands', options: [FIRST, [',', 'a comma'], ['.', 'a point']] },
  {
    field: 'spent',
    label: 'What was spent is',
    options: [FIRST, ['positive', 'positive'], ['negative', 'negative']],
  },
] satisfies { field: keyof Mapping; label: string; options: [string, string][] }[];

/** What still has to be said before the table can be read, in words. */
function missingOf(card: string, mapping: Partial<Mapping>): string[] {
  return [
    ...(card ? [] : ['the card']),
    ...NEEDED.filter(([field]) => mapping[field] === undefined).map(
      ([, name]) => `the column of ${name.toLowerCase()}`,
    ),
    ...(mapping.order ? [] : ['the order of day, month and year']),
    ...(mapping.mark ? [] : ['the mark before the decimals']),
    ...(mapping.spent ? [] : ['the sign of what was spent']),
  ];
}

/** Which column of a table holds what; proposed, or remembered from a table with the same headings. Rehearsed, then taken. */
export function MappingForm({ asked, cards, onAsk, onChange, onClose }: MappingFormProps) {
  const { answer: table, rehearsal } = asked;
  const [card, setCard] = useState('');
  const [mapping, setMapping] = useState<Partial<Mapping>>(table.proposed);
  const [tried, setTried] = useState(false);
  const missing = missingOf(card, mapping);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    setTried(true);
    if (missing.length === 0) onAsk({ card, mapping: mapping as Mapping, ...(rehearsal ? {} : { rehearse: true }) });
  };
  return (
    <form
      aria-label="Columns of the table"
      className="mt-3 rounded-box border border-primary bg-base-100 p-4"
      onSubmit={submit}
    >
      <Title table={table} />
      <div className="mt-2 grid gap-2 sm:grid-cols-2 lg:grid-cols-4" onChange={onChange}>
        <Choice
          label="Card"
          value={card}
          onChange={setCard}
          options={[FIRST, ...cards.map((c): [string, string] => [c.id, `${c.id} · ${c.holder}`])]}
        />
        <Columns table={table} mapping={mapping} set={(changes) => setMapping({ ...mapping, ...changes })} />
      </div>
      {rehearsal ? <Rehearsed rehearsal={rehearsal} /> : <Sample table={table} />}
      <Foot missing={tried ? missing : []} entries={rehearsal?.entries ?? null} onClose={onClose} />
    </form>
  );
}

function Title({ table }: { table: Table }) {
  return (
    <h2 className="font-semibold">
      <bdi>{table.name}</bdi>{' '}
      <span className="quiet font-normal">
        {table.rows} rows{table.remembered && sayRemembered(table.remembered)}
      </span>
    </h2>
  );
}

const sayRemembered = ({ by, at, card }: NonNullable<Table['remembered']>): string =>
  `, columns as ${by} said on ${sayMoment(at)}${card ? ` for card ${card}` : ''}`;

interface FootProps {
  missing: readonly string[];
  /** How many entries would be taken; null before that was tried. */
  entries: number | null;
  onClose: () => void;
}

function Foot({ missing, entries, onClose }: FootProps) {
  return (
    <div className="mt-3 flex items-center gap-2">
      <button className="btn btn-primary btn-sm" disabled={entries === 0}>
        {entries === null ? 'Show what the rows become' : `Take ${entries} entries`}
      </button>
      <button type="button" className="btn btn-sm" onClick={onClose}>
        Close
      </button>
      {missing.length > 0 && (
        <span role="alert" className="text-sm text-error">
          Say {missing.join(', ')}.
        </span>
      )}
    </div>
  );
}

interface ColumnsProps {
  table: Table;
  mapping: Partial<Mapping>;
  set: (changes: Partial<Mapping>) => void;
}

function Columns({ table, mapping, set }: ColumnsProps) {
  const columns = table.columns.map((c, i): [string, string] => [String(i), c || `column ${i + 1}`]);
  const nothing = (field: string) => (NEEDED.some(([needed]) => needed === field) ? undefined : null);
  return (
    <>
      {[...NEEDED, ...OPTIONAL].map(([field, label]) => (
        <Choice
          key={field}
          label={label}
          value={String(mapping[field] ?? '')}
          onChange={(v) => set({ [field]: v === '' ? nothing(field) : Number(v) })}
          options={[['', 'not there'], ...columns]}
        />
      ))}
      {WAYS.map(({ field, label, options }) => (
        <Choice
          key={field}
          label={label}
          value={mapping[field] ?? ''}
          onChange={(v) => set({ [field]: v })}
          options={options}
        />
      ))}
    </>
  );
}

/** The first rows of the table as they came. */
function Sample({ table }: { table: Table }) {
  return (
    <div className="mt-3 overflow-x-auto">
      <table className="text-sm">
        <thead className="quiet text-left">
          <tr>
            {table.columns.map((c, i) => (
              <th key={i} className="pr-4 font-normal whitespace-nowrap">
                {c}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {table.sample.map((row, i) => (
            <tr key={i} className="border-t border-base-300">
              {table.columns.map((_, k) => (
                <td key={k} className="max-w-60 truncate py-0.5 pr-4">
                  {row[k]}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Choice({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: string;
  options: [string, string][];
  onChange: (value: string) => void;
}) {
  return (
    <label className="block text-sm">
      <span className="quiet">{label}</span>
      <select className="select select-sm w-full" value={value} onChange={(e) => onChange(e.target.value)}>
        {options.map(([id, name]) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}
