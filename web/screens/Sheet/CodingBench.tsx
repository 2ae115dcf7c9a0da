import { mergeCoding } from '../../../core/figures/coding/mergeCoding.ts';
import { holdsOn } from '../../../core/numbers/isoDate.ts';
import { CodingFields } from './CodingFields.tsx';
import type { BenchProps } from './bench.types.ts';

/** Coding and category of a line or item. A code's owner is named, so that it is plain whom to ask. */
export function CodingBench({ sheet, view, bench, chart }: BenchProps) {
  const line = view.document.claim.lines.find((l) => l.id === bench.line)!;
  const coding = bench.set.coding ?? {};
  const inherited = mergeCoding(view.document.claim.coding, bench.item ? line.coding : null);
  const owners = Object.entries({ ...inherited, ...coding })
    .map(([dimension, code]) => chart?.values.find((v) => v.dimension === dimension && v.code === code))
    .filter((v) => v?.owner);
  return (
    <div className="grid gap-2">
      {bench.set.category !== undefined && (
        <label className="flex items-center gap-2">
          Category
          <select
            className="select select-sm w-56"
            autoFocus
            value={bench.set.category}
            onChange={(e) => sheet.setBench({ ...bench, set: { ...bench.set, category: e.target.value } })}
          >
            {chart?.categories
              .filter((c) => holdsOn(c, line.date))
              .map((c) => (
                <option key={c.id} value={c.id}>
                  {c.name} · account {c.account}
                </option>
              ))}
          </select>
        </label>
      )}
      <CodingFields
        chart={chart}
        date={line.date}
        coding={coding}
        inherited={inherited}
        label={`line ${bench.line}`}
        autoFocus={bench.set.category === undefined}
        onChange={(next) => sheet.setBench({ ...bench, set: { ...bench.set, coding: next } })}
      />
      <p className="quiet text-sm">{owners.map((v) => `${v!.code} ${v!.name}: ask ${v!.owner}`).join(' · ')}</p>
    </div>
  );
}
