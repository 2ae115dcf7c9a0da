import type { Place } from './tableWords.ts';

/** What has to be said of a table before its cells can be read. */
export interface WaysTold {
  order: 'dmy' | 'mdy' | 'ymd';
  mark: ',' | '.';
  spent: 'positive' | 'negative';
}
/** How a table writes its cells. */
export interface Ways extends WaysTold {
  named: boolean;
  group: string;
  signAfter: boolean;
}

/** A day as the table writes it. */
export function day(iso: string, { order, named }: Ways, { months, between }: Place): string {
  const [y, m, d] = iso.split('-') as [string, string, string];
  if (named) return `${Number(d)} ${months[Number(m) - 1]} ${y}`;
  if (order === 'ymd') return between === '' ? `${y}${m}${d}` : `${y}-${m}-${d}`;
  const sign = between || '/';
  return order === 'dmy' ? `${d}${sign}${m}${sign}${y}` : `${m}${sign}${d}${sign}${y}`;
}

/** An amount the other way round. */
export const turned = (amount: string): string =>
  amount.startsWith('-') ? amount.slice(1) : /[1-9]/.test(amount) ? `-${amount}` : amount;

/** An amount, "-1234.50", as the table writes it. */
export function figure(amount: string, { mark, group, signAfter }: Ways): string {
  const [whole, decimals] = amount.replace('-', '').split('.') as [string, string | undefined];
  const grouped = inThrees(whole).join(group);
  const plain = decimals === undefined ? grouped : `${grouped}${mark}${decimals}`;
  return !amount.startsWith('-') ? plain : signAfter ? `${plain}-` : `-${plain}`;
}

const inThrees = (whole: string): string[] =>
  whole.length <= 3 ? [whole] : [...inThrees(whole.slice(0, -3)), whole.slice(-3)];
