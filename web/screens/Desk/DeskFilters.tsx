import type { ReactNode } from 'react';
import { TIE_KINDS } from '../../../core/evidence/comparisons/tie.types.ts';
import type { StandingFilter } from '../../../contract/desk.ts';
import { useChart, type Chart } from '../../api/chart.ts';
import { useEntities } from '../../api/desk.ts';
import { SAY_STANDING, type Filter } from './filter.ts';

interface FiltersProps {
  filter: Filter;
  onChange: (changes: Partial<Filter>) => void;
}

/** Everything the Desk can be narrowed to, each at once. */
export function DeskFilters({ filter, onChange }: FiltersProps) {
  const { data: chart } = useChart();
  const { data: entities } = useEntities();
  const field = (name: 'person' | 'min' | 'max' | 'older', label: string, width: string) => (
    <Labelled label={label}>
      <input
        className={`input input-sm ${width}`}
        inputMode={name === 'person' ? 'text' : 'decimal'}
        value={filter[name]}
        onChange={(e) => onChange({ [name]: e.target.value })}
      />
    </Labelled>
  );
  return (
    <div role="group" aria-label="Filters" className="grid gap-2 border-t border-base-300 bg-base-100 px-4 py-2">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <Choice
          label="Entity"
          value={filter.entity}
          options={(entities?.entities ?? []).map((e) => [e.id, e.name])}
          onChange={(entity) => onChange({ entity })}
        />
        {field('person', 'Person', 'w-36')}
        <CodeField code={filter.code} chart={chart} onChange={(code) => onChange({ code })} />
        <Choice
          label="Category"
          value={filter.category}
          options={categoriesOf(chart)}
          onChange={(category) => onChange({ category })}
        />
        <Choice
          label="Not dealt with"
          value={filter.off}
          options={TIE_KINDS.map((kind) => [kind, kind])}
          onChange={(off) => onChange({ off })}
        />
        {field('min', 'Total from', 'w-24')}
        {field('max', 'to', 'w-24')}
        {field('older', 'Days old, at least', 'w-20')}
      </div>
      <Standings is={filter.is} onChange={(is) => onChange({ is })} />
    </div>
  );
}

function Labelled({ label, children }: { label: string; children: ReactNode }) {
  return (
    <label className="grid gap-0.5 text-sm">
      <span className="quiet">{label}</span>
      {children}
    </label>
  );
}

interface ChoiceProps {
  label: string;
  value: string;
  options: readonly (readonly [string, string])[];
  onChange: (value: string) => void;
}

function Choice({ label, value, options, onChange }: ChoiceProps) {
  return (
    <Labelled label={label}>
      <select className="select select-sm w-40" value={value} onChange={(e) => onChange(e.target.value)}>
        <option value="">any</option>
        {options.map(([id, name]) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </Labelled>
  );
}

const categoriesOf = (chart: Chart | undefined): [string, string][] => [
  ...new Map(chart?.categories.map((c) => [c.id, c.name ?? c.id])),
];

/** One code of any dimension, found by code or words. */
function CodeField({
  code,
  chart,
  onChange,
}: {
  code: string;
  chart: Chart | undefined;
  onChange: (code: string) => void;
}) {
  const names = new Map(
    chart?.values.map((v) => [
      `${v.dimension}:${v.code}`,
      `${v.code} ${v.name} (${chart.dimensions.find((d) => d.id === v.dimension)?.name ?? v.dimension})`,
    ]),
  );
  const read = (typed: string) => onChange([...names].find(([, name]) => name === typed)?.[0] ?? '');
  return (
    <Labelled label="Code">
      <input
        key={code}
        className="input input-sm w-56"
        list="desk-codes"
        placeholder="Cost centre, project, fund, grant"
        defaultValue={names.get(code) ?? code}
        onChange={(e) =>
          (e.target.value === '' || [...names.values()].includes(e.target.value)) && read(e.target.value)
        }
      />
      <datalist id="desk-codes">
        {[...names].map(([key, name]) => (
          <option key={key} value={name} />
        ))}
      </datalist>
    </Labelled>
  );
}

function Standings({ is, onChange }: { is: readonly StandingFilter[]; onChange: (is: StandingFilter[]) => void }) {
  return (
    <div role="group" aria-label="How it stands" className="flex flex-wrap gap-x-4 gap-y-1 text-sm">
      {(Object.keys(SAY_STANDING) as StandingFilter[]).map((name) => (
        <label key={name} className="flex items-center gap-1.5">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={is.includes(name)}
            onChange={(e) => onChange(e.target.checked ? [...is, name] : is.filter((other) => other !== name))}
          />
          {SAY_STANDING[name]}
        </label>
      ))}
    </div>
  );
}
