import type { LineFigures, OpenCase, PartFigures } from '../../figures.types.ts';
import { rateDateOf } from '../../rateDateOf.ts';
import { referenceConverter } from '../../currency/converter.ts';
import { holdsOn } from '../../../numbers/isoDate.ts';
import type { Item, Line } from '../../../documents/case.schema.ts';
import type { Limit } from '../../../documents/rules.schema.ts';
import type { Judged } from '../policy.types.ts';

/** A part of a claim a limit looks at: a line without items, or one of its items, that is not personal. */
export interface LimitedPart {
  line: Line;
  item: Item | null;
  figures: PartFigures;
  category: string;
  /** What it is in other currencies, as far as a limit asked. */
  amounts: Map<string, bigint | null>;
}

/** The parts of a line that limits look at. */
export function limitedParts({ line, parts }: LineFigures): LimitedPart[] {
  const items = new Map(line.items?.map((item) => [item.id, item]));
  return parts
    .filter((part) => !part.personal)
    .map((part) => {
      const item = part.item === null ? null : (items.get(part.item) ?? null);
      return { line, item, figures: part, category: (item ?? line).category!, amounts: new Map() };
    });
}

/** Those a limit applies to, by category, country and the line's date. */
export function partsUnder(limit: Limit, all: readonly LimitedPart[]): LimitedPart[] {
  const { categories, countries } = limit;
  return all.filter(
    ({ line, category }) =>
      holdsOn(limit, line.date)
      && (!countries || countries.includes(line.country ?? ''))
      && (!categories || categories.includes(category)),
  );
}

/** Lines with at least one part under the limit, each once. */
export const linesUnder = (limit: Limit, all: readonly LimitedPart[]): Line[] => [
  ...new Set(partsUnder(limit, all).map((p) => p.line)),
];

/** An amount of a part in another currency by the published rate of the line's rate date; null without one. */
export function convertPart(open: OpenCase, { line, figures, amounts }: LimitedPart, to: string): bigint | null {
  if (!amounts.has(to)) {
    const converter = referenceConverter(open.rates, line.currency, to, rateDateOf(open, line));
    amounts.set(to, converter.convert(figures.amount));
  }
  return amounts.get(to)!;
}

const DEFAULTS: Record<Limit['kind'], string> = {
  cap: '{actual} {unit} {subject} is above the limit of {allowed} {unit} by {difference}. Reduce it or say why it was needed.',
  receipt: '{actual} {unit} needs a receipt (above {allowed} {unit}). Add one.',
  fields: '{subject} is missing. Fill it in.',
  age: 'The line is {actual} days older than its submission; {allowed} are allowed.',
  weekend: 'The line is dated on a {subject}.',
  near: '{actual} charges {subject} just under {allowed} {unit}: check whether one purchase was broken up.',
  plan: 'No {subject}, which the policy asks for here.',
  text: 'The description has {actual} characters; the ledger takes {allowed}. Shorten it.',
};

const SHORT: Record<Limit['kind'], string> = {
  cap: 'above',
  receipt: 'no receipt',
  fields: 'missing',
  age: 'too old',
  weekend: 'weekend',
  near: 'several',
  plan: 'no plan',
  text: 'too long',
};

export type Outcome = Pick<Judged, 'kept' | 'subject'>
  & Partial<Pick<Judged, 'actual' | 'allowed' | 'unit' | 'difference'>>;

/**
 * What is said where an amount cannot be compared for want of a rate: somebody has to look, however severe the limit is.
 * `money` is what it would be compared with.
 */
export const unknownOf = (
  limit: Limit,
  at: { line: string | null; item: string | null },
  { amount, currency }: { amount: string; currency: string },
): Judged => ({
  rule: limit.id,
  kind: limit.kind === 'plan' ? 'plan' : 'limit',
  severity: 'ask',
  ...at,
  kept: false,
  subject: 'rate',
  short: 'no rate',
  actual: null,
  allowed: amount,
  unit: currency,
  difference: null,
  says: `There is no rate to compare this with ${amount} ${currency}. Have the rate entered, or say why it is right.`,
  owner: null,
});

/** Where a part stands: its line, and its item when it is one. */
export const placeOf = ({ line, item }: LimitedPart) => ({ line: line.id, item: item?.id ?? null });

/** A verdict in the limit's own wording, or the usual one of its kind; `{name}` is filled in from the outcome. */
export function verdictOf(limit: Limit, at: { line: string | null; item: string | null }, outcome: Outcome): Judged {
  const facts = { actual: null, allowed: null, unit: null, difference: null, ...outcome };
  return {
    rule: limit.id,
    kind: limit.kind === 'plan' ? 'plan' : 'limit',
    severity: limit.severity,
    ...at,
    ...facts,
    says: facts.kept ? facts.subject : sayBroken(limit, facts),
    short: SHORT[limit.kind],
    owner: null,
  };
}

function sayBroken(limit: Limit, facts: object): string {
  const words = limit.says ?? DEFAULTS[limit.kind];
  const says = words.replace(
    /\{(\w+)\}/g,
    (_, name: string) => (facts as Record<string, string | boolean | null>)[name]?.toString() ?? '',
  );
  return says.replace(/ {2,}/g, ' ');
}
