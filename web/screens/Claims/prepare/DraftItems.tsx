import { useState, type FormEvent } from 'react';
import type { Item, Line } from '../../../../core/documents/case.schema.ts';
import { fromMinor, readAmount, toMinor } from '../../../../core/numbers/amount.ts';
import type { Chart } from '../../../api/chart.ts';
import { drafts } from '../../../api/drafts.ts';
import type { ClaimAnswer, MakerView } from '../../../api/claims.ts';
import { Money } from '../../../parts/Money.tsx';
import { RemoveButton } from '../../../parts/RemoveButton.tsx';
import { readTypedAmount } from '../../../parts/typed.ts';

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

/** Breaks a line into items; what is left of it stays in sight. Half-done items are kept: only submitting asks for nothing left. */
export function DraftItems({ view, line, chart, onSaved, onFail, onClose }: DraftItemsProps) {
  const [rows, setRows] = useState(() => rowsOf(line));
  const [busy, setBusy] = useState(false);
  const left = leftOfLine(rows, line);
  const problem = problemOf(rows, line);
  const save = async (event: FormEvent) => {
    event.preventDefault();
    if (problem) return;
    setBusy(true);
    const items = rows.map((r) => itemOf(r, line));
    const { number, revision } = view.claim;
    await drafts.edit(number, revision, line.id, { items }).then(onSaved, onFail);
    setBusy(false);
  };
  return (
    <form
      aria-label={`Items of line ${line.id}`}
      className="mt-2 border-l-4 border-primary bg-base-200 px-3 py-2"
      onSubmit={(e) => void save(e)}
    >
      <Rows rows={rows} line={line} chart={chart} onChange={setRows} />
      <Left left={left} currency={line.currency} />
      <Acts
        problem={problem}
        busy={busy}
        onAdd={() => setRows([...rows, rowFor(line, rows, left)])}
        onClose={onClose}
      />
    </form>
  );
}

interface RowsProps {
  rows: readonly Row[];
  line: Line;
  chart: Chart | undefined;
  onChange: (rows: Row[]) => void;
}

function Rows({ rows, line, chart, onChange }: RowsProps) {
  return (
    <>
      {rows.map((row, i) => (
        <ItemRow
          key={row.id}
          row={row}
          n={i + 1}
          line={line}
          chart={chart}
          onChange={(changes) => onChange(rows.map((r, k) => (k === i ? { ...r, ...changes } : r)))}
          onRemove={() => onChange(rows.filter((_, k) => k !== i))}
        />
      ))}
    </>
  );
}

interface ItemRowProps {
  row: Row;
  n: number;
  line: Line;
  chart: Chart | undefined;
  onChange: (changes: Partial<Row>) => void;
  onRemove: () => void;
}

function ItemRow({ row, n, line, chart, onChange, onRemove }: ItemRowProps) {
  return (
    <div className="mb-1 grid grid-cols-[minmax(0,1fr)_auto] gap-2 sm:grid-cols-[minmax(0,1fr)_11rem_8rem_auto]">
      <input
        className="input input-sm w-full"
        aria-label={`Item ${n}`}
        placeholder="What it is"
        value={row.description}
        onChange={(e) => onChange({ description: e.target.value })}
      />
      <CategoryOfItem row={row} n={n} line={line} chart={chart} onChange={onChange} />
      <input
        className="input input-sm w-full text-right tabular-nums"
        aria-label={`Amount of item ${n}`}
        inputMode="decimal"
        value={row.amount}
        onChange={(e) => onChange({ amount: e.target.value })}
      />
      <RemoveButton what={`item ${n}`} onRemove={onRemove} />
    </div>
  );
}

interface CategoryOfItemProps {
  row: Row;
  n: number;
  line: Line;
  chart: Chart | undefined;
  onChange: (changes: Partial<Row>) => void;
}

function CategoryOfItem({ row, n, line, chart, onChange }: CategoryOfItemProps) {
  return (
    <select
      className="select select-sm"
      aria-label={`Category of item ${n}`}
      value={row.personal ? PRIVATE : row.category}
      onChange={(e) => onChange({ category: e.target.value, personal: e.target.value === PRIVATE })}
    >
      <option value="">Category…</option>
      {chart?.categories.map((c) => (
        <option key={c.id} value={c.id}>
          {c.name}
        </option>
      ))}
      {line.paidBy === 'card' && <option value={PRIVATE}>Private</option>}
    </select>
  );
}

function Left({ left, currency }: { left: bigint; currency: string }) {
  return (
    <p className="flex items-center justify-between gap-3 border-t border-base-300 py-1">
      <span className="font-semibold">Left of the line</span>
      <span className={left === 0n ? '' : 'text-warning'} role="status">
        <Money amount={fromMinor(left, currency)} currency={currency} strong />
        {left !== 0n && <span className="ml-2 text-sm">to be found before you submit</span>}
      </span>
    </p>
  );
}

interface ActsProps {
  problem: string | null;
  busy: boolean;
  onAdd: () => void;
  onClose: () => void;
}

function Acts({ problem, busy, onAdd, onClose }: ActsProps) {
  return (
    <div className="flex flex-wrap items-center gap-2">
      <button type="button" className="btn btn-sm" onClick={onAdd}>
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

const rowFor = (line: Line, rows: readonly Row[], left: bigint): Row => ({
  id: nextId(line.id, rows),
  description: '',
  category: '',
  amount: fromMinor(left, line.currency),
  personal: false,
});

/** What of the line no row has yet, in minor units; a row that cannot be read has nothing. */
const leftOfLine = (rows: readonly Row[], { amount, currency }: Line): bigint =>
  rows.reduce((left, row) => left - (minorOf(row.amount, currency) ?? 0n), toMinor(amount, currency));

/** Why the items cannot be saved as they are. */
function problemOf(rows: readonly Row[], line: Line): string | null {
  if (rows.length === 0) return null;
  const unread = rows.findIndex((r) => minorOf(r.amount, line.currency) === null);
  if (unread >= 0) return `Enter an amount such as 12.50 in row ${unread + 1}.`;
  if (rows.some((r) => r.category === '')) return 'Choose a category for each item.';
  return null;
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
