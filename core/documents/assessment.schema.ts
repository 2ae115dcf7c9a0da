import { z } from 'zod';
import { amount, coding, currency, id } from './primitives.ts';

/**
 * ebbet-assessment/1. Every amount is a decimal string of its currency; null is a figure that cannot be computed.
 */
const figure = amount.nullable();

const taxRow = z.strictObject({
  code: id,
  component: id.nullable(),
  net: figure,
  tax: figure,
  recoverable: figure,
  ledgerNet: figure,
  ledgerTax: figure,
  ledgerRecoverable: figure,
});

const shareRow = z.strictObject({
  account: id,
  coding,
  gross: figure,
  recoverable: figure,
  selfAssessed: figure,
  cost: figure,
  claimAmount: figure,
  ledgerGross: figure,
  ledgerRecoverable: figure,
  ledgerSelfAssessed: figure,
  ledgerCost: figure,
});

const part = z.strictObject({
  item: id.nullable(),
  personal: z.boolean(),
  claimAmount: figure,
  ledgerAmount: figure,
  tax: z.array(taxRow),
  shares: z.array(shareRow),
});

const settlement = z.strictObject({
  currency,
  due: figure,
  advances: z.array(
    z.strictObject({ advance: id, applied: figure, advancePart: figure, ledgerPart: figure, left: figure }),
  ),
  payable: figure,
  receivable: figure,
});

/** A row of a journal before it is posted; a posted one has a position besides. */
export const journalRow = z.strictObject({
  account: id,
  coding,
  debit: amount,
  credit: amount,
  currency,
  amount,
  line: id.nullable(),
  item: id.nullable(),
  taxCode: id.nullable(),
  text: z.string(),
});

const finding = z.strictObject({
  code: id,
  severity: z.enum(['stop', 'ask', 'note']),
  line: id.nullable(),
  item: id.nullable(),
  says: z.string(),
  difference: z.string().nullable(),
  /** The estimate of the plan that it is about. */
  estimate: id.optional(),
});

const line = z.strictObject({
  id,
  claimAmount: figure,
  ledgerAmount: figure,
  parts: z.array(part),
  /** What is charged on, of a line that is; in the currency of the claim. */
  rebilled: figure.optional(),
});

export const assessmentSchema = z.strictObject({
  format: z.literal('ebbet-assessment/1'),
  number: id,
  version: z.number().int().min(1),
  lines: z.array(line),
  settlement,
  journal: z.array(journalRow),
  findings: z.array(finding),
});

export type Assessment = z.infer<typeof assessmentSchema>;
export type AssessedLine = z.infer<typeof line>;
export type AssessedPart = z.infer<typeof part>;
export type TaxRow = z.infer<typeof taxRow>;
export type ShareRow = z.infer<typeof shareRow>;
export type Settlement = z.infer<typeof settlement>;
export type JournalRow = z.infer<typeof journalRow>;
