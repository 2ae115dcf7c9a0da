import type { GatheredReceipt } from '../../api/gather.ts';
import { isReady, titleOf } from './facts.ts';

export const ORDERS = {
  added: 'newest first',
  date: 'by date',
  amount: 'by amount',
  merchant: 'by merchant',
  attention: 'what needs a look first',
} as const;
export type Order = keyof typeof ORDERS;

/** What is shown of a receipt in a list: confirmed, else read. */
export const amountOf = (r: GatheredReceipt): string | null => r.confirmed?.amount ?? r.reading?.amount?.value ?? null;
export const currencyOf = (r: GatheredReceipt): string | null =>
  r.confirmed?.currency ?? r.reading?.currency?.value ?? null;
export const dateOf = (r: GatheredReceipt): string | null => r.confirmed?.date ?? r.reading?.date?.value ?? null;

/** What is on a claim that went in stays as it is. */
export const isChoosable = (r: GatheredReceipt): boolean =>
  r.usedOn.every((use) => use.state === 'draft' || use.state === 'returned');

/** How far a receipt has come, in words. */
export function standingOf(r: GatheredReceipt): string {
  if (r.state === 'failed') return 'could not be read';
  if (r.confirmed) return 'confirmed';
  if (r.state === 'waiting') return 'being read';
  return isReady(r) ? 'read with certainty' : 'look and confirm';
}

const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/** The receipts in which every word is found: in name, merchant, amount, date, claim or standing. */
export function found(receipts: readonly GatheredReceipt[], words: string): GatheredReceipt[] {
  const wanted = plain(words).split(/\s+/).filter(Boolean);
  if (wanted.length === 0) return [...receipts];
  return receipts.filter((r) => {
    const text = plain(
      [
        titleOf(r),
        r.name,
        r.cameIn,
        amountOf(r),
        currencyOf(r),
        dateOf(r),
        standingOf(r),
        ...r.usedOn.map((u) => u.claim),
      ].join(' '),
    );
    return wanted.every((word) => text.includes(word));
  });
}

const ATTENTION = ['could not be read', 'look and confirm', 'being read', 'read with certainty', 'confirmed'];

/** In an order; what has no date, amount or name comes last, and equals stay newest first. */
export function sorted(receipts: readonly GatheredReceipt[], order: Order): GatheredReceipt[] {
  const last = <T>(value: T | null, other: T | null, compare: (a: T, b: T) => number): number =>
    value === null || other === null ? Number(value === null) - Number(other === null) : compare(value, other);
  const by: Record<Order, (a: GatheredReceipt, b: GatheredReceipt) => number> = {
    added: () => 0,
    date: (a, b) => last(dateOf(a), dateOf(b), (x, y) => (x < y ? 1 : x > y ? -1 : 0)),
    amount: (a, b) => last(amountOf(a), amountOf(b), (x, y) => Number(y) - Number(x)),
    merchant: (a, b) => titleOf(a).localeCompare(titleOf(b)),
    attention: (a, b) => ATTENTION.indexOf(standingOf(a)) - ATTENTION.indexOf(standingOf(b)),
  };
  return [...receipts].sort(by[order]);
}
