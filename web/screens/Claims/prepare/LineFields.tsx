import type { CategoryField } from '../../../../core/documents/category.schema.ts';
import type { Line } from '../../../../core/documents/case.schema.ts';
import type { Chart } from '../../../api/chart.ts';
import { Cell } from '../../../parts/Cell.tsx';
import { JourneyFields } from './JourneyFields.tsx';
import { fieldsAsked } from './fieldsAsked.ts';
import { StayFields } from './StayFields.tsx';
import type { LineRowProps } from './lineRow.types.ts';
import { DayCell } from '../../../parts/days/DayCell.tsx';

type FieldProps = Pick<LineRowProps, 'view' | 'line' | 'row' | 'draft' | 'chart'> & { field: CategoryField };

/** What the category of a line asks of it, field by field; the rest is not there. */
export function LineFields({ view, line, row, draft, chart }: Omit<FieldProps, 'field'>) {
  return fieldsAsked(chart, line).map((field) => (
    <div key={field.name} className="contents">
      <dt className="quiet">
        {field.label}
        {field.need === 'required' && <span className="text-error"> *</span>}
      </dt>
      <dd>
        <Field {...{ view, line, row, draft, chart, field }} />
      </dd>
    </div>
  ));
}

function Field(props: FieldProps) {
  switch (props.field.name) {
    case 'nights':
      return <NightsField {...props} />;
    case 'attendees':
      return <PeopleFields {...props} />;
    case 'journey':
      return <JourneyFields {...props} />;
    case 'stay':
      return <StayFields {...props} />;
    case 'quantity':
      return <span className="quiet">below, as count × price</span>;
    default:
      return <TextField {...props} />;
  }
}

const isCount = (typed: string): string | null =>
  /^([1-9]\d{0,3})?$/.test(typed.trim()) ? null : 'A whole number, at least 1.';
const countOf = (typed: string): number | null => (typed.trim() ? Number(typed) : null);

const NightsField = ({ line, row, draft, field }: FieldProps) => (
  <div className="w-20">
    <Cell
      label={`${field.label} of line ${line.id}`}
      row={row}
      column="nights"
      value={line.nights ? String(line.nights) : ''}
      problemOf={isCount}
      onSave={(typed, done) => draft.editLine(line.id, { nights: countOf(typed) }, done)}
    />
  </div>
);

function PeopleFields({ line, row, draft, field }: FieldProps) {
  const { count, names } = line.attendees ?? {};
  const save = (set: { count?: number | null; names?: string[] }, done: (error: Error | null) => void) => {
    const next = { count: count ?? null, names: names ?? [], ...set };
    const people = next.count === null && next.names.length > 0 ? next.names.length : next.count;
    draft.editLine(line.id, { attendees: people === null ? null : { count: people, names: next.names } }, done);
  };
  return (
    <div className="flex gap-2">
      <span className="w-20">
        <Cell
          label={`${field.label}, how many, of line ${line.id}`}
          row={row}
          column="people"
          value={count ? String(count) : ''}
          placeholder="how many"
          problemOf={isCount}
          onSave={(typed, done) => save({ count: countOf(typed) }, done)}
        />
      </span>
      <span className="min-w-0 flex-1">
        <Cell
          label={`${field.label}, names, of line ${line.id}`}
          row={row}
          column="names"
          value={(names ?? []).join(', ')}
          placeholder={field.namesUnder ? `names, where fewer than ${field.namesUnder}; commas between` : 'names'}
          onSave={(typed, done) => save({ names: namesIn(typed) }, done)}
        />
      </span>
    </div>
  );
}

const namesIn = (typed: string): string[] =>
  typed
    .split(/[,;\n]/)
    .map((name) => name.trim())
    .filter(Boolean);

function TextField({ line, row, draft, field }: FieldProps) {
  const { [field.name]: value = '', ...rest } = line.fields ?? {};
  const Typed = field.as === 'date' ? DayCell : Cell;
  return (
    <div className={field.as === 'date' ? 'w-40' : 'max-w-md'}>
      <Typed
        label={`${field.label} of line ${line.id}`}
        row={row}
        column={field.name}
        value={value}
        problemOf={(typed) => (typed.length > 300 ? 'At most 300 characters.' : null)}
        onSave={(typed, done) =>
          draft.editLine(line.id, { fields: typed.trim() ? { ...rest, [field.name]: typed.trim() } : rest }, done)
        }
      />
    </div>
  );
}

/** What of a line its next category does not ask for, by its labels; it is dropped when that is chosen. */
export function droppedBy(chart: Chart | undefined, line: Line, category: string): string[] {
  const next = new Set(fieldsAsked(chart, { ...line, category }).map((f) => f.name));
  const said = fieldsAsked(chart, line).filter(({ name }) => says(line, name));
  return said.filter(({ name }) => !next.has(name)).map(({ label }) => label);
}

const says = (line: Line, name: string): boolean =>
  Boolean(line.fields?.[name] ?? (line as unknown as Record<string, unknown>)[name]);
