import type { Line } from '../../../../core/documents/case.schema.ts';
import { readAmount, toMinor } from '../../../../core/numbers/amount.ts';
import type { MakerView } from '../../../api/claims.ts';

/**
 * What of a line's receipt no line claims when the line itself claims `own` (minor units of its currency); of the line's
 * amount where there is no receipt, or it shows another currency.
 */
export function receiptLeft(
  { receipts, document }: Pick<MakerView, 'receipts' | 'document'>,
  line: Line,
  own: bigint,
): { of: 'receipt' | 'line'; left: bigint } {
  const { currency } = line;
  const receipt = receipts[line.id];
  const shown = receipt?.total.currency === currency ? readAmount(receipt.total.amount ?? '', currency) : null;
  if (!receipt || shown === null) return { of: 'line', left: toMinor(line.amount, currency) - own };
  const others = document.lines.filter(
    (l) => l.id !== line.id && l.currency === currency && receipts[l.id]?.id === receipt.id,
  );
  return { of: 'receipt', left: others.reduce((a, l) => a - toMinor(l.amount, currency), shown) - own };
}
