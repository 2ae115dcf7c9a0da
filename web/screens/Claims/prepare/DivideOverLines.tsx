import { useState } from 'react';
import { fromMinor, readAmount } from '../../../../core/numbers/amount.ts';
import { drafts } from '../../../api/drafts.ts';
import { CategoryChoice } from '../../../parts/CategoryChoice.tsx';
import { Money } from '../../../parts/Money.tsx';
import { RemoveButton } from '../../../parts/RemoveButton.tsx';
import { readTypedAmount } from '../../../parts/typed.ts';
import type { LineRowProps } from './lineRow.types.ts';
import { receiptLeft } from './receiptLeft.ts';

type DivideProps = Pick<LineRowProps, 'view' | 'line' | 'draft' | 'chart'> & { onClose: () => void };
interface Row {
  description: string;
  category: string;
  amount: string;
}

/** Divides what one receipt shows over several lines, each with its category; what is not claimed yet stays in view. */
export function DivideOverLines({ view, line, draft, chart, onClose }: DivideProps) {
  const { currency } = line;
  const [rows, setRows] = useState<Row[]>([
    { description: line.description ?? '', category: line.category ?? '', amount: line.amount },
    { description: '', category: '', amount: '' },
  ]);
  const amounts = rows.map((r) => readTypedAmount(r.amount, currency));
  const sum = amounts.reduce((a, typed) => a + (typed === null ? 0n : readAmount(typed, currency)!), 0n);
  const ofCard = line.rate?.kind === 'card';
  const { of, left } = receiptLeft(view, line, sum);
  const change = (i: number, set: Partial<Row>) => setRows(rows.map((r, k) => (k === i ? { ...r, ...set } : r)));
  const problem = amounts.includes(null)
    ? `Type an amount in ${currency} in each row.`
    : rows.some((r) => !r.category)
      ? 'Choose a category for each row.'
      : ofCard && sum !== readAmount(line.amount, currency)
        ? 'The parts of a charge come to its amount.'
        : null;
  const divide = () => {
    const parts = rows.map((r, i) => ({
      amount: amounts[i]!,
      category: r.category,
      description: r.description.trim() || null,
    }));
    const { number } = view.claim;
    draft.run(`line ${line.id}`, (revision) => drafts.divide(number, revision, line.id, parts));
    onClose();
  };
  return (
    <section
      aria-label={`Division of line ${line.id}`}
      className="mt-3 border-l-4 border-primary bg-base-100 px-4 py-3 text-sm"
    >
      {rows.map((row, i) => (
        <div key={i} className="mb-1 flex flex-wrap items-center gap-2">
          <input
            className="input input-sm min-w-40 flex-1"
            aria-label={`What part ${i + 1} was for`}
            placeholder="What it was for"
            value={row.description}
            onChange={(e) => change(i, { description: e.target.value })}
          />
          <CategoryChoice
            label={`Category of part ${i + 1}`}
            value={row.category}
            none="category"
            chart={chart}
            onChange={(category) => change(i, { category })}
          />
          <input
            className="input input-sm w-28 text-right tabular-nums"
            aria-label={`Amount of part ${i + 1}`}
            inputMode="decimal"
            value={row.amount}
            onChange={(e) => change(i, { amount: e.target.value })}
          />
          <RemoveButton
            what={`part ${i + 1}`}
            disabled={rows.length < 3}
            onRemove={() => setRows(rows.toSpliced(i, 1))}
          />
        </div>
      ))}
      <p className="flex justify-between border-t border-base-300 py-1" role="status">
        <span className="font-semibold">Not yet claimed of the {of}</span>
        <span className={left < 0n ? 'text-error' : left > 0n ? 'text-warning' : ''}>
          <Money amount={fromMinor(left, currency)} currency={currency} strong />
        </span>
      </p>
      <p className="quiet mb-2">Each part is a line with the same receipt. Taxes are said of each part again.</p>
      <span className="flex flex-wrap items-center gap-2">
        <button
          type="button"
          className="btn btn-sm"
          onClick={() => setRows([...rows, { description: '', category: '', amount: rest(left, currency) }])}
        >
          Another part
        </button>
        <button type="button" className="btn btn-primary btn-sm" disabled={problem !== null} onClick={divide}>
          Make {rows.length} lines
        </button>
        <button type="button" className="btn btn-sm" onClick={onClose}>
          Close
        </button>
        {problem && <span className="quiet">{problem}</span>}
      </span>
    </section>
  );
}

const rest = (left: bigint, currency: string): string => (left > 0n ? fromMinor(left, currency) : '');
