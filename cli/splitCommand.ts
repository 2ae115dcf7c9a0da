import { minorUnits } from '../core/numbers/minorUnits.ts';
import { fromMinor, readAmount } from '../core/numbers/amount.ts';
import { splitWeights } from '../core/figures/split/splitWeights.ts';
import { apportion } from '../core/figures/split/apportion.ts';
import { print, readOptions, Usage, type Command } from './options.ts';

const help = `Usage: ebbet split AMOUNT CURRENCY WEIGHT…

Divides an amount over weights by the largest remainder and prints one share a line. The shares add up to the amount.

  ebbet split 100.00 EUR 1 1 1      33.34  33.33  33.33
  ebbet split -100 JPY 50 30.5 19.5

AMOUNT has the decimals of its currency, or none. Weights are not negative and not all 0.`;

async function run(args: string[]): Promise<number> {
  const { operands } = readOptions(args, {});
  const [amount, currency, ...values] = operands;
  if (!amount || !currency || values.length === 0)
    throw new Usage('it needs an amount, a currency and at least one weight');
  if (minorUnits(currency) === null) throw new Usage(`"${currency}" is not an ISO 4217 currency with minor units`);
  const total = readAmount(amount, currency) ?? readAmount(withDecimals(amount, currency), currency);
  if (total === null) throw new Usage(`"${amount}" is not an amount with the decimals of ${currency}`);
  const weights = splitWeights(
    { by: 'weight', shares: values.map((value) => ({ coding: {}, value })) },
    total,
    currency,
  );
  if (!weights.ok) throw new Usage(REASONS[weights.problem] ?? weights.problem);
  for (const share of apportion(total, weights.weights)) await print(fromMinor(share, currency));
  return 0;
}

/** A whole amount with the decimals of its currency: ("100", "EUR") → "100.00". */
function withDecimals(amount: string, currency: string): string {
  const decimals = minorUnits(currency)!;
  return decimals > 0 && /^-?\d+$/.test(amount) ? `${amount}.${'0'.repeat(decimals)}` : amount;
}

const REASONS: Record<string, string> = {
  value: 'a weight is not a plain decimal number',
  negative: 'a weight is negative',
  'all-zero': 'the weights are all 0',
  rest: 'rest is not a weight',
};

export const splitCommand: Command = { help, run };
