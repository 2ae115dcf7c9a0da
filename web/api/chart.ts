import useSWR from 'swr';
import type { Category, Coding, TaxCode } from '../../core/documents/case.schema.ts';
import { get } from './client.ts';

/** A code of a dimension, with who answers questions about it. */
export interface DimensionValue {
  dimension: string;
  code: string;
  name: string;
  from: string | null;
  to: string | null;
  owner: string | null;
}
export interface Chart {
  dimensions: { id: string; name: string }[];
  values: DimensionValue[];
  categories: Category[];
  taxCodes: TaxCode[];
  accounts: { code: string; name: string }[];
}

export const useChart = () => useSWR('/chart', get<Chart>, { revalidateOnFocus: false, dedupingInterval: 300_000 });
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
