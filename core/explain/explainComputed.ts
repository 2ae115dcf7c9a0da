import type { Item, Line } from '../documents/case.schema.ts';
import { dailyAllowance } from '../figures/allowance/dailyAllowance.ts';
import { mileage } from '../figures/allowance/mileage.ts';
import type { OpenCase } from '../figures/figures.types.ts';
import { fromMinor, toMinor } from '../numbers/amount.ts';
import { decimalToFraction, fractionToDecimal } from '../numbers/decimal.ts';
import { times } from '../numbers/fraction.ts';
import type { Explanation } from './explain.types.ts';

/**
 * What the amount of a line or item is computed from, and what finance let stand of it: quantity (rule 29), mileage tier by
 * tier (27), allowance day by day (28), cut (31). Example: 2 × 101.00 → one explanation, "count × unit price".
 */
export function explainSource(open: OpenCase, line: Line, source: Line | Item): Explanation[] {
  const common = { line: line.id, item: source === line ? null : source.id, share: null, rates: [] };
  const steps = [
    ...quantitySteps(source),
    ...(source === line ? [...journeySteps(open, line), ...staySteps(open, line)] : []),
    ...cutSteps(line, source),
  ];
  return steps.map((step) => ({ ...common, currency: line.currency, exact: null, ...step }));
}

type Step = Pick<Explanation, 'figure' | 'rule' | 'inputs' | 'formula' | 'result'>
  & Partial<Pick<Explanation, 'exact' | 'currency'>>;

function quantitySteps({ quantity, amount }: Line | Item): Step[] {
  if (!quantity) return [];
  const { count, unitPrice } = quantity;
  const exact = fractionToDecimal(times(decimalToFraction(count), decimalToFraction(unitPrice)), 12);
  const inputs = { count, 'unit price': unitPrice };
  return [{ figure: 'amount', rule: '29', inputs, formula: 'count × unit price', exact, result: amount }];
}

function journeySteps({ case: { book } }: OpenCase, { journey, date }: Line): Step[] {
  if (!journey) return [];
  const found = mileage({ ...journey, date }, book.mileageRates ?? []);
  const tiers = (found?.tiers ?? []).map((t) => `${t.distance} at ${t.rate}`).join(', ');
  const inputs: Record<string, string> = {
    distance: `${journey.distance} ${journey.unit}`,
    vehicle: journey.vehicle,
    ...(journey.before ? { 'before in the tax year': `${journey.before} ${journey.unit}` } : {}),
    ...(journey.passengers ? { passengers: String(journey.passengers) } : {}),
    ...(tiers ? { tiers } : {}),
    ...(found && /[1-9]/.test(found.taxable) ? { 'above the tax-free rate': found.taxable } : {}),
  };
  const formula = 'distance × rate, tier by tier, and the passengers’ supplement';
  return [{ figure: 'amount', rule: '27', inputs, formula, result: found?.amount ?? null, ...currencyOf(found) }];
}

function staySteps({ case: { book } }: OpenCase, { stay }: Line): Step[] {
  const { days } = dailyAllowance(stay ?? [], book.allowanceRates ?? []);
  return days.map((day, i) => {
    const { country, place, edge, private: own, provided, hours } = stay![i]!;
    const inputs: Record<string, string> = {
      day: day.date,
      where: place ? `${place}, ${country}` : country,
      ...(edge ? { 'first or last day': hours == null ? 'yes' : `${hours} hours` } : {}),
      ...(own ? { private: 'yes' } : {}),
      ...(provided?.length ? { provided: provided.join(', ') } : {}),
    };
    const formula = 'the day’s rate, reduced on the first and last day, less meals provided';
    return { figure: `allowance ${day.date}`, rule: '28', inputs, formula, result: day.amount, ...currencyOf(day) };
  });
}

const currencyOf = (found: { currency: string | null } | null) => (found?.currency ? { currency: found.currency } : {});

function cutSteps({ paidBy, currency }: Line, { cut, amount }: Line | Item): Step[] {
  if (!cut) return [];
  const inputs = { claimed: amount, cut: cut.amount, reason: cut.reason };
  const formula = paidBy === 'card' ? 'claimed − cut; what is cut is private' : 'claimed − cut';
  const result = fromMinor(toMinor(amount, currency) - toMinor(cut.amount, currency), currency);
  return [{ figure: 'allowed', rule: '31', inputs, formula, result }];
}
