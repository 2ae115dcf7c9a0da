import { z } from 'zod';
import { allowanceRateSchema, journeySchema, mileageRateSchema, stayDaySchema } from './allowance.schema.ts';
import { categoryFieldSchema } from './category.schema.ts';
import { codingRuleSchema, dimensionSchema, limitSchema } from './rules.schema.ts';
import {
  amount,
  coding,
  count,
  currency,
  date,
  dated,
  decimal,
  dimension,
  fields,
  id,
  MOST_DIMENSIONS,
  notNegative,
  percent,
  positive,
  text,
} from './primitives.ts';

/**
 * ebbet-case/1, the document `assess` takes. Shapes only: what one part of the document says about another
 * (ids that must exist, signs that must agree) is in checkCase.ts. Amounts, percents, rates and weights are
 * decimal strings; a field that may be left out may also be null, and means the same.
 */
const taxEntry = z.strictObject({ code: id, gross: amount.nullish(), tax: amount.nullish() });

const share = z.strictObject({ coding, value: z.union([z.literal('rest'), decimal]).nullish() });
const split = z.strictObject({
  by: z.enum(['percent', 'amount', 'weight', 'equal']),
  /** What weights count, such as days; figures do not depend on it. */
  unit: z.string().min(1).max(20).nullish(),
  shares: z.array(share).max(500),
});

/** At most six decimal places; either may be negative. */
const factor = decimal.refine((d) => !/\.\d{7}/.test(d), 'has more than 6 decimal places');
const quantity = z.strictObject({ count: factor, unitPrice: factor });
/** What finance does not let stand of a line or item, in the line's currency. */
const cut = z.strictObject({ amount, reason: text });

const item = z.strictObject({
  id,
  category: id.nullish(),
  amount,
  description: text.nullish(),
  personal: z.boolean().nullish(),
  tax: z.array(taxEntry).max(20).nullish(),
  coding: coding.nullish(),
  split: split.nullish(),
  quantity: quantity.nullish(),
  cut: cut.nullish(),
});

const rate = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('reference') }),
  z.strictObject({ kind: z.literal('card'), settled: z.strictObject({ amount, currency }) }),
  z.strictObject({ kind: z.literal('own'), value: positive }),
]);

const receipt = z.strictObject({
  amount: amount.nullish(),
  currency: currency.nullish(),
  date: date.nullish(),
  merchant: text.nullish(),
  taxNumber: text.nullish(),
});

const attendees = z.strictObject({ count, names: z.array(text).max(1000).nullish() });
const stay = z.array(stayDaySchema).min(1).max(400);
/** To whom a cost is charged on, and with how many percent more. */
const rebill = z.strictObject({ to: text, markup: notNegative.nullish() });
const line = z.strictObject({
  id,
  date,
  category: id.nullish(),
  nights: count.nullish(),
  attendees: attendees.nullish(),
  fields: fields.nullish(),
  paidBy: z.enum(['own', 'card', 'central']),
  card: id.nullish(),
  amount,
  currency,
  country: text.nullish(),
  merchant: text.nullish(),
  description: text.nullish(),
  personal: z.boolean().nullish(),
  rate: rate.nullish(),
  tax: z.array(taxEntry).max(20).nullish(),
  receipt: receipt.nullish(),
  coding: coding.nullish(),
  split: split.nullish(),
  items: z.array(item).max(500).nullish(),
  /** The estimate of the claim's plan that the line is the actual cost of. */
  estimate: id.nullish(),
  quantity: quantity.nullish(),
  journey: journeySchema.nullish(),
  stay: stay.nullish(),
  rebill: rebill.nullish(),
  cut: cut.nullish(),
});

/** An estimate as it was frozen when the plan was approved, in the claim's currency. */
const estimate = z.strictObject({ id, amount, category: id.nullish() });
const plan = z.strictObject({ number: id, approvedOn: date, estimates: z.array(estimate).max(500) });

/** What the claimant says to a finding: which one, by its code and sentence, at which line or (null) at the claim. */
const explanation = z.strictObject({ line: id.nullish(), code: id, about: text, text });

const claim = z.strictObject({
  number: id,
  version: z.number().int().min(1),
  entity: id,
  claimant: id,
  currency,
  purpose: text.nullish(),
  from: date.nullish(),
  to: date.nullish(),
  submittedOn: date.nullish(),
  coding: coding.nullish(),
  plan: plan.nullish(),
  advances: z
    .array(z.strictObject({ advance: id, upTo: amount.nullish() }))
    .max(100)
    .nullish(),
  lines: z.array(line).max(5000),
  explanations: z.array(explanation).max(5000).nullish(),
});

/** What is reclaimed of the tax on shares whose coding has one of the values. */
const codingRecovery = z.strictObject({
  dimension: dimension.refine((name) => name !== 'account', 'an account is no dimension'),
  values: z.array(id).max(1000),
  recovery: percent,
  ...dated,
});

const planTolerance = z.strictObject({ percent: notNegative.nullish(), amount: notNegative.nullish() });
const entity = z.strictObject({
  id,
  name: text.nullish(),
  currency,
  rateDate: z.enum(['line', 'submitted', 'posting']).nullish(),
  taxRegistrations: z.array(id).max(100).nullish(),
  recovery: percent.nullish(),
  ownRateTolerance: notNegative.nullish(),
  taxNumberRequired: z.boolean().nullish(),
  accounts: z.strictObject({
    claimantPayable: id,
    supplierPayable: id,
    cardClearing: id,
    centralClearing: id,
    staffAdvances: id,
    staffReceivable: id,
    exchangeDifference: id,
    bank: id.nullish(),
    accruals: id.nullish(),
  }),
  cards: z.record(id, id).nullish(),
  /** By how much actual cost may exceed an estimate: by both. The amount is in ledger currency. */
  planTolerance: planTolerance.nullish(),
  recoveryByCoding: z.array(codingRecovery).max(1000).nullish(),
  ...dated,
});

const component = z.strictObject({
  id,
  rate: notNegative,
  on: z.enum(['net', 'running']),
  account: id,
  recovery: percent,
});
const taxCode = z.strictObject({
  code: id,
  name: text.nullish(),
  country: id,
  rate: notNegative.nullish(),
  account: id.nullish(),
  recovery: percent.nullish(),
  components: z.array(component).min(1).max(10).nullish(),
  selfAssessed: z.boolean().nullish(),
  outputAccount: id.nullish(),
  ...dated,
});

const quote = z.strictObject({ from: currency, to: currency, date, rate: positive, source: text.nullish() });
const category = z.strictObject({
  id,
  name: text.nullish(),
  account: id,
  recovery: percent.nullish(),
  /** What its lines say of themselves, beyond what every line says. */
  fields: z.array(categoryFieldSchema).max(40).nullish(),
  ...dated,
});
const person = z.strictObject({ id, name: text.nullish(), kind: z.enum(['employee', 'contractor']), ...dated });
const advance = z.strictObject({
  id,
  person: id,
  currency,
  outstanding: amount,
  ledgerOutstanding: amount,
  ...dated,
});

export const bookSchema = z.strictObject({
  entities: z.array(entity).max(100),
  pivot: currency.nullish(),
  maxRateAge: z.number().int().min(0).nullish(),
  rates: z.array(quote).max(100_000),
  taxCodes: z.array(taxCode).max(5000),
  categories: z.array(category).max(5000),
  people: z.array(person).max(100_000),
  advances: z.array(advance).max(10_000).nullish(),
  accounts: z
    .array(id)
    .max(50_000)
    .nullish()
    .describe('The accounts there are; without them any account is taken for one.'),
  dimensions: z.array(dimensionSchema).max(MOST_DIMENSIONS).nullish(),
  codingRules: z.array(codingRuleSchema).max(1000).nullish(),
  limits: z.array(limitSchema).max(1000).nullish(),
  mileageRates: z.array(mileageRateSchema).max(1000).nullish(),
  allowanceRates: z.array(allowanceRateSchema).max(5000).nullish(),
});

export const caseSchema = z.strictObject({
  format: z.literal('ebbet-case/1'),
  postingDate: date,
  claim,
  book: bookSchema,
});

/** The pieces a form or a request is made of, so that the edge of the server validates with the same rules. */
export const parts = {
  id,
  text,
  date,
  currency,
  amount,
  decimal,
  positive,
  coding,
  taxEntry,
  split,
  item,
  quantity,
  rate,
  receipt,
  component,
  planTolerance,
  nights: count,
  attendees,
  fields,
  journey: journeySchema,
  stay,
  rebill,
};

export type Case = z.infer<typeof caseSchema>;
export type Claim = Case['claim'];
export type Line = Claim['lines'][number];
export type Item = NonNullable<Line['items']>[number];
export type Coding = Record<string, string>;
export type Split = NonNullable<Line['split']>;
export type TaxEntry = NonNullable<Line['tax']>[number];
export type Book = Case['book'];
export type Entity = Book['entities'][number];
export type TaxCode = Book['taxCodes'][number];
export type Category = Book['categories'][number];
export type Person = Book['people'][number];
export type Advance = NonNullable<Book['advances']>[number];
export type Plan = NonNullable<Claim['plan']>;
export type ClaimantsWord = NonNullable<Claim['explanations']>[number];
export type Quote = Book['rates'][number];
