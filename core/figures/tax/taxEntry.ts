import type { TaxCode } from '../../documents/case.schema.ts';
import { magnitude, signOf } from '../../numbers/amount.ts';
import { decimalToFraction } from '../../numbers/decimal.ts';
import { fraction, ONE, plus, times, ZERO, type Fraction } from '../../numbers/fraction.ts';
import { roundHalfAway } from '../../numbers/roundHalfAway.ts';
import { apportion } from '../split/apportion.ts';

/** One tax of a code: `factor` is its tax on 1 of net, tax on tax included. */
export interface Component {
  id: string | null;
  account: string;
  recovery: Fraction;
  factor: Fraction;
}
/** Figures of one entry in minor units of the line's currency; `off` is given − computed when a receipt's tax was given. */
export interface EntryFigures {
  ok: true;
  net: bigint;
  taxes: bigint[];
  off: bigint | null;
}
export type EntryProblem = {
  ok: false;
  problem: 'given-sign' | 'given-above-gross' | 'given-on-untaxed' | 'given-on-self-assessed';
};

const HUNDREDTH = fraction(1n, 100n);
const percentOf = (text: string | null | undefined): Fraction =>
  text ? times(decimalToFraction(text), HUNDREDTH) : ONE;

/**
 * The components of a code in order; a code with a plain rate has one, without an id. {rate: "23"} → one component
 * without an id; federal 5 and state 8 → two.
 */
export function componentsOf(code: TaxCode): Component[] {
  const rows = code.components ?? [
    { id: null, rate: code.rate!, on: 'net' as const, account: code.account!, recovery: code.recovery },
  ];
  let sum = ZERO;
  return rows.map((row) => {
    const rate = percentOf(row.rate);
    const factor = row.on === 'running' ? times(rate, plus(ONE, sum)) : rate;
    sum = plus(sum, factor);
    return { id: row.id, account: row.account, recovery: percentOf(row.recovery), factor };
  });
}

/**
 * Tax contained in a gross amount (minor units, tax included): component k is round(gross × c_k / (1 + Σc)).
 * A given tax, from the receipt, is apportioned over the components by the same factors instead.
 * 100.01 with 23 % → tax 18.70, net 81.31; −100.01 → −18.70; 0 → 0.
 */
export function includedTax(
  gross: bigint,
  components: readonly Component[],
  given: bigint | null,
): EntryFigures | EntryProblem {
  const weights = commonWeights(components);
  const sum = weights.factors.reduce((a, w) => a + w, 0n);
  const base = weights.unit + sum;
  const computed = weights.factors.map((w) => roundHalfAway(gross * w, base));
  if (given === null) return { ok: true, net: gross - total(computed), taxes: computed, off: null };
  const problem = givenProblem(given, gross, sum);
  if (problem) return { ok: false, problem };
  const taxes = sum === 0n ? computed : apportion(given, weights.factors);
  return { ok: true, net: gross - given, taxes, off: given - total(computed) };
}

/**
 * Tax the buyer owes himself on a gross that holds none: round(gross × rate); net = gross. 48000n at 23 % → tax
 * 11040n, net 48000n; a credit of -48000n → -11040n.
 */
export function selfAssessedTax(
  gross: bigint,
  component: Component,
  given: bigint | null,
): EntryFigures | EntryProblem {
  if (given !== null) return { ok: false, problem: 'given-on-self-assessed' };
  return { ok: true, net: gross, taxes: [roundHalfAway(gross * component.factor.n, component.factor.d)], off: null };
}

/**
 * What the tax authority gives back of one component's tax: tax × its own, the category's and the entity's recovery,
 * rounded once. -2300n with a category’s 50 % → -1150n; with 0 % → 0n. Minor units, half away from zero.
 */
export function recoverableTax(
  tax: bigint,
  component: Component,
  category?: string | null,
  entity?: string | null,
): bigint {
  const share = times(component.recovery, times(percentOf(category), percentOf(entity)));
  return roundHalfAway(tax * share.n, share.d);
}

function givenProblem(given: bigint, gross: bigint, sum: bigint): EntryProblem['problem'] | null {
  if (given !== 0n && sum === 0n) return 'given-on-untaxed';
  if (given !== 0n && signOf(given) !== signOf(gross)) return 'given-sign';
  return magnitude(given) > magnitude(gross) ? 'given-above-gross' : null;
}

/** The factors over one denominator: integers `factors` per `unit`. */
function commonWeights(components: readonly Component[]): { factors: bigint[]; unit: bigint } {
  const unit = components.reduce((d, c) => (c.factor.d > d ? c.factor.d : d), 1n);
  const aligned = components.every((c) => unit % c.factor.d === 0n);
  const common = aligned ? unit : components.reduce((d, c) => d * c.factor.d, 1n);
  return { factors: components.map((c) => (c.factor.n * common) / c.factor.d), unit: common };
}

const total = (figures: readonly bigint[]): bigint => figures.reduce((a, f) => a + f, 0n);
