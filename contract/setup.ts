import { z } from 'zod';
import { categoryFieldSchema } from '../core/documents/category.schema.ts';
import { codingRuleSchema, limitSchema } from '../core/documents/rules.schema.ts';
import { sayIssue } from '../core/documents/sayIssue.ts';
import { allowanceRateSchema, mileageRateSchema } from '../core/documents/allowance.schema.ts';
import { parts } from '../core/documents/case.schema.ts';
import { planTemplateSchema } from '../core/documents/plan.schema.ts';
import { notNegative, percent, positive } from '../core/documents/primitives.ts';
import { advanceRuleSchema } from '../core/advances/advance.schema.ts';
import { routeLevelSchema } from '../core/routing/route.schema.ts';
import { ROLES, type Role } from '../core/workflow/lifecycle.types.ts';
import { isTimeZone } from '../core/numbers/localDate.ts';
import { historyFields } from './primitives.ts';

/** Who looks at master data: those who keep it, and auditors. */
export const KEEPERS: readonly Role[] = ['administrator', 'auditor'];

/**
 * The dated master data: each kind's row described once. What it is called here is what it is called in CSV files, in
 * answers and in histories. Amounts are decimal strings, percents 0 to 100.
 */
const { id, text, date, currency } = parts;
const name = z.string().trim().min(1, 'Give it a name.').max(200);
const codes = z.array(id).max(500);
const country = z.string().regex(/^[A-Z]{2}$/, 'is not a country of two capital letters');

const accountNames = [
  'claimantPayable',
  'supplierPayable',
  'cardClearing',
  'centralClearing',
  'staffAdvances',
  'staffReceivable',
  'exchangeDifference',
] as const;
const accounts = z.strictObject({
  ...(Object.fromEntries(accountNames.map((n) => [n, id])) as Record<(typeof accountNames)[number], typeof id>),
  bank: id.nullish(),
  accruals: id.nullish(),
});
/** Settings that are on or off, and those that are a number of days or percent. */
const SWITCHES = ['clearing-and-posting-apart', 'second-factor-for-finance'] as const;
const NUMBERS = [
  'clearing-draw-percent',
  'raised-tolerance-percent',
  'plan-lapses-after-days',
  'advance-due-after-days',
  'advance-reminder-days-before',
  'advance-reminder-every-days',
] as const;
export const SETUP_ROWS = {
  entities: z.strictObject({
    id,
    name,
    currency,
    timeZone: z.string().refine(isTimeZone, 'is not a time zone such as Europe/Dublin'),
  }),
  'entity-terms': z.strictObject({
    entity: id,
    rateDate: z.enum(['line', 'submitted', 'posting']),
    taxRegistrations: z.array(country).max(60),
    recovery: percent,
    ownRateTolerance: notNegative,
    taxNumberRequired: z.boolean(),
    accounts,
    cards: z.record(id, id),
    planTolerance: parts.planTolerance.nullable(),
  }),
  accounts: z.strictObject({ code: id, name }),
  people: z.strictObject({
    id,
    name,
    email: z.string().max(320).toLowerCase().pipe(z.email('is not an e-mail address')),
    kind: z.enum(['employee', 'contractor']),
    entity: id,
    currency,
    usualApprover: id.nullable(),
    /** Who answers for a contractor. */
    sponsor: id.nullable(),
    active: z.boolean(),
  }),
  roles: z.strictObject({ person: id, role: z.enum(ROLES), entity: id.nullable() }),
  /** Besides their own entity and currency: for whom a person may claim, and in what they may be paid there. */
  'payee-terms': z.strictObject({ person: id, entity: id, currencies: z.array(currency).min(1).max(20) }),
  substitutes: z.strictObject({ person: id, substitute: id }),
  dimensions: z.strictObject({ id, name, position: z.number().int().min(0).max(99) }),
  'dimension-values': z.strictObject({
    dimension: id,
    code: id,
    name,
    owner: id.nullable(),
    categories: codes.nullable(),
  }),
  categories: z.strictObject({
    id,
    name,
    account: id,
    recovery: percent,
    merchantCodes: z.array(z.string().regex(/^\d{4}$/, 'is not a merchant code of four digits')).max(200),
    fields: z.array(categoryFieldSchema).max(40),
  }),
  'tax-codes': z.strictObject({
    code: id,
    name,
    country,
    rate: notNegative.nullable(),
    account: id.nullable(),
    recovery: percent.nullable(),
    components: z.array(parts.component).min(1).max(10).nullable(),
    selfAssessed: z.boolean(),
    outputAccount: id.nullable(),
  }),
  'coding-rules': z.strictObject({ id, rule: codingRuleSchema.omit({ id: true, from: true, to: true }) }),
  limits: z.strictObject({
    id,
    rule: z.record(z.string(), z.unknown()).superRefine((rule, context) => {
      const read = limitSchema.safeParse({ ...rule, id: 'x' }, { error: sayIssue });
      const issue = read.error?.issues[0];
      if (issue) context.addIssue({ code: 'custom', message: issue.message, path: issue.path as string[] });
    }),
  }),
  'mileage-rates': z.strictObject({ id, rule: mileageRateSchema.omit({ from: true, to: true }) }),
  'allowance-rates': z.strictObject({ id, rule: allowanceRateSchema.omit({ from: true, to: true }) }),
  'plan-templates': z.strictObject({ id, rule: planTemplateSchema }),
  'coding-presets': z.strictObject({
    id,
    rule: z.strictObject({ name, entity: id.nullish(), coding: parts.coding }),
  }),
  'policy-statements': z.strictObject({ id, rule: z.strictObject({ text: z.string().trim().min(1).max(2000) }) }),
  routes: z.strictObject({ id, rule: routeLevelSchema }),
  'advance-rules': z.strictObject({ id, rule: advanceRuleSchema }),
  rates: z.strictObject({ from: currency, to: currency, date, rate: positive, source: text }),
  budgets: z.strictObject({
    entity: id,
    dimension: id,
    code: id,
    category: id.nullable(),
    amount: parts.amount,
  }),
  cards: z.strictObject({
    id,
    digits: z.string().regex(/^\d{4}$/, 'is not four digits'),
    account: z.string().trim().min(4).max(40),
    entity: id,
    holder: id,
    kind: z.enum(['company', 'purchasing']),
    currency,
    label: name,
    /** The day of the month on which its statement closes; null: with the month. */
    closesOn: z.number().int().min(1).max(31).nullable(),
  }),
  periods: z.strictObject({ entity: id, id, from: date, to: date }),
  settings: z
    .strictObject({
      key: z.enum([...SWITCHES, ...NUMBERS]),
      value: z.union([z.boolean(), z.number().int().min(0).max(3650)]),
    })
    .refine(({ key, value }) => key !== 'clearing-draw-percent' || Number(value) <= 100, {
      path: ['value'],
      message: 'is at most 100 percent',
    })
    .refine(({ key, value }) => (NUMBERS as readonly string[]).includes(key) === (typeof value === 'number'), {
      path: ['value'],
      message: 'is on or off, or a number where days or percent are meant',
    }),
} as const satisfies Record<string, z.ZodObject>;

export type SetupKind = keyof typeof SETUP_ROWS;
export const SETUP_KINDS = Object.keys(SETUP_ROWS) as [SetupKind, ...SetupKind[]];

/** From when a row holds and to when, both included; null is without an end. */
const validity = { validFrom: date.nullable().default(null), validTo: date.nullable().default(null) };
const cells = z.record(z.string(), z.unknown());

const seenRevision = z
  .number()
  .int()
  .min(0)
  .describe('How often the key was changed, as it was seen; 0 for a new one.');

export const addRowSchema = z.strictObject({
  revision: seenRevision,
  row: cells,
  ...validity,
});
export const endRowSchema = z.strictObject({
  revision: seenRevision,
  key: z.array(z.string()).min(1).max(4),
  on: date,
});
export const fileSchema = z.strictObject({
  csv: z.string().max(2_000_000),
  apply: z.boolean().describe('false: only say what would happen.'),
});

const shown = z.object({
  key: z.array(z.string()),
  revision: z.number(),
  row: cells,
  validFrom: date.nullable(),
  validTo: date.nullable(),
});
export const rowsAnswer = z.object({ kind: z.enum(SETUP_KINDS), dated: z.boolean(), rows: z.array(shown) });
export const kindsAnswer = z.object({
  kinds: z.array(z.object({ kind: z.enum(SETUP_KINDS), dated: z.boolean(), columns: z.array(z.string()) })),
});
export const FILE_OUTCOMES = ['added', 'follows', 'changed', 'unchanged'] as const;
export const fileAnswer = z.object({
  applied: z.boolean(),
  rows: z.array(z.object({ line: z.number(), key: z.array(z.string()), outcome: z.enum(FILE_OUTCOMES) })),
});
export const rowHistoryAnswer = z.object({ history: z.array(historyFields) });

export type AddRow = z.infer<typeof addRowSchema>;
export type EndRow = z.infer<typeof endRowSchema>;
export type ShownRow = z.infer<typeof shown>;
export type FileOutcome = (typeof FILE_OUTCOMES)[number];
