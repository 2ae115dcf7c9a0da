import type { CategoryField } from '../../../../core/documents/category.schema.ts';
import type { Line } from '../../../../core/documents/case.schema.ts';
import { holdsOn } from '../../../../core/numbers/isoDate.ts';
import type { Chart } from '../../../api/chart.ts';

/** The fields a category asks for on a line's day. */
export function fieldsAsked(
  chart: Chart | undefined,
  { category, date }: Pick<Line, 'category' | 'date'>,
): readonly CategoryField[] {
  return chart?.categories.find((c) => c.id === category && holdsOn(c, date))?.fields ?? [];
}

/** Whether a line of the category is computed from what it says of a journey or of days, so that no amount is typed. */
export const isComputed = (chart: Chart | undefined, category: string, date: string): boolean =>
  fieldsAsked(chart, { category, date }).some(
    ({ name, need }) => need === 'required' && (name === 'journey' || name === 'stay'),
  );
