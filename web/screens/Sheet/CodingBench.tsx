import { mergeCoding } from '../../../core/figures/coding/mergeCoding.ts';
import { holdsOn } from '../../../core/numbers/isoDate.ts';
import { CodingFields } from '../../parts/CodingFields.tsx';
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
        <CategoryField
          category={bench.set.category}
          chart={chart}
          date={line.date}
          onChange={(category) => sheet.setBench({ ...bench, set: { ...bench.set, category } })}
        />
      )}
      <CodingFields
        chart={chart}
        date={line.date}
        coding={coding}
        inherited={inherited}
        label={`line ${bench.line}`}
        finds
        autoFocus={bench.set.category === undefined}
        onChange={(next) => sheet.setBench({ ...bench, set: { ...bench.set, coding: next } })}
      />
      <p className="quiet text-sm">{owners.map((v) => `${v!.code} ${v!.name}: ask ${v!.owner}`).join(' · ')}</p>
    </div>
  );
}

interface CategoryFieldProps {
  category: string;
  chart: BenchProps['chart'];
  date: string;
  onChange: (category: string) => void;
}

function CategoryField({ category, chart, date, onChange }: CategoryFieldProps) {
  return (
    <label className="flex items-center gap-2">
      Category
      <select className="select select-sm w-56" autoFocus value={category} onChange={(e) => onChange(e.target.value)}>
        {chart?.categories
          .filter((c) => holdsOn(c, date))
          .map((c) => (
            <option key={c.id} value={c.id}>
              {c.name} · account {c.account}
            </option>
          ))}
      </select>
    </label>
  );
}
