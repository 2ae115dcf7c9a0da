import type { Chart } from '../api/chart.ts';
import { ownCodes, useOwnCodes } from '../api/codes.ts';
import { CodeChoice } from './CodeChoice.tsx';
import { failed } from './failed.ts';
import { ownOrder } from './ownOrder.ts';

interface CategoryChoiceProps {
  label: string;
  value: string;
  none: string;
  chart: Chart | undefined;
  onChange: (category: string) => void;
}

/** Categories with what they are called. */
export const categoriesOf = (chart: Chart | undefined): { id: string; name: string }[] =>
  (chart?.categories ?? []).map(({ id, name }) => ({ id, name: name ?? id }));

/** A category, chosen by part of its name. */
export function CategoryChoice({ chart, ...choice }: CategoryChoiceProps) {
  const own = useOwnCodes().data;
  const choices = categoriesOf(chart).map(({ id, name }) => ({ code: id, name }));
  return (
    <CodeChoice
      {...choice}
      byName
      choices={ownOrder(choices, own, null)}
      onKeep={(code, on) => void ownCodes.keep({ dimension: null, code, on }).catch(failed)}
    />
  );
}
