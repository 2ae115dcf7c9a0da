import { useMemo } from 'react';
import type { Coding } from '../../core/documents/case.schema.ts';
import { holdsOn } from '../../core/numbers/isoDate.ts';
import type { Chart } from '../api/chart.ts';
import { ownCodes, useOwnCodes } from '../api/codes.ts';
import { CodeChoice, type Choosable } from './CodeChoice.tsx';
import { failed } from './failed.ts';
import { ownOrder } from './ownOrder.ts';

interface CodingFieldsProps {
  chart: Chart | undefined;
  date: string;
  coding: Coding;
  /** What applies where this coding says nothing: shown as the empty choice. */
  inherited: Coding;
  label: string;
  autoFocus?: boolean;
  /** Also one field that finds a code of any dimension. */
  finds?: boolean;
  onChange: (coding: Coding) => void;
}

/** One choice a dimension among the codes valid on the date; empty takes what the level above says. */
export function CodingFields(props: CodingFieldsProps) {
  const { chart, date, coding, inherited, label, autoFocus = false, finds = false, onChange } = props;
  const own = useOwnCodes().data;
  const change = (dimension: string, code: string) => {
    const { [dimension]: _, ...rest } = coding;
    onChange(code ? { ...rest, [dimension]: code } : rest);
  };
  return (
    <div className="flex flex-wrap gap-1">
      {finds && chart && <AnyCode {...{ chart, date, label, autoFocus }} onTake={change} />}
      {chart?.dimensions.map((dimension, i) => (
        <CodeChoice
          key={dimension.id}
          label={`${dimension.name} of ${label}`}
          value={coding[dimension.id] ?? ''}
          none={inherited[dimension.id] ?? `no ${dimension.name.toLowerCase()}`}
          choices={ownOrder(codesOf(chart, dimension.id, date, coding[dimension.id]), own, dimension.id)}
          onKeep={(code, on) => void ownCodes.keep({ dimension: dimension.id, code, on }).catch(failed)}
          autoFocus={autoFocus && !finds && i === 0}
          onChange={(code) => change(dimension.id, code)}
        />
      ))}
    </div>
  );
}

interface AnyCodeProps extends Pick<CodingFieldsProps, 'date' | 'label'> {
  chart: Chart;
  autoFocus: boolean;
  onTake: (dimension: string, code: string) => void;
}

/** One field for all codes: what is found goes to the dimension it is of. */
function AnyCode({ chart, date, label, autoFocus, onTake }: AnyCodeProps) {
  const all = useMemo(
    () =>
      chart.dimensions.flatMap(({ id, name }) =>
        codesOf(chart, id, date, undefined).map((c) => ({
          ...c,
          ...{ dimension: id, of: c.code, code: `${name} ${c.code}` },
        })),
      ),
    [chart, date],
  );
  return (
    <CodeChoice
      label={`Any code of ${label}`}
      value=""
      none="any code"
      finds
      choices={all}
      autoFocus={autoFocus}
      onChange={(picked) => {
        const found = all.find((c) => c.code === picked);
        if (found) onTake(found.dimension, found.of);
      }}
    />
  );
}

/** The codes that are valid on the date, and the one that is chosen though it may not be. */
const codesOf = ({ values }: Chart, dimension: string, date: string, chosen: string | undefined): Choosable[] =>
  values
    .filter((v) => v.dimension === dimension && (holdsOn(v, date) || v.code === chosen))
    .map((v) => ({ code: v.code, name: v.name, hint: v.owner ? `ask ${v.owner}` : undefined }));
