import { useId, useState, type ReactNode } from 'react';
import type { Split } from '../../core/documents/case.schema.ts';
import { convertSplit, HALVES } from './convertSplit.ts';
import type { Division } from './split.types.ts';
import { SplitBar } from './SplitBar.tsx';
import { newShare, SplitShares } from './SplitShares.tsx';

const WAYS: [Split['by'], string][] = [
  ['percent', 'percent'],
  ['amount', 'amount'],
  ['equal', 'equal shares'],
  ['weight', 'weights'],
];
/** What weights often count; any other word can be typed. */
const UNITS = ['days', 'nights', 'heads', 'hours', 'm²', 'km'];

interface SplitEditorProps extends Omit<Division, 'split'> {
  split: Split | null;
  /** "line" or "item". */
  what: string;
  /** Where shares can be taken from, and kept. */
  sources?: ReactNode;
}

/** A line or item divided over codings: a bar with cuts, and a grid with what each share comes to in every column. */
export function SplitEditor({ split, what, sources, ...rest }: SplitEditorProps) {
  if (!split) return <NotSplit what={what} sources={sources} onSplit={() => rest.set(HALVES)} />;
  const division: Division = { ...rest, split };
  return (
    <div className="grid gap-2">
      <SplitHead {...division} sources={sources} />
      <SplitBar {...division} currency={division.line.currency} onChange={rest.set} />
      <SplitShares {...division} />
    </div>
  );
}

function NotSplit({ what, sources, onSplit }: { what: string; sources: ReactNode; onSplit: () => void }) {
  return (
    <div className="flex flex-wrap items-center gap-3">
      <span>This {what} is not split; saved like this its cost goes to one coding.</span>
      <button type="button" autoFocus className="btn btn-sm" onClick={onSplit}>
        Split it
      </button>
      {sources}
    </div>
  );
}

/** By what it is divided, and what can be done with all shares. */
function SplitHead({ split, figures, set, sources }: Division & { sources: ReactNode }) {
  const grosses = figures.map((f) => f.gross);
  return (
    <div className="flex flex-wrap items-center gap-3">
      <DivideBy by={split.by} onChange={(by) => set(convertSplit(split, by, grosses))} />
      {split.by === 'weight' && <UnitField unit={split.unit ?? ''} onChange={(unit) => set(withUnit(split, unit))} />}
      <span className="ml-auto flex items-center gap-3">
        {sources}
        <button
          type="button"
          className="btn btn-xs"
          onClick={() => set({ ...split, shares: [...split.shares, newShare(split)] })}
        >
          Add a share
        </button>
        <button type="button" className="btn btn-xs" onClick={() => set(null)}>
          No split
        </button>
      </span>
    </div>
  );
}

function withUnit({ unit: _, ...split }: Split, unit: string): Split {
  return unit.trim() ? { ...split, unit: unit.trim() } : split;
}

function UnitField({ unit, onChange }: { unit: string; onChange: (unit: string) => void }) {
  const list = useId();
  const [typed, setTyped] = useState(unit);
  return (
    <label className="flex items-center gap-1 text-sm">
      of
      <input
        className="input input-xs w-24"
        aria-label="What the weights count"
        placeholder="days, heads…"
        list={list}
        maxLength={20}
        value={typed.trim() === unit ? typed : unit}
        onChange={(e) => {
          setTyped(e.target.value);
          onChange(e.target.value);
        }}
      />
      <datalist id={list}>
        {UNITS.map((u) => (
          <option key={u} value={u} />
        ))}
      </datalist>
    </label>
  );
}

function DivideBy({ by, onChange }: { by: Split['by']; onChange: (by: Split['by']) => void }) {
  return (
    <div role="radiogroup" aria-label="Divide by" className="flex gap-3 text-sm">
      {WAYS.map(([way, name]) => (
        <label key={way} className="flex items-center gap-1">
          <input
            type="radio"
            name="split-by"
            className="radio radio-xs"
            checked={by === way}
            onChange={() => onChange(way)}
          />
          {name}
        </label>
      ))}
    </div>
  );
}
