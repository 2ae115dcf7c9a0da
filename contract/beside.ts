import { z } from 'zod';
import type { Assessment } from '../core/documents/assessment.schema.ts';
import { parts, type Claim } from '../core/documents/case.schema.ts';
import { FINANCE } from '../core/workflow/lifecycle.types.ts';
import { date, id, stored } from './primitives.ts';
import { route, type RouteContract } from './route.ts';

/** What a reviewer looks up beside a claim: its earlier versions, its person, what used a budget. */

export const versionAnswer = z.object({
  version: z.number(),
  submittedOn: date.nullable(),
  claim: stored<Claim>('the claim of ebbet-case/1 as it was submitted'),
  assessment: stored<Assessment>('ebbet-assessment/1 as it was last computed of that version'),
});

const spent = z.object({ category: z.string(), lines: z.number(), amount: z.string() });
const sameMerchant = z.object({
  claim: id,
  line: id,
  date,
  merchant: z.string(),
  amount: z.string(),
  currency: z.string(),
  state: z.string(),
});
export const personAnswer = z.object({
  name: z.string(),
  currency: z.string().describe('Of the ledger; everything is told in it.'),
  since: date.describe('What was submitted from this day on is looked at: a year.'),
  claims: z.number(),
  returned: z.number().describe('How often claims of theirs went back in that time.'),
  spent: z.array(spent).describe('By category, the most first; private parts left out.'),
  advances: z.array(
    z.object({ id, purpose: z.string(), open: z.string(), currency: z.string(), dueBy: date.nullable() }),
  ),
  sameMerchants: z.array(sameMerchant).describe('Earlier lines at merchants of this claim, the newest first.'),
});

const use = z.object({
  kind: z.enum(['claim', 'plan', 'advance']),
  id,
  who: z.string().nullable(),
  stage: z.enum(['reserved', 'cleared', 'posted']),
  amount: z.string(),
});
const budget = z.object({
  dimension: z.string(),
  code: z.string(),
  category: z.string().nullable(),
  currency: z.string(),
  amount: z.string(),
  posted: z.string(),
  cleared: z.string(),
  reserved: z.string(),
  thisClaim: z.string().describe('What this claim charges to it.'),
  left: z.string().describe('After this claim.'),
  uses: z.array(use).describe('What others used, the largest first.'),
});
export const budgetsAnswer = z.object({ budgets: z.array(budget) });

const earlierSplit = z.object({ claim: id, line: id, date, category: id.nullable(), split: parts.split });
export const splitsAnswer = z.object({
  plan: parts.split.nullable().describe('By what was estimated of its plan, where that has several codings.'),
  earlier: z
    .array(earlierSplit)
    .describe('Shares on the latest claims of the same person, each once, the newest first.'),
});

export const BESIDE_ROUTES: readonly RouteContract[] = [
  route(
    'get',
    '/claims/:number/versions/:version',
    FINANCE,
    'A claim as an earlier version was submitted.',
    versionAnswer,
  ),
  route('get', '/claims/:number/person', FINANCE, 'What its claimant claimed in a year.', personAnswer),
  route('get', '/claims/:number/budgets', FINANCE, 'The budgets it charges, and what used them.', budgetsAnswer),
  route('get', '/claims/:number/splits', FINANCE, 'Splits its lines may be divided by.', splitsAnswer),
];

export type PersonAnswer = z.infer<typeof personAnswer>;
export type BudgetsAnswer = z.infer<typeof budgetsAnswer>;
export type SplitsAnswer = z.infer<typeof splitsAnswer>;
export type VersionAnswer = z.infer<typeof versionAnswer>;
