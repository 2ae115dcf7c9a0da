import type { OpenCase } from '../../figures.types.ts';
import type { LimitOf } from '../../../documents/rules.schema.ts';
import { fromMinor, sumKnown, toMinor } from '../../../numbers/amount.ts';
import { groupBy } from '../../../numbers/groupBy.ts';
import { decimalToFraction } from '../../../numbers/decimal.ts';
import { compare, fraction, plus, ONE, times, type Fraction } from '../../../numbers/fraction.ts';
import { roundHalfAway } from '../../../numbers/roundHalfAway.ts';
import type { Judged } from '../policy.types.ts';
import { convertPart, partsUnder, placeOf, unknownOf, verdictOf, type LimitedPart } from './scope.ts';

/** Parts counted together against a cap, and over how many units (nights, heads) it is allowed. */
interface Group {
  parts: LimitedPart[];
  units: bigint;
  subject: string;
}

/**
 * A cap per item, night or head looks at each part; per day or trip at the parts of a day or of the claim together.
 * Amounts are converted to the cap's currency, each rounded once; the sum may reach units × cap × (1 + tolerance).
 */
export function judgeCap(open: OpenCase, limit: LimitOf<'cap'>, all: readonly LimitedPart[]): Judged[] {
  return groupsOf(limit, partsUnder(limit, all)).map((group) => judgeGroup(open, limit, group));
}

function groupsOf({ per }: LimitOf<'cap'>, parts: LimitedPart[]): Group[] {
  const single = (subject: string, units: (part: LimitedPart) => number | null | undefined): Group[] =>
    parts.map((part) => ({ parts: [part], units: BigInt(units(part) ?? 1), subject }));
  switch (per) {
    case 'item':
      return single('', () => 1);
    case 'night':
      return single('for the nights', (part) => part.line.nights);
    case 'head':
      return single('for the attendees', (part) => part.line.attendees?.count);
    case 'day':
      return [...groupBy(parts, (p) => p.line.date)].map(([date, same]) => ({
        parts: same,
        units: 1n,
        subject: `on ${date}`,
      }));
    case 'trip':
      return parts.length > 0 ? [{ parts, units: 1n, subject: 'on this claim' }] : [];
    default:
      return per satisfies never;
  }
}

function judgeGroup(open: OpenCase, limit: LimitOf<'cap'>, { parts, units, subject }: Group): Judged {
  const { currency } = limit.cap;
  const actual = sumKnown(parts.map((part) => convertPart(open, part, currency)));
  const at = placeOf(parts.at(-1)!);
  if (actual === null) return unknownOf(limit, at, limit.cap);
  const cap = toMinor(limit.cap.amount, currency) * units;
  const reach = times(fraction(cap), withTolerance(limit.tolerance));
  const kept = compare(fraction(actual), reach) <= 0;
  const amounts = { actual: fromMinor(actual, currency), allowed: fromMinor(cap, currency), unit: currency };
  const difference = actual > cap ? fromMinor(actual - cap, currency) : null;
  return verdictOf(limit, at, { kept, subject, ...amounts, difference });
}

const withTolerance = (percent: string | null | undefined): Fraction =>
  percent ? plus(ONE, times(decimalToFraction(percent), fraction(1n, 100n))) : ONE;

/** Several charges of one merchant in a day, each at most the cap and within some percent of it. */
export function judgeNear(open: OpenCase, limit: LimitOf<'near'>, all: readonly LimitedPart[]): Judged[] {
  const { currency } = limit.cap;
  const cap = toMinor(limit.cap.amount, currency);
  const within = decimalToFraction(limit.within);
  const floor = cap - roundHalfAway(cap * within.n, within.d * 100n);
  const parts = partsUnder(limit, all);
  const unknown = parts.filter((part) => part.line.merchant && convertPart(open, part, currency) === null).at(-1);
  const close = parts.filter((part) => {
    const amount = convertPart(open, part, currency);
    return amount !== null && amount >= floor && amount <= cap && part.line.merchant;
  });
  const keyOf = ({ line }: LimitedPart) => `${line.date} ${line.merchant!.toLowerCase().replace(/\s+/g, ' ').trim()}`;
  const broken = [...groupBy(close, keyOf).values()].flatMap((same) => {
    if (same.length < limit.charges) return [];
    const { line } = same.at(-1)!;
    const outcome = {
      kept: false,
      subject: `at ${line.merchant} on ${line.date}`,
      actual: String(same.length),
      allowed: limit.cap.amount,
      unit: currency,
    };
    return [verdictOf(limit, { line: line.id, item: null }, outcome)];
  });
  return unknown ? [...broken, unknownOf(limit, placeOf(unknown), limit.cap)] : broken;
}
