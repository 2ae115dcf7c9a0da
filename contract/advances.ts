import { z } from 'zod';
import { ADVANCE_KINDS } from '../core/advances/advance.schema.ts';
import { AGES } from '../core/advances/standing.ts';
import { advanceLifecycle, ADVANCE_STATES, type AdvanceAct } from '../core/workflow/lifecycles/advance.ts';
import { amount, attachment, currency, date, historyFields, id, moment, revision, words } from './primitives.ts';

/** Advances: what is asked of them and what is answered. Amounts are decimal strings of the currency beside them. */
const purpose = z.string().trim().min(1, 'Say what the money is for.').max(200);
const positive = amount.refine((a) => !/^-|^[0.]*$/.test(a), 'has to be more than nothing');
const written = {
  kind: z.enum(ADVANCE_KINDS),
  purpose,
  amount: positive,
  currency,
  from: date.nullable(),
  to: date.nullable(),
  plan: id.nullable().describe('A plan of one’s own that it is for.'),
  exception: z
    .string()
    .trim()
    .max(1000)
    .nullable()
    .describe('Why an exception from the rules about advances is wanted.'),
};
const ends = ({ from, to }: { from?: string | null | undefined; to?: string | null | undefined }) =>
  !from || !to || from <= to;
const ENDS = { path: ['to'], message: 'is before the first day' };
/** An amount and its currency are told together, since one means nothing without the other. */
const together = (set: { amount?: string | undefined; currency?: string | undefined }) =>
  (set.amount === undefined) === (set.currency === undefined);
const TOGETHER = { path: ['amount'], message: 'comes with its currency' };

export const beginAdvanceSchema = z
  .strictObject(written)
  .partial({ from: true, to: true, plan: true, exception: true })
  .refine(ends, ENDS);
export const editAdvanceSchema = z.strictObject({
  revision,
  set: z.strictObject(written).partial().refine(ends, ENDS).refine(together, TOGETHER),
});
export const seenAdvanceSchema = z.strictObject({ revision });
export const approveAdvanceSchema = z.strictObject({ revision, comment: z.string().trim().max(2000).optional() });
export const declineAdvanceSchema = z.strictObject({ revision, reason: words });
export const grantSchema = z.strictObject({
  revision,
  amount: positive.optional().describe('Less than was asked for; with the reason.'),
  dueBy: date.describe('The day by which it is to be accounted for.'),
  reason: words.optional(),
});
export const extendSchema = z.strictObject({ revision, dueBy: date, reason: words });
const account = id.optional().describe('The account of the bank; the entity’s own without.');
const reference = z.string().trim().max(140).nullable().default(null).describe('How the bank names the movement.');
const bank = positive
  .optional()
  .describe('What the bank moved, in the ledger’s currency; without, the amount by the published rate of the day.');
export const payOutSchema = z.strictObject({ revision, date, bank, account, reference });
export const giveBackSchema = z.strictObject({ revision, date, amount: positive, bank, account, reference });

const state = z.enum(ADVANCE_STATES);
const bothWays = z.object({ amount, ledger: amount });
const standing = z.object({
  paidOut: bothWays,
  accountedFor: bothWays.describe('By posted claims.'),
  givenBack: bothWays,
  open: bothWays.describe('Still to account for or to give back.'),
});
const row = z.object({
  number: id,
  revision: z.number(),
  state,
  kind: z.enum(ADVANCE_KINDS),
  purpose: z.string(),
  person: z.string(),
  entity: id,
  currency,
  ledgerCurrency: currency,
  amount: amount.describe('What was asked for, or granted.'),
  requestedOn: date.nullable(),
  paidOn: date.nullable(),
  dueBy: date.nullable(),
  overdue: z.boolean(),
  open: bothWays.nullable().describe('null: it was not paid out.'),
  proofMissing: z.boolean().describe('A payout or a return has no proof yet.'),
});
const problem = z.object({ severity: z.enum(['stop', 'ask']), rule: id.nullable(), says: z.string() });
const payment = z.object({
  id: z.string(),
  kind: z.enum(['payout', 'return']),
  date,
  amount,
  bank: amount,
  account: id,
  accountName: z.string(),
  reference: z.string().nullable(),
  journal: z.string(),
  by: z.string(),
  proofs: z.array(attachment),
});
const use = z.object({
  claim: id,
  state: z.string(),
  purpose: z.string(),
  applied: amount.nullable().describe('What it takes of the advance, in its currency; null: it cannot be computed.'),
  ledger: amount.nullable(),
  posted: z.boolean().describe('Taken from it for good; else only as it was last computed.'),
});
export const advanceAnswer = z.object({
  advance: row.extend({
    entityName: z.string(),
    requested: amount,
    from: date.nullable(),
    to: date.nullable(),
    plan: id.nullable(),
    exception: z.string().nullable(),
    deciders: z.array(z.string()).describe('Who decides about it now.'),
    proposedDue: date.describe('The day proposed for accounting for it.'),
    bankAccount: z.object({ code: id, name: z.string() }).nullable(),
    tide: z.array(z.object({ state: z.string(), from: moment })),
  }),
  standing: standing.nullable().describe('null: it was not paid out.'),
  problems: z.array(problem),
  payments: z.array(payment),
  uses: z.array(use).describe('The claims that name it.'),
  attachments: z.array(attachment),
  history: z.array(historyFields),
  may: z.array(z.enum(Object.keys(advanceLifecycle.acts) as [AdvanceAct, ...AdvanceAct[]])),
});
export const begunAnswer = z.object({ number: id });
export const advancesAnswer = z.object({
  own: z.array(row),
  mayBegin: z.boolean(),
  currency: currency.describe('In which the person is paid.'),
  toGrant: z.array(row).describe('For a reviewer: approved, without the day by which they are accounted for.'),
  toPay: z.array(row).describe('For a controller: granted and not paid out.'),
  overdue: z.array(row).describe('For finance: open after the day by which they were to be accounted for.'),
});
export const registerQuery = z.strictObject({ entity: id.optional(), on: date.optional() });
export const registerAnswer = z.object({
  on: date,
  rows: z.array(row.extend({ days: z.number(), age: z.enum(AGES) })),
  entities: z.array(
    z.object({
      entity: id,
      name: z.string(),
      currency,
      account: id,
      ages: z.array(z.object({ age: z.enum(AGES), ledger: amount })),
      open: amount.describe('What the rows come to, in the ledger’s currency.'),
      balance: amount.describe('What the journals of the account come to.'),
    }),
  ),
});

/** An advance of the claimant as it stands now, and whether the claim is set against it. */
export const shownAdvance = z.object({
  number: id,
  purpose: z.string(),
  currency: z.string(),
  dueBy: date.nullable(),
  overdue: z.boolean(),
  paidOut: z.string(),
  accountedFor: z.string().describe('By claims that are posted.'),
  givenBack: z.string(),
  open: z.string().describe('Still to account for or to give back.'),
  here: z
    .object({ position: z.number(), upTo: z.string().nullable().describe('In the currency of the claim.') })
    .nullable(),
});

export type ShownAdvance = z.infer<typeof shownAdvance>;
export type BeginAdvance = z.infer<typeof beginAdvanceSchema>;
export type AdvanceSet = z.infer<typeof editAdvanceSchema>['set'];
export type Grant = z.infer<typeof grantSchema>;
export type PayOut = z.infer<typeof payOutSchema>;
export type GiveBack = z.infer<typeof giveBackSchema>;
export type AdvanceAnswer = z.infer<typeof advanceAnswer>;
export type AdvanceInput = z.input<typeof advanceAnswer>;
export type AdvanceRowAnswer = z.infer<typeof row>;
export type AdvanceRowInput = z.input<typeof row>;
export type AdvancesAnswer = z.infer<typeof advancesAnswer>;
export type RegisterAnswer = z.infer<typeof registerAnswer>;
export type RegisterInput = z.input<typeof registerAnswer>;
