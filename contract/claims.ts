import { shownAdvance } from './advances.ts';
import { z } from 'zod';
import { row } from './desk.ts';
import { about } from './marks.ts';
import type { AssessedPart, Assessment } from '../core/documents/assessment.schema.ts';
import { parts, type Claim } from '../core/documents/case.schema.ts';
import type { OwnBook, SharedBook } from '../core/documents/splitBook.ts';
import { MARKS } from '../core/evidence/comparisons/stateWithMark.ts';
import {
  TIE_KINDS,
  TIE_STATES,
  type Comparison,
  type Evidence,
  type Step,
} from '../core/evidence/comparisons/tie.types.ts';
import type { Reading } from '../core/evidence/reading/reading.types.ts';
import { CLAIM_STATES, claimLifecycle, type ClaimAct } from '../core/workflow/lifecycles/claim.ts';
import { attachment, date, historyFields, id, moment, page, recordId, revision, stored, words } from './primitives.ts';

/** Claims: what is asked, and what each audience is answered. */
const state = z.enum(CLAIM_STATES);
const tieKind = z.enum(TIE_KINDS);
const shownTie = z.enum([...TIE_STATES, ...MARKS]);
const figure = z.string().nullable();
const act = z.enum(Object.keys(claimLifecycle.acts) as [ClaimAct, ...ClaimAct[]]);

export const querySchema = z.strictObject({
  revision,
  line: parts.id,
  kind: tieKind.nullish(),
  text: words,
  asks: z.enum(['claimant', 'approver']).default('claimant').describe('Who is asked: its makers, or who approved it.'),
});
export const holdSchema = z.strictObject({
  revision,
  reason: words.describe('For finance alone.'),
  told: words.optional().describe('What its makers and approvers are told.'),
  until: date,
});
export const postSchema = z.strictObject({
  revision,
  date: date,
  digest: z.string().length(64).describe('The fingerprint of the journal of that date, as it was shown.'),
});
export const previewSchema = z.strictObject({ date: date });

const tide = z.array(z.object({ state: z.string(), from: moment }));
const ownRow = row
  .pick({
    number: true,
    version: true,
    revision: true,
    state: true,
    purpose: true,
    claimant: true,
    currency: true,
    toPay: true,
    submittedOn: true,
    tide: true,
  })
  .extend({
    asked: z.boolean().describe('Whether a question about it waits for whoever reads this.'),
    waitsFor: z.array(z.string()).describe('Whose decision it waits for.'),
  });
/** Which of one's own claims are listed. */
export const ownFilter = z.strictObject({
  q: z.string().trim().max(200).default('').describe('A part of the number or of what it is for.'),
  year: z
    .string()
    .regex(/^(\d{4})?$/, 'is no year. Write four digits, such as 2026.')
    .default('')
    .describe('The year in which it was handed in; what was not handed in yet is of any.'),
});
export const ownClaimsAnswer = z.object({ claims: z.array(ownRow) });

const header = z.object({
  number: id,
  version: z.number(),
  revision: z.number(),
  state,
  entity: id,
  entityName: z.string(),
  claimant: z.string(),
  claimantId: id,
  claimantKind: z.enum(['employee', 'contractor']),
  preparer: z.string(),
  deciders: z.array(z.string()).describe('Who decides about it now.'),
  approvedBy: z.array(z.string()),
  waitsFor: z.array(z.string()).describe('Who is asked something and has not answered.'),
  ownersAsked: z.array(z.string()).describe('Owners of codes that finance gave it, who have not agreed yet.'),
  currency: z.string(),
  ledgerCurrency: z.string(),
  purpose: z.string(),
  tripFrom: date.nullable(),
  tripTo: date.nullable(),
  country: z.string().nullable(),
  place: z.string().nullable(),
  reference: z.string().nullable(),
  note: z.string().nullable(),
  financeNote: z.string().nullable().describe('For finance alone; an approver is told null.'),
  submittedOn: date.nullable(),
  holdReason: z.string().nullable().describe('As finance reads it; its makers and approvers read what they are told.'),
  holdTold: z.string().nullable(),
  holdUntil: date.nullable(),
});
const attachments = z.array(attachment);

const query = z.object({
  id: recordId,
  /** The version it was asked about, and whether it went out when that was returned. */
  version: z.number(),
  sent: z.boolean(),
  line: id,
  kind: tieKind.nullable(),
  asks: z.enum(['claimant', 'approver']),
  text: z.string(),
  by: z.string(),
  at: moment,
  takenBack: z.boolean(),
  files: attachments,
  answer: z.object({ text: z.string(), by: z.string(), at: moment }).nullable(),
});
const may = z.array(act);

const shownTax = z.object({ rate: z.string().nullable(), base: figure.optional(), tax: figure.optional() });
const shownReceipt = z.object({
  id: recordId,
  pages: z.array(page),
  reading: stored<Reading>('reading').nullable(),
  state: z.enum(['waiting', 'read', 'failed']),
  total: z.object({ amount: figure, currency: z.string().nullable() }).describe('As confirmed, or as read.'),
  taxes: z.array(shownTax).describe('As its owner confirmed them, or as they were read.'),
});
const finding = z.object({
  code: z.string(),
  severity: z.enum(['stop', 'ask', 'note']),
  line: id.nullable(),
  item: id.nullable(),
  says: z.string(),
  difference: z.string().nullable(),
});
const settlement = z.object({
  currency: z.string(),
  claimed: figure,
  companyPaid: figure,
  private: figure,
  advances: figure,
  toPay: figure,
  fromAdvances: z.array(z.object({ advance: id, part: figure, left: figure, currency: z.string() })),
});
const declined = z
  .array(z.object({ line: id, reason: z.string(), by: z.string() }))
  .describe('Lines that were declined.');
const change = z.object({ line: id, field: z.string(), from: z.unknown(), to: z.unknown() });

const spentEstimate = z.object({
  id,
  category: z.string().nullable(),
  amount: z.string(),
  actual: figure.describe('What its lines came to; null while one of them is not known.'),
  kept: z.boolean(),
  lines: z.array(id),
});

const advances = z.array(shownAdvance);

/** What the people who make a claim see of it. */
const makers = {
  claim: header,
  plan: z
    .object({ number: id, approvedOn: date, estimates: z.array(spentEstimate) })
    .nullable()
    .describe('The plan it comes from, estimates beside what was spent.'),
  document: stored<Claim>('the claim of ebbet-case/1'),
  amounts: z.record(id, figure).describe('What each line is in the currency of the claim.'),
  rebilled: z.record(id, figure).describe('What is charged on of lines that are.'),
  parts: z
    .record(id, z.array(stored<AssessedPart>('part of a line of ebbet-assessment/1')))
    .describe('What taxes and shares come to, of lines that have some.'),
  settlement,
  findings: z.array(finding),
  queries: z.array(query),
  attachments,
  advances,
  receipts: z.record(id, shownReceipt),
  declined,
  changes: z.array(change).describe('What finance changed of what was submitted.'),
  tide,
  history: z.array(historyFields),
  may,
};
const differing = z.object({
  ...{ line: id, kind: tieKind },
  comparisons: z.array(stored<Comparison>('comparison')),
});
const claimantView = z.object({
  audience: z.literal('claimant'),
  ...makers,
  differs: z.array(differing).describe('Where a line is not what its paper, its charge or a line of one’s own says.'),
});
const approverView = z.object({
  audience: z.literal('approver'),
  ...makers,
  ties: z.partialRecord(tieKind, shownTie).describe('The worst state of each kind of comparison.'),
  lineTies: z.array(
    z.object({
      ...{ line: id, kind: tieKind, state: shownTie },
      comparisons: z.array(stored<Comparison>('comparison')),
    }),
  ),
});

const tie = z.object({
  line: id,
  kind: tieKind,
  state: z.enum(TIE_STATES),
  shown: shownTie,
  about,
  difference: z.string().nullable(),
  comparisons: z.array(stored<Comparison>('comparison')),
  steps: z.array(stored<Step>('step')),
});
const mark = z.object({
  line: id,
  kind: tieKind,
  mark: z.enum(MARKS),
  reason: z.string().nullable(),
  by: z.string(),
  at: moment,
});
const claimJournal = z.object({
  number: id,
  purpose: z.string(),
  date,
  live: z.boolean(),
});

/** What finance, and an auditor, sees of a claim: everything it was computed from and what came of it. */
const financeFields = {
  claim: header.extend({ clearedBy: z.string().nullable() }),
  bookHash: z.string(),
  document: stored<{ postingDate: string; claim: Claim; own: OwnBook }>(
    'ebbet-case/1 without the shared part of its book',
  ),
  assessment: stored<Assessment>('ebbet-assessment/1'),
  proposedDate: date.describe('The date a posting would carry now.'),
  raised: z.string().nullable().describe('What it comes to beyond what was approved, while it is under review.'),
  assessedAt: moment,
  digest: z.string(),
  ties: z.array(tie),
  marks: z.array(mark),
  queries: z.array(query),
  evidence: stored<Evidence>('evidence'),
  attachments,
  advances,
  receipts: z.record(id, shownReceipt),
  declined,
  tide,
  history: z.array(historyFields),
  journals: z.array(claimJournal),
  submitted: stored<Claim>('the claim of ebbet-case/1 as it was submitted').nullable(),
  may,
};
const financeView = z.object({ audience: z.literal('finance'), ...financeFields });
const auditorView = z.object({ audience: z.literal('auditor'), ...financeFields });

export const claimAnswer = z.discriminatedUnion('audience', [claimantView, approverView, financeView, auditorView]);
export const bookAnswer = stored<SharedBook>('the shared part of a book of ebbet-case/1');
export const journalPreview = z.object({
  date,
  digest: z.string(),
  assessment: stored<Assessment>('ebbet-assessment/1'),
  against: z.string().nullable().describe('What stands against a posting on that date, in words.'),
});
export const postedAnswer = z.object({ journal: id });

export type Hold = z.infer<typeof holdSchema>;
export type Question = Omit<z.infer<typeof querySchema>, 'revision'>;
export type ShownQuery = z.infer<typeof query>;
export type PostRequest = z.infer<typeof postSchema>;
export type OwnClaimRow = z.infer<typeof ownRow>;
export type OwnFilter = z.infer<typeof ownFilter>;
export type ClaimHeader = z.infer<typeof header>;
export type HistoryEvent = z.infer<typeof historyFields>;
export type ClaimAnswer = z.infer<typeof claimAnswer>;
export type ClaimInput = z.input<typeof claimAnswer>;
export type MakerView = z.infer<typeof claimantView> | z.infer<typeof approverView>;
export type FinanceAnswer = z.infer<typeof financeView> | z.infer<typeof auditorView>;
export type JournalPreview = z.infer<typeof journalPreview>;
export type ShownMark = z.infer<typeof mark>;
export type SpentEstimate = z.infer<typeof spentEstimate>;
export type SeenTie = z.infer<typeof tie>;
export type TidePiece = z.infer<typeof tide>[number];
