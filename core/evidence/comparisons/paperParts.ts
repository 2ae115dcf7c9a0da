import type { Line } from '../../documents/case.schema.ts';
import { fromMinor, readAmount } from '../../numbers/amount.ts';
import type { FoundItem } from '../reading/reading.types.ts';
import type { ReceiptEvidence } from './tie.types.ts';

type Claimed = Pick<Line, 'id' | 'amount' | 'currency' | 'items'>;

/** What the lines on a receipt claim of it and what it shows, in minor units of their currency; `shown` is null where the two cannot be compared. */
export function sumOnReceipt(
  receipt: Pick<ReceiptEvidence, 'amount' | 'currency'>,
  lines: readonly Claimed[],
  currency: string,
): { claimed: bigint; shown: bigint | null } {
  const claimed = lines
    .filter((l) => l.currency === currency)
    .reduce((sum, l) => sum + readAmount(l.amount, currency)!, 0n);
  const shown = receipt.amount !== null && receipt.currency === currency ? readAmount(receipt.amount, currency) : null;
  return { claimed, shown };
}

/** A row of what was bought, and the line it is claimed on; null where it is on none, or on which one is not plain. */
export interface PaperPart {
  item: FoundItem;
  line: string | null;
}

/**
 * Which line claims which rows of a paper. A line, or an item of one, takes the first free rows, one or some that follow
 * each other, that come to its amount. @param items rows as they were read, amounts in the receipt's currency
 */
export function paperParts(items: readonly FoundItem[], lines: readonly Claimed[], currency: string): PaperPart[] {
  const amounts = items.map((item) => readAmount(item.amount, currency));
  const taken: (string | null)[] = items.map(() => null);
  const wanted = lines
    .filter((l) => l.currency === currency)
    .flatMap((l) =>
      (l.items?.length ? l.items : [l]).map((part) => ({ line: l.id, minor: readAmount(part.amount, currency)! })),
    );
  for (let length = 1; length <= items.length; length += 1)
    for (const want of wanted.splice(0)) {
      const from = amounts.findIndex((_, i) =>
        isRun(amounts.slice(i, i + length), taken.slice(i, i + length), length, want.minor),
      );
      if (from < 0) wanted.push(want);
      else taken.fill(want.line, from, from + length);
    }
  return items.map((item, i) => ({ item, line: taken[i]! }));
}

const isRun = (
  amounts: readonly (bigint | null)[],
  taken: readonly (string | null)[],
  length: number,
  sum: bigint,
): boolean =>
  amounts.length === length
  && taken.every((line) => line === null)
  && amounts.every((a) => a !== null)
  && amounts.reduce<bigint>((total, a) => total + a!, 0n) === sum;

/** What of a receipt is on no line, as a decimal string; null where it is not known or nothing is left. */
export function leftOnReceipt(
  receipt: Pick<ReceiptEvidence, 'amount' | 'currency'>,
  lines: readonly Claimed[],
): string | null {
  const { currency } = receipt;
  if (currency === null || lines.some((l) => l.currency !== currency)) return null;
  const { claimed, shown } = sumOnReceipt(receipt, lines, currency);
  return shown === null || shown === claimed ? null : fromMinor(shown - claimed, currency);
}
