import type { Coding } from '../../../core/documents/case.schema.ts';
import { holdsOn } from '../../../core/numbers/isoDate.ts';
import type { Chart } from '../../api/chart.ts';

interface CodingFieldsProps {
  chart: Chart | undefined;
  date: string;
  coding: Coding;
  /** What applies where this coding says nothing: shown as the empty choice. */
  inherited: Coding;
  label: string;
  autoFocus?: boolean;
  onChange: (coding: Coding) => void;
}

/** One choice a dimension among the codes valid on the date; empty takes what the level above says. */
export function CodingFields(props: CodingFieldsProps) {
  const { chart, date, coding, inherited, label, autoFocus = false, onChange } = props;
  const change = (dimension: string, code: string) => {
    const { [dimension]: _, ...rest } = coding;
    onChange(code ? { ...rest, [dimension]: code } : rest);
  };
  return (
    <div className="flex flex-wrap gap-1">
      {chart?.dimensions.map((dimension, i) => (
        <select
          key={dimension.id}
          aria-label={`${dimension.name} of ${label}`}
          title={dimension.name}
          autoFocus={autoFocus && i === 0}
          className={`select select-xs w-[5.6rem] truncate pe-6 ${coding[dimension.id] ? 'font-medium' : 'quiet'}`}
          value={coding[dimension.id] ?? ''}
          onChange={(e) => change(dimension.id, e.target.value)}
        >
          <option value="">{inherited[dimension.id] ?? `no ${dimension.name.toLowerCase()}`}</option>
          <Codes values={chart.values} dimension={dimension.id} date={date} chosen={coding[dimension.id]} />
        </select>
      ))}
    </div>
  );
}

interface CodesProps {
  values: Chart['values'];
  dimension: string;
  date: string;
  chosen: string | undefined;
}

/** The codes that are valid on the date, and the one that is chosen though it may not be. */
const Codes = ({ values, dimension, date, chosen }: CodesProps) =>
  values
    .filter((v) => v.dimension === dimension && (holdsOn(v, date) || v.code === chosen))
    .map((v) => (
      <option key={v.code} value={v.code} title={v.owner ? `Questions to ${v.owner}` : undefined}>
        {v.code} {v.name}
      </option>
    ));
