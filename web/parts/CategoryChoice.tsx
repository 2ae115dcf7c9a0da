import type { Chart } from '../api/chart.ts';
import { CodeChoice } from './CodeChoice.tsx';

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
export const CategoryChoice = ({ chart, ...choice }: CategoryChoiceProps) => (
  <CodeChoice {...choice} byName choices={categoriesOf(chart).map(({ id, name }) => ({ code: id, name }))} />
);
