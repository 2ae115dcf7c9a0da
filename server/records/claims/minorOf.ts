import { readAmount } from '../../../core/numbers/amount.ts';
import { Refused } from '../../platform/http/refusal.ts';

/** Minor units of an amount that somebody sent; refused at its path when it has not the decimals of its currency. */
export function minorOf(amount: string, currency: string, path: string): bigint {
  const read = readAmount(amount, currency);
  if (read === null) throw new Refused('decimals', { amount, currency, path });
  return read;
}
