import type { Line } from '../../core/documents/case.schema.ts';
import { holdsOn } from '../../core/numbers/isoDate.ts';
import type { Chart } from '../api/chart.ts';

/** The tax codes that hold on the day of a line, those of its country first. */
export function taxCodesFor(
  chart: Chart | undefined,
  { date, country }: Pick<Line, 'date' | 'country'>,
): Chart['taxCodes'] {
  const codes = chart?.taxCodes.filter((c) => holdsOn(c, date)) ?? [];
  return [...codes.filter((c) => c.country === country), ...codes.filter((c) => c.country !== country)];
}
