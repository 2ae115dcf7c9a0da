import type { Line } from '../../core/documents/case.schema.ts';
import { holdsOn } from '../../core/numbers/isoDate.ts';
import type { Chart } from '../api/chart.ts';

type Of = Pick<Line, 'date' | 'country'>;

/** The tax codes that hold on the day of a line, those of its country first. */
export function taxCodesFor(chart: Chart | undefined, { date, country }: Of): Chart['taxCodes'] {
  const codes = chart?.taxCodes.filter((c) => holdsOn(c, date)) ?? [];
  return [...codes.filter((c) => c.country === country), ...codes.filter((c) => c.country !== country)];
}

/** The code a tax of a line begins with: the one of its country, where there is one alone; otherwise none, and it is asked for. */
export function onlyTaxCode(codes: Chart['taxCodes'], { country }: Pick<Line, 'country'>): string | null {
  const own = country ? codes.filter((c) => c.country === country) : [];
  return own.length === 1 ? own[0]!.code : null;
}
