import { useState } from 'react';
import type { Item, Line } from '../../../core/documents/case.schema.ts';
import { fromMinor, readAmount, toMinor } from '../../../core/numbers/amount.ts';
import type { Chart } from '../../api/chart.ts';
import { gather } from '../../api/gather.ts';
import type { ClaimAnswer, MakerView } from '../../api/claims.ts';
import { Money } from '../../parts/Money.tsx';
import { readTypedAmount } from '../../parts/typed.ts';

interface DraftItemsProps {
  view: MakerView;
  line: Line;
  chart: Chart | undefined;
  onSaved: (view: ClaimAnswer) => void;
  onFail: (error: unknown) => void;
  onClose: () => void;
}
interface Row {
  id: string;
  description: string;
  category: string;
  amount: string;
  personal: boolean;
}

const PRIVATE = '~private';

/** Breaks a line into items; what is left of it stays in sight, and saving waits until nothing is. */
export function DraftItems({ view, line, chart, onSaved, onFail, onClose }: DraftItemsProps) {
  const [rows, setRows] = useState(() => rowsOf(line));
  const [busy, setBusy] = useState(false);
  const total = toMinor(line.amount, line.currency);
  const amounts = rows.map((r) => minorOf(r.amount, line.currency));
  const left = total - amounts.reduce<bigint>((a, m) => a + (m ?? 0n), 0n);
  const unread = rows.findIndex((_, i) => amounts[i] === null);
  const problem =
    rows.length === 0
      ? null
      : unread >= 0
        ? `Enter an amount such as 12.50 in row ${unread + 1}.`
        : rows.some((r) => r.category === '')
          ? 'Choose a category for each item.'
          : left !== 0n
            ? `${fromMinor(left, line.currency)} ${line.currency} is left. Change the items until nothing is.`
            : null;
  const set = (index: number, changes: Partial<Row>) =>
    setRows(rows.map((r, i) => (i === index ? { ...r, ...changes } : r)));
  const add = () =>
    setRows([
      ...rows,
      {
        id: nextId(line.id, rows),
        description: '',
        category: '',
        amount: fromMinor(left, line.currency),
        personal: false,
      },
    ]);
  const save = async () => {
    setBusy(true);
    await gather
      .editLine(view.claim.number, line.id, view.claim.revision, { items: rows.map((r) => itemOf(r, line)) })
      .then(onSaved, onFail);
    setBusy(false);
  };
  return (
    <form
      aria-label={`Items of line ${line.id}`}
      className="mt-2 border-l-4 border-primary bg-base-200 px-3 py-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (!problem) void save();
      }}
    >
      {rows.map((row, i) => (
        <div
          key={row.id}
          className="mb-1 grid grid-cols-[minmax(0,1fr)_auto] gap-2 sm:grid-cols-[minmax(0,1fr)_11rem_8rem_auto]"
        >
          <input
            className="input input-sm w-full"
            aria-label={`Item ${i + 1}`}
            placeholder="What it is"
            value={row.description}
            onChange={(e) => set(i, { description: e.target.value })}
          />
          <select
            className="select select-sm"
            aria-label={`Category of item ${i + 1}`}
            value={row.personal ? PRIVATE : row.category}
            onChange={(e) => set(i, { category: e.target.value, personal: e.target.value === PRIVATE })}
          >
            <option value="">Category…</option>
            {chart?.categories.map((c) => (
              <option key={c.id} value={c.id}>
                {c.name}
              </option>
            ))}
            {line.paidBy === 'card' && <option value={PRIVATE}>Private</option>}
          </select>
          <input
            className="input input-sm w-full text-right tabular-nums"
            aria-label={`Amount of item ${i + 1}`}
            inputMode="decimal"
            value={row.amount}
            onChange={(e) => set(i, { amount: e.target.value })}
          />
          <button
            type="button"
            className="btn btn-sm"
            aria-label={`Remove item ${i + 1}`}
            onClick={() => setRows(rows.filter((_, k) => k !== i))}
          >
            ×
          </button>
        </div>
      ))}
      <p className="flex items-center justify-between gap-3 border-t border-base-300 py-1">
        <span className="font-semibold">Left of the line</span>
        <span className={left === 0n ? '' : 'text-error'} role="status">
          <Money amount={fromMinor(left, line.currency)} currency={line.currency} strong />
        </span>
      </p>
      <div className="flex flex-wrap items-center gap-2">
        <button type="button" className="btn btn-sm" onClick={add}>
          Add an item
        </button>
        <button className="btn btn-primary btn-sm" disabled={busy || problem !== null}>
          Save
        </button>
        <button type="button" className="btn btn-sm" onClick={onClose}>
          Close
        </button>
        {problem && <span className="text-sm text-error">{problem}</span>}
      </div>
    </form>
  );
}

function rowsOf(line: Line): Row[] {
  if (line.items?.length)
    return line.items.map((i) => ({
      id: i.id,
      description: i.description ?? '',
      category: i.personal ? PRIVATE : (i.category ?? ''),
      amount: i.amount,
      personal: i.personal ?? false,
    }));
  return [
    {
      id: `${line.id}a`,
      description: line.description ?? '',
      category: line.category ?? '',
      amount: line.amount,
      personal: false,
    },
  ];
}

function minorOf(typed: string, currency: string): bigint | null {
  const amount = readTypedAmount(typed, currency);
  return amount === null ? null : readAmount(amount, currency);
}

/** 2a, 2b … : the first letter that no row has. */
function nextId(line: string, rows: readonly Row[]): string {
  for (let code = 97; ; code += 1) {
    const id = code <= 122 ? `${line}${String.fromCharCode(code)}` : `${line}-${code}`;
    if (!rows.some((r) => r.id === id)) return id;
  }
}

function itemOf(row: Row, line: Line): Item {
  const before = line.items?.find((i) => i.id === row.id);
  const amount = readTypedAmount(row.amount, line.currency)!;
  if (row.personal) return { id: row.id, amount, description: row.description || null, personal: true };
  const { personal: _, ...kept } = before ?? { id: row.id };
  return { ...kept, amount, category: row.category, description: row.description || null };
}
