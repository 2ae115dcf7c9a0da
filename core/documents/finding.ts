/** How much a finding weighs: stop forbids clearing and posting, ask wants an answer, note informs. */
export type Severity = 'stop' | 'ask' | 'note';

/** The result of a rule about a claim, a line or an item. `difference` is a decimal string in the line's currency, or percent. */
export interface Finding {
  code: string;
  severity: Severity;
  line: string | null;
  item: string | null;
  says: string;
  difference: string | null;
  /** The estimate of the plan it is about; only on those that are about one. */
  estimate?: string;
}

/** A finding while it is computed: the tax code it is about, which its sentence names, as data. */
export interface ComputedFinding extends Finding {
  taxCode?: string;
}

/** Where a finding belongs; both null for the claim as a whole. */
export interface Place {
  line: string | null;
  item: string | null;
}

/** The findings of the calculation itself: severity and wording by code. `{name}` is filled in from the numbers. */
const WORDS = {
  'rate-missing': [
    'stop',
    'No published rate from {from} to {to} at most {days} days old on {date}. Add the rate or correct the date.',
  ],
  'rate-off': [
    'ask',
    "The claimant's rate {value} from {from} to {to} is {percent} % from the published {reference} (tolerance {tolerance} %). Ask for proof of the rate.",
  ],
  'rate-unproved': [
    'ask',
    "The claimant's rate {value} from {from} to {to} cannot be checked: no published rate on {date}. Ask for proof of the rate.",
  ],
  'tax-entries': ['stop', 'With several tax entries each needs its own gross amount. Enter the gross for each.'],
  'tax-gross-sign': ['stop', 'The gross of {code} does not have the sign of the amount. Correct the gross.'],
  'tax-gross-sum': [
    'stop',
    'The gross amounts of the tax entries add up to {difference} more than the amount. Correct them.',
  ],
  'given-sign': ['stop', 'The tax given for {code} does not have the sign of its gross. Correct the tax.'],
  'given-above-gross': ['stop', 'The tax given for {code} is more than its gross. Correct the tax.'],
  'given-on-untaxed': ['stop', '{code} is untaxed, so its tax must be 0. Choose another tax code or remove the tax.'],
  'given-on-self-assessed': ['stop', '{code} is self-assessed: the receipt shows no tax. Remove the tax given.'],
  'tax-off': ['ask', 'The tax given for {code} is {difference} from the tax computed. Check the receipt.'],
  'tax-foreign': ['note', '{code} is a tax of {country}, where the entity is not registered: nothing is reclaimed.'],
  'tax-country': [
    'ask',
    '{code} is a tax of {country}, but the line is from {lineCountry}: nothing is reclaimed. Correct the country or the code.',
  ],
  'tax-number-missing': [
    'note',
    'The receipt shows no tax number of the merchant: the tax of {code} is not reclaimed.',
  ],
  'tax-unregistered': [
    'stop',
    '{code} is self-assessed in {country}, where the entity is not registered. Choose another tax code.',
  ],
  'items-off': ['stop', 'The items leave {difference} {unit} of the line. Change them until nothing is left.'],
  'computed-off': [
    'stop',
    'The amount is {difference} from what {from} come to, {computed} {currency}. Correct the one that is wrong.',
  ],
  'computed-missing': [
    'stop',
    'There is no rate in {currency} for {from} on {date}. Have it entered, or correct what the amount is computed from.',
  ],
  'plan-over': [
    'ask',
    'Estimate {estimate} of plan {plan} was {allowed} {currency}; {actual} was spent, {difference} more. Say why.',
  ],
  cut: ['note', '{difference} of {amount} {currency} was cut, {allowed} is allowed: {reason}'],
  'no-shares': ['stop', 'The split has no share. Add one or remove the split.'],
  rest: ['stop', 'Only one share can take the rest, and only by percent or amount.'],
  value: ['stop', 'A share of the split has no valid value. Enter a number.'],
  negative: ['stop', 'A share of the split is negative. Enter 0 or more.'],
  sign: ['stop', 'A share of the split does not have the sign of the amount. {difference} {unit} is left to divide.'],
  sum: ['stop', 'The split leaves {difference} {unit}. Change the shares until nothing is left.'],
  'all-zero': ['stop', 'The weights of the split are all 0. Enter at least one above 0.'],
} as const satisfies Record<string, readonly [Severity, string]>;

export type FindingKind = keyof typeof WORDS;

/** Kinds that share one published code: the wording is finer than the rule. */
const CODES: Partial<Record<FindingKind, string>> = {
  'rate-unproved': 'rate-off',
  'tax-entries': 'tax-base',
  'tax-gross-sign': 'tax-base',
  'tax-gross-sum': 'tax-base',
  'given-sign': 'tax-base',
  'given-above-gross': 'tax-base',
  'given-on-untaxed': 'tax-base',
  'given-on-self-assessed': 'tax-base',
  'no-shares': 'split-off',
  rest: 'split-off',
  value: 'split-off',
  negative: 'split-off',
  sign: 'split-off',
  sum: 'split-off',
  'all-zero': 'split-off',
};

/**
 * A finding from its kind, its place and its numbers; `difference` among the numbers is also the finding's own.
 * Example: a share too much by 7.00 → {code: "split-off", line, difference: "7.00", …}.
 */
export function finding(kind: FindingKind, place: Place, numbers: Record<string, string | null> = {}): ComputedFinding {
  const [severity, words] = WORDS[kind];
  return {
    code: CODES[kind] ?? kind,
    severity,
    line: place.line,
    item: place.item,
    says: words.replace(/\{(\w+)\}/g, (_, name: string) => numbers[name] ?? ''),
    difference: numbers.difference ?? null,
    ...(numbers.code ? { taxCode: numbers.code } : {}),
    ...(numbers.estimate ? { estimate: numbers.estimate } : {}),
  };
}
