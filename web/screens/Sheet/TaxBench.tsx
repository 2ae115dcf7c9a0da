import { holdsOn } from '../../../core/numbers/isoDate.ts';
import type { TaxRow } from '../../../core/documents/assessment.schema.ts';
import type { TaxEntry } from '../../../core/documents/case.schema.ts';
import { fromMinor, sumKnown, toMinor } from '../../../core/numbers/amount.ts';
import { Money } from '../../parts/Money.tsx';
import { readTypedAmount } from '../../parts/typed.ts';
import type { BenchProps } from './bench.types.ts';

/** The tax entries of a line or item: code, the gross it covers, the tax on the receipt; beside them what comes of it. */
export function TaxBench({ sheet, view, bench, assessment, chart }: BenchProps) {
  const line = view.document.claim.lines.find((l) => l.id === bench.line)!;
  const entries = bench.set.tax ?? [];
  const part = assessment.lines.find((l) => l.id === bench.line)?.parts.find((p) => p.item === bench.item);
  const sums = sumsByEntry(entries, part?.tax ?? [], line.currency);
  const codes = chart?.taxCodes.filter((c) => holdsOn(c, line.date)) ?? [];
  const set = (tax: TaxEntry[]) => sheet.setBench({ ...bench, set: { ...bench.set, tax } });
  const change = (index: number, fields: Partial<TaxEntry>) =>
    set(entries.map((e, i) => (i === index ? { ...e, ...fields } : e)));
  return (
    <div>
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
          {entries.map((entry, index) => {
            const row = sums[index];
            return (
              <tr key={index}>
                <td className="pr-1 py-0.5">
                  <select
                    className="select select-sm w-56"
                    aria-label={`Tax code ${index + 1}`}
                    autoFocus={index === 0}
                    value={entry.code}
                    onChange={(e) => change(index, { code: e.target.value })}
                  >
                    {codes.map((c) => (
                      <option key={c.code} value={c.code}>
                        {c.code} {c.name}
                      </option>
                    ))}
                  </select>
                </td>
                <AmountCell
                  label={`Gross ${index + 1}`}
                  placeholder="all"
                  value={entry.gross}
                  currency={line.currency}
                  onChange={(gross) => change(index, { gross })}
                />
                <AmountCell
                  label={`Tax ${index + 1}`}
                  placeholder="computed"
                  value={entry.tax}
                  currency={line.currency}
                  onChange={(tax) => change(index, { tax })}
                />
                <td className="px-1 text-right">
                  <Money amount={row?.net} />
                </td>
                <td className="px-1 text-right">
                  <Money amount={row?.tax} />
                </td>
                <td className="px-1 text-right">
                  <Money amount={row?.recoverable} currency={line.currency} />
                </td>
                <td>
                  <button
                    type="button"
                    className="btn btn-xs"
                    aria-label={`Remove tax ${index + 1}`}
                    onClick={() => set(entries.filter((_, i) => i !== index))}
                  >
                    ×
                  </button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <button
        type="button"
        className="btn btn-xs mt-1"
        disabled={codes.length === 0}
        onClick={() => set([...entries, { code: codes[0]!.code }])}
      >
        Add a tax
      </button>
    </div>
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
