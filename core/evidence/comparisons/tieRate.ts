import type { OpenCase } from '../../figures/figures.types.ts';
import { lineConverter } from '../../figures/currency/converter.ts';
import type { Rate } from '../../figures/currency/rateTable.ts';
import { daysBetween } from '../../numbers/isoDate.ts';
import { entityOn } from '../../figures/openCase.ts';
import { rateDateOf } from '../../figures/rateDateOf.ts';
import type { Line } from '../../documents/case.schema.ts';
import { fromMinor, minorPerMajor, toMinor } from '../../numbers/amount.ts';
import { decimalToFraction, fractionToDecimal } from '../../numbers/decimal.ts';
import { compare, fraction, minus, ONE, over, times, type Fraction } from '../../numbers/fraction.ts';
import { fromComparisons } from './_lib/states.ts';
import type { Comparison, Step, Tie } from './tie.types.ts';

const PLACES = 8;

/**
 * Rate used with the published rate of the date. A published rate ties with itself and shows its quotes; a card's rate
 * (settled over charged) and a claimant's own rate are compared with the published one within the entity's tolerance.
 * Example: own rate 0.95, published 0.90, tolerance 2 % → off by 5.56 %.
 */
export function tieRate(open: OpenCase, line: Line): Tie {
  const targets = [...new Set([open.claimCurrency, open.ledgerCurrency])].filter((c) => c !== line.currency);
  if (targets.length === 0)
    return { line: line.id, kind: 'rate', state: 'none', difference: null, comparisons: [], steps: [] };
  const date = rateDateOf(open, line);
  const comparisons = [used(open, line, date), ...targets.map((to) => published(open, line, to, date))].filter(
    (c) => c !== null,
  );
  const steps = targets.flatMap((to) => stepsTo(open, line, to, date));
  const off = comparisons.find((c) => c.state === 'off');
  return { ...fromComparisons(line.id, 'rate', comparisons), difference: off?.difference ?? null, steps };
}

/** The rate a card or a claimant brought, against the published one; null when the published rate itself is used. */
function used(open: OpenCase, line: Line, date: string): Comparison | null {
  const brought = broughtRate(line, open.claimCurrency);
  if (!brought) return null;
  const { value, to, fact } = brought;
  const reference = open.rates.find(line.currency, to, date);
  const tolerance = entityOn(open, line.date).ownRateTolerance ?? '0';
  const off = reference ? times(minus(over(value, reference.value), ONE), fraction(100n)) : null;
  const size = off && (off.n < 0n ? { n: -off.n, d: off.d } : off);
  const within = size !== null && compare(size, decimalToFraction(tolerance)) <= 0;
  return {
    fact,
    claimed: fractionToDecimal(value, PLACES),
    evidence: reference && fractionToDecimal(reference.value, PLACES),
    difference: off && `${off.n < 0n ? '−' : '+'}${fractionToDecimal(size!, 2)} %`,
    tolerance: `${tolerance} %`,
    state: within ? 'tied' : reference || line.rate?.kind === 'own' ? 'off' : 'open',
  };
}

function broughtRate(line: Line, claimCurrency: string): { value: Fraction; to: string; fact: string } | null {
  if (line.rate?.kind === 'own')
    return {
      value: decimalToFraction(line.rate.value),
      to: claimCurrency,
      fact: `own rate, ${claimCurrency} for 1 ${line.currency}`,
    };
  if (line.rate?.kind !== 'card' || line.rate.settled.currency === line.currency) return null;
  const { amount, currency } = line.rate.settled;
  const charged = toMinor(line.amount, line.currency);
  if (charged === 0n) return null;
  const value = fraction(toMinor(amount, currency) * minorPerMajor(line.currency), charged * minorPerMajor(currency));
  return { value, to: currency, fact: `card rate, ${currency} for 1 ${line.currency}` };
}

/** Whether the published rates needed to reach a currency are there, and how old; null when none is needed. */
function published(open: OpenCase, line: Line, to: string, date: string): Comparison | null {
  const { factor, rate } = lineConverter(line, to, open.claimCurrency, open.rates, date);
  if (rate?.legs.length === 0) return null;
  const ages = rate?.legs.map((leg) => daysBetween(leg.quote.date, date)) ?? [];
  const age = Math.max(0, ...ages);
  return {
    fact: `${to} for 1 ${line.currency}`,
    claimed: factor && fractionToDecimal(factor, PLACES),
    evidence: rate && rate.legs.map((leg) => `${leg.quote.rate} of ${leg.quote.date}`).join(', '),
    difference: rate ? (age > 0 ? `${age} ${age === 1 ? 'day' : 'days'} old` : null) : 'no rate',
    tolerance: `${open.case.book.maxRateAge ?? 7} days old`,
    state: factor ? 'tied' : 'off',
  };
}

function stepsTo(open: OpenCase, line: Line, to: string, date: string): Step[] {
  const { convert, factor, rate } = lineConverter(line, to, open.claimCurrency, open.rates, date);
  const amount = toMinor(line.amount, line.currency);
  const result = convert(amount);
  if (result === null || !factor) return [];
  const exact = times(fraction(amount, minorPerMajor(line.currency)), factor);
  const brought =
    line.rate?.kind === 'card'
      ? [
          {
            label: 'Taken by the bank',
            value: `${line.rate.settled.amount} ${line.rate.settled.currency}`,
            source: 'card charge',
          },
        ]
      : line.rate?.kind === 'own'
        ? [{ label: "Claimant's own rate", value: line.rate.value, source: 'claim' }]
        : [];
  return [
    ...brought,
    ...legSteps(rate),
    { label: `${line.amount} ${line.currency} in ${to}, exact`, value: fractionToDecimal(exact, PLACES), source: null },
    { label: 'Rounded once, half away from zero', value: `${fromMinor(result, to)} ${to}`, source: null },
  ];
}

function legSteps(rate: Rate | null): Step[] {
  return (rate?.legs ?? []).map(({ quote, reciprocal }) => ({
    label: reciprocal
      ? `1 ${quote.to} = 1 ÷ ${quote.rate} ${quote.from}`
      : `1 ${quote.from} = ${quote.rate} ${quote.to}`,
    value: quote.date,
    source: quote.source ?? null,
  }));
}
