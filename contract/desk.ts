import { z } from 'zod';
import { TIE_KINDS, TIE_STATES } from '../core/evidence/comparisons/tie.types.ts';
import { MARKS } from '../core/evidence/comparisons/stateWithMark.ts';
import { FINANCE } from '../core/workflow/lifecycle.types.ts';
import { CLAIM_STATES } from '../core/workflow/lifecycles/claim.ts';
import { date, distinct, id, moment, recordId } from './primitives.ts';
import { route, type RouteContract } from './route.ts';

/** The Desk: which claims are listed, what is said of each, and the filters that are kept under a name. */

const state = z.enum(CLAIM_STATES);
const tieKind = z.enum(TIE_KINDS);

/** What a claim can be besides its state. */
export const STANDINGS = ['held', 'overdue', 'waiting', 'answered', 'again', 'mine', 'drawn', 'clean'] as const;
export type StandingFilter = (typeof STANDINGS)[number];

const figure = z.string().regex(/^-?\d{1,12}(\.\d{1,3})?$/, 'is not an amount. Enter a number such as 250 or 250.50.');
/** One value, or several behind each other with commas. */
const several = (pattern: RegExp, message: string) => z.string().max(400).regex(pattern, message).optional();

/** What the list is narrowed to. Missing means: not narrowed. */
export const deskFilter = z.strictObject({
  state: state
    .exclude(['draft'])
    .or(z.literal('any'))
    .default('in review')
    .describe('A state; any of them is for searching.'),
  q: z.string().trim().max(200).optional(),
  entity: id.optional(),
  person: z.string().trim().max(100).optional().describe('A part of the claimant’s name.'),
  code: several(
    /^[\w-]{1,40}:[^,:\s]{1,40}(,[\w-]{1,40}:[^,:\s]{1,40})*$/,
    'is not a code. Write dimension:code, several with commas.',
  ).describe('Codes as dimension:code; a claim has them all.'),
  category: id.optional(),
  off: tieKind.optional().describe('A kind of comparison that is not dealt with.'),
  is: several(
    new RegExp(`^(${STANDINGS.join('|')})(,(${STANDINGS.join('|')}))*$`),
    `is none of ${STANDINGS.join(', ')}.`,
  ).describe(`Any of ${STANDINGS.join(', ')}, several with commas; a claim is all of them.`),
  min: figure.optional().describe('Total in the currency of the ledger, at least.'),
  max: figure.optional(),
  older: z.coerce.number().int().min(0).max(3650).optional().describe('Days since it was submitted, at least.'),
});
export const listSchema = deskFilter.extend({
  after: z
    .string()
    .regex(/^-?\d{1,12}\/\d{4}-\d{2}-\d{2}\/\d{1,18}$/, 'is not the end of a page. Load the first page again.')
    .optional()
    .describe('The end of the page before, as it was answered.'),
});

const tide = z.array(z.object({ state: z.string(), from: moment }));
export const row = z.object({
  number: id,
  version: z.number(),
  revision: z.number(),
  state,
  entity: id,
  claimant: z.string(),
  purpose: z.string(),
  submittedOn: date.nullable(),
  currency: z.string(),
  toPay: z.string().nullable(),
  ledgerCurrency: z.string(),
  /** One's own claim: nothing is said of what finance thinks of it. */
  own: z.boolean(),
  atRisk: z.string().nullable(),
  ties: z.partialRecord(tieKind, z.enum([...TIE_STATES, ...MARKS])),
  stops: z.number(),
  asks: z.number(),
  holdUntil: date.nullable(),
  waiting: z.number().describe('Questions that were sent and not answered.'),
  answered: z.number().describe('Questions that were answered.'),
  attention: z.array(z.string()).describe('Why it stands where it stands, what matters most first.'),
  clean: z
    .boolean()
    .describe('Every comparison is tied and nothing is said against it: it can be cleared together with others.'),
  here: z.array(z.string()).describe('Who else has it open now.'),
  tide,
});
export const queueAnswer = z.object({
  claims: z.array(row),
  next: z.string().nullable(),
  counts: z.partialRecord(state, z.number()),
});

const name = z.string().trim().min(1).max(60);
export const saveViewSchema = z.strictObject({ name, shared: z.boolean(), query: z.string().max(1000) });
const view = z.object({
  id: recordId,
  name: z.string(),
  shared: z.boolean(),
  query: z.string().describe('The address of the Desk behind its question mark.'),
  own: z.boolean(),
  owner: z.string(),
});
export const viewsAnswer = z.object({ views: z.array(view) });
export const entitiesAnswer = z.object({ entities: z.array(z.object({ id, name: z.string() })) });

/** The columns there are besides those that always stand. */
export const DESK_COLUMNS = ['progress', 'ties', 'risk', 'pay', 'submitted', 'version', 'state', 'asks'] as const;
const column = z.strictObject({
  id: z.enum(DESK_COLUMNS),
  width: z.number().min(4).max(24).describe('In rem.'),
});
export const columnsSchema = z.strictObject({
  columns: distinct(z.array(column).max(DESK_COLUMNS.length), ({ id }) => id),
});
export const columnsAnswer = z.object({ columns: z.array(column).nullable().describe('Null: as usual.') });

export const hereAnswer = z.object({
  others: z.array(z.string()).describe('Who else has the claim open.'),
  before: z.number().nullable().describe('The version one looked at before this one; null when there was none.'),
  revision: z.number().int().describe('The revision of the claim now.'),
});

export const nextSchema = z.strictObject({
  numbers: distinct(z.array(id).min(1).max(500)).describe('In the order they are gone through.'),
});
export const nextAnswer = z.object({
  number: id.nullable().describe('The first that nobody else has open; it is this person’s now.'),
});

export const DESK_ROUTES: readonly RouteContract[] = [
  route('get', '/claims', FINANCE, 'A page of the queue.', queueAnswer, { query: listSchema }),
  route('get', '/claims.csv', FINANCE, 'The queue as a file.', null, { query: deskFilter, type: 'text/csv' }),
  route('get', '/desk/entities', FINANCE, 'The entities whose claims one sees.', entitiesAnswer),
  route('post', '/desk/next', FINANCE, 'Takes the next claim that nobody else has open.', nextAnswer, {
    body: nextSchema,
  }),
  route('get', '/desk/views', FINANCE, 'Filters that were kept, one’s own and shared ones.', viewsAnswer),
  route('post', '/desk/views', FINANCE, 'Keeps a filter under a name; one of that name is replaced.', viewsAnswer, {
    body: saveViewSchema,
    status: 201,
  }),
  route('delete', '/desk/views/:id', FINANCE, 'Gives up a filter of one’s own.', viewsAnswer),
  route('get', '/desk/columns', FINANCE, 'The columns of the Desk as this person chose them.', columnsAnswer),
  route('put', '/desk/columns', FINANCE, 'Chooses, orders and sizes them.', columnsAnswer, { body: columnsSchema }),
  route('post', '/claims/:number/here', FINANCE, 'Says that one has a claim open.', hereAnswer),
  route('delete', '/claims/:number/here', FINANCE, 'Says that one left it.', hereAnswer),
];

export type DeskFilter = z.infer<typeof deskFilter>;
export type QueueQuery = z.infer<typeof listSchema>;
export type QueueRow = z.infer<typeof row>;
export type QueueAnswer = z.infer<typeof queueAnswer>;
export type DeskView = z.infer<typeof view>;
export type DeskColumn = z.infer<typeof column>;
export type SaveView = z.infer<typeof saveViewSchema>;
