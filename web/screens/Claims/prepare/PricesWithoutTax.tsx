import { useState } from 'react';
import { addTax } from '../../../../core/figures/tax/addTax.ts';
import { fromMinor, toMinor } from '../../../../core/numbers/amount.ts';
import type { TaxCode, TaxEntry } from '../../../../core/documents/case.schema.ts';
import { Money } from '../../../parts/Money.tsx';
import { RemoveButton } from '../../../parts/RemoveButton.tsx';
import { taxCodesFor } from '../../../parts/taxCodesFor.ts';
import { readTypedAmount } from '../../../parts/typed.ts';
import type { LineRowProps } from './lineRow.types.ts';

type PricesWithoutTaxProps = Pick<LineRowProps, 'line' | 'chart'> & {
  onTake: (amount: string, tax: TaxEntry[]) => void;
};
interface Row {
  code: string;
  net: string;
}

/** An invoice that says its prices without tax: the tax is added by the rates of the book, and the line's amount is what it comes to. */
export function PricesWithoutTax({ line, chart, onTake }: PricesWithoutTaxProps) {
  const codes = taxCodesFor(chart, line);
  const [rows, setRows] = useState<Row[] | null>(null);
  const [outside, setOutside] = useState('');
  if (codes.length === 0) return null;
  if (!rows)
    return (
      <button type="button" className="btn btn-xs" onClick={() => setRows([{ code: codes[0]!.code, net: '' }])}>
        Type prices without tax
      </button>
    );
  const came = sumOf(rows, outside, codes, line.currency);
  const change = (i: number, set: Partial<Row>) => setRows(rows.map((r, k) => (k === i ? { ...r, ...set } : r)));
  return (
    <fieldset className="grid gap-1 text-sm">
      <legend className="mb-1">Prices without tax, in {line.currency}</legend>
      {rows.map((row, i) => (
        <div key={i} className="flex items-center gap-2">
          <AmountField label={`Price without tax ${i + 1}`} value={row.net} onChange={(net) => change(i, { net })} />
          <select
            className="select select-sm w-56"
            aria-label={`Tax of price ${i + 1}`}
            value={row.code}
            onChange={(e) => change(i, { code: e.target.value })}
          >
            {codes.map((c) => (
              <option key={c.code} value={c.code}>
                {c.code} {c.name}
              </option>
            ))}
          </select>
          <RemoveButton
            what={`price ${i + 1}`}
            onRemove={() => setRows(rows.length > 1 ? rows.toSpliced(i, 1) : null)}
          />
        </div>
      ))}
      <label className="flex items-center gap-2">
        <AmountField label="Outside tax" value={outside} onChange={setOutside} /> outside tax, such as tips and deposits
      </label>
      <div className="mt-1 flex items-center gap-3">
        <button
          type="button"
          className="btn btn-xs"
          onClick={() => setRows([...rows, { code: codes[0]!.code, net: '' }])}
        >
          Another price
        </button>
        <button
          type="button"
          className="btn btn-primary btn-xs"
          disabled={!came}
          onClick={() => {
            onTake(came!.amount, came!.tax);
            setRows(null);
          }}
        >
          Take it over
        </button>
        {came ? (
          <span>
            The line becomes <Money amount={came.amount} currency={line.currency} strong />
          </span>
        ) : (
          <span className="quiet">Type each price, such as 12.50.</span>
        )}
      </div>
    </fieldset>
  );
}

const AmountField = ({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (typed: string) => void;
}) => (
  <input
    className="input input-sm w-28 text-right tabular-nums"
    aria-label={label}
    inputMode="decimal"
    value={value}
    onChange={(e) => onChange(e.target.value)}
  />
);

/** What the prices come to with their taxes; null while one of them cannot be read. */
function sumOf(rows: readonly Row[], outside: string, codes: readonly TaxCode[], currency: string) {
  const entries = rows.map(({ code, net }) => {
    const typed = readTypedAmount(net, currency);
    return typed === null
      ? null
      : addTax(
          typed,
          codes.find((c) => c.code === code)!,
          currency,
        );
  });
  const beside = outside.trim() ? readTypedAmount(outside, currency) : fromMinor(0n, currency);
  if (entries.includes(null) || beside === null) return null;
  const tax = entries as { code: string; gross: string; tax: string | null }[];
  const sum = tax.reduce((a, e) => a + toMinor(e.gross, currency), toMinor(beside, currency));
  return { amount: fromMinor(sum, currency), tax };
}
