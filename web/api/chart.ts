import useSWR from 'swr';
import type { Coding } from '../../core/documents/case.schema.ts';
import { chartAnswer, payeesAnswer, type Chart } from '../../contract/chart.ts';
import { getter } from './client.ts';

export type { Chart, DimensionValue } from '../../contract/chart.ts';

export const useChart = () =>
  useSWR('/chart', getter(chartAnswer), { revalidateOnFocus: false, dedupingInterval: 300_000 });
export const usePayees = (asked: boolean) => useSWR(asked ? '/payees' : null, getter(payeesAnswer));
export const accountName = (chart: Chart | undefined, code: string): string =>
  chart?.accounts.find((a) => a.code === code)?.name ?? '';

/** The codes of a coding in the order of the chart's dimensions: "410 · 10 · REED-11". */
export function sayCoding(coding: Coding, chart: Chart | undefined): string {
  const order = chart?.dimensions.map((d) => d.id) ?? [];
  const rank = (dimension: string) => (order.includes(dimension) ? order.indexOf(dimension) : order.length);
  return Object.entries(coding)
    .sort(([a], [b]) => rank(a) - rank(b))
    .map(([, code]) => code)
    .join(' · ');
}
