import { useState } from 'react';
import type { TaxRow } from '../../core/documents/assessment.schema.ts';
import type { Line, TaxEntry } from '../../core/documents/case.schema.ts';
import { fromMinor, sumKnown, toMinor } from '../../core/numbers/amount.ts';
import type { Chart } from '../api/chart.ts';
import { Money } from './Money.tsx';
import { RemoveButton } from './RemoveButton.tsx';
import { onlyTaxCode, taxCodesFor } from './taxCodesFor.ts';
import { readTypedAmount } from './typed.ts';

interface TaxEditorProps {
  entries: readonly TaxEntry[];
  /** What was computed of them, in their order. */
  rows: readonly TaxRow[];
  line: Pick<Line, 'date' | 'currency' | 'country'>;
  chart: Chart | undefined;
  onChange: (entries: TaxEntry[]) => void;
}

/** The tax entries of a line or item: code, the gross it covers, the tax on the receipt; beside them what comes of it. */
export function TaxEditor({ entries, rows, line, chart, onChange }: TaxEditorProps) {
  const sums = sumsByEntry(entries, rows, line.currency);
  const codes = taxCodesFor(chart, line);
  const [choosing, setChoosing] = useState(false);
  const add = (code: string) => {
    setChoosing(false);
    onChange([...entries, { code }]);
  };
  const begin = () => {
    const code = onlyTaxCode(codes, line);
    if (code) add(code);
    else setChoosing(true);
  };
  return (
    <div>
      {entries.length > 0 && (
        <Entries entries={entries} sums={sums} codes={codes} currency={line.currency} onChange={onChange} />
      )}
      {choosing ? (
        <CodeField n={entries.length + 1} code="" codes={codes} onChange={add} />
      ) : (
        <button type="button" className="btn btn-xs mt-1" disabled={codes.length === 0} onClick={begin}>
          Add a tax
        </button>
      )}
    </div>
  );
}

interface EntriesProps {
  entries: readonly TaxEntry[];
  sums: readonly Sums[];
  codes: Chart['taxCodes'];
  currency: string;
  onChange: (entries: TaxEntry[]) => void;
}

function Entries({ entries, sums, codes, currency, onChange }: EntriesProps) {
  return (
    <table className="text-left">
      <thead className="quiet text-xs">
        <tr>
          {['Code', 'Gross covered', 'Tax on receipt', 'Net', 'Tax', 'Reclaimable', 'Remove'].map((h) => (
            <th key={h} className="px-1 font-normal">
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {entries.map((entry, index) => (
          <EntryRow
            key={index}
            n={index + 1}
            entry={entry}
            row={sums[index]}
            codes={codes}
            currency={currency}
            onChange={(fields) => onChange(entries.map((e, i) => (i === index ? { ...e, ...fields } : e)))}
            onRemove={() => onChange(entries.filter((_, i) => i !== index))}
          />
        ))}
      </tbody>
    </table>
  );
}

interface EntryRowProps {
  n: number;
  entry: TaxEntry;
  row: Sums | undefined;
  codes: Chart['taxCodes'];
  currency: string;
  onChange: (fields: Partial<TaxEntry>) => void;
  onRemove: () => void;
}

function EntryRow({ n, entry, row, codes, currency, onChange, onRemove }: EntryRowProps) {
  const gross = { value: entry.gross, currency, onChange: (gross: string | null) => onChange({ gross }) };
  const tax = { value: entry.tax, currency, onChange: (tax: string | null) => onChange({ tax }) };
  return (
    <tr>
      <td className="pr-1 py-0.5">
        <CodeField n={n} code={entry.code} codes={codes} onChange={(code) => onChange({ code })} />
      </td>
      <AmountCell {...gross} label={`Gross ${n}`} placeholder="all" />
      <AmountCell {...tax} label={`Tax ${n}`} placeholder="computed" />
      {[row?.net, row?.tax, row?.recoverable].map((amount, i) => (
        <td key={i} className="px-1 text-right">
          <Money amount={amount} currency={i === 2 ? currency : undefined} />
        </td>
      ))}
      <td>
        <RemoveButton what={`tax ${n}`} onRemove={onRemove} />
      </td>
    </tr>
  );
}

interface CodeFieldProps {
  n: number;
  code: string;
  codes: Chart['taxCodes'];
  onChange: (code: string) => void;
}

function CodeField({ n, code, codes, onChange }: CodeFieldProps) {
  return (
    <select
      className="select select-sm w-56"
      aria-label={`Tax code ${n}`}
      autoFocus={n === 1 || code === ''}
      value={code}
      onChange={(e) => onChange(e.target.value)}
    >
      {code === '' && <option value="">choose a code</option>}
      {codes.map((c) => (
        <option key={c.code} value={c.code}>
          {c.code} {c.name}
        </option>
      ))}
    </select>
  );
}

interface Sums {
  net: string | null;
  tax: string | null;
  recoverable: string | null;
}

/** The rows of an assessment follow the entries, a row a component: a new entry begins where a component comes again. */
function sumsByEntry(entries: readonly TaxEntry[], rows: readonly TaxRow[], currency: string): Sums[] {
  let next = 0;
  return entries.map((entry) => {
    const own: TaxRow[] = [];
    while (rows[next]?.code === entry.code && !own.some((row) => row.component === rows[next]!.component))
      own.push(rows[next++]!);
    const sum = (column: 'tax' | 'recoverable') => {
      const total = sumKnown(own.map((row) => (row[column] === null ? null : toMinor(row[column], currency))));
      return total === null ? null : fromMinor(total, currency);
    };
    return { net: own[0]?.net ?? null, tax: sum('tax'), recoverable: sum('recoverable') };
  });
}

interface AmountCellProps {
  label: string;
  placeholder: string;
  value: string | null | undefined;
  currency: string;
  onChange: (value: string | null) => void;
}

function AmountCell({ label, placeholder, value, currency, onChange }: AmountCellProps) {
  return (
    <td className="px-1">
      <input
        className="input input-sm w-28 text-right"
        aria-label={label}
        placeholder={placeholder}
        inputMode="decimal"
        defaultValue={value ?? ''}
        onChange={(e) =>
          onChange(
            e.target.value.trim() === '' ? null : (readTypedAmount(e.target.value, currency) ?? e.target.value.trim()),
          )
        }
      />
    </td>
  );
}
