import type { Question } from '../../../contract/claims.ts';
import { standsTo } from '../../../core/workflow/standsTo.ts';
import type { Actor, Context, Services } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { attach, takeFile, type SentFile } from '../../records/attachments/takeFile.ts';
import { keptClaim, standingOf, summaryColumns } from '../../records/claims/assessClaim.ts';
import { actAlone, type LockedClaim, type SeenClaim } from '../../records/claims/claimStore.ts';
import { selectMarks } from '../../records/claims/marks.queries.ts';
import {
  answerNow,
  endQuery,
  insertQuery,
  selectDeciders,
  selectQueries,
  sendQueries,
  type OpenQuery,
} from './queries.queries.ts';

/** Questions about a claim in review: pinned to a line and comparison, sent together, answered there. */

/** Pins a question to a line; nobody but finance sees it until it is sent, or the claim is returned. */
export function askAbout(context: Context, actor: Actor, seen: SeenClaim, question: Question): Promise<void> {
  const { line, kind = null, text, asks } = question;
  return actAlone(context, actor, 'ask', seen, async (trx, { row, at }) => {
    const { claim: document } = await keptClaim(trx, at);
    if (!document.lines.some((l) => l.id === line)) throw new Refused('not-found', { what: 'line' });
    if (asks === 'approver' && (await selectDeciders(trx, row.number, at.version)).length === 0)
      throw new Refused('nobody-approved', { number: row.number });
    await insertQuery(trx, { ...at, line_id: line, kind, text, asks, by_id: actor.id, at: context.clock.now() });
    return { result: undefined, facts: { line, tie: kind }, words: { text } };
  });
}

/** Sends what was pinned to those it asks. The claim stays in review and waits. */
export function sendQuestions(context: Context, actor: Actor, seen: SeenClaim): Promise<void> {
  return actAlone(context, actor, 'sendQueries', seen, async (trx, claim) => {
    const sent = await sendQueries(trx, claim.at, context.clock.now());
    if (sent.length === 0) throw new Refused('nothing-asked', { number: claim.row.number });
    const lines = [...new Set(sent.map((q) => q.line))];
    const asks = [...new Set(sent.map((q) => q.asks))];
    return {
      result: undefined,
      columns: await pendingColumns(context, trx, claim),
      facts: { lines, count: sent.length, asks },
    };
  });
}

/** A question of a claim, as the path names it. */
export interface OneQuery extends SeenClaim {
  query: bigint;
}

/** Takes a question back, sent or not; what was answered stays. */
export function dropQuery(context: Context, actor: Actor, { query: id, ...seen }: OneQuery): Promise<void> {
  return actAlone(context, actor, 'dropQuery', seen, async (trx, claim) => {
    const query = await unansweredQuery(trx, claim, id);
    await endQuery(trx, query.id, context.clock.now());
    return { result: undefined, columns: await pendingColumns(context, trx, claim), facts: factsOf(query) };
  });
}

/** Answers a question at its line. With the last one the claim no longer waits. */
export function answerInReview(context: Context, actor: Actor, { query: id, ...seen }: OneQuery, text: string) {
  return actAlone(context, actor, 'answer', seen, async (trx, claim) => {
    const query = await questionFor(trx, claim, actor, id);
    const now = context.clock.now();
    await answerNow(trx, { id: query.id, answer: text, answered_by: actor.id, answered_at: now });
    const columns = await pendingColumns(context, trx, claim);
    return { result: undefined, columns, facts: factsOf(query), words: { text } };
  });
}

/** Adds a file to the answer one is asked for. */
export async function attachToAnswer(
  services: Services,
  actor: Actor,
  { query: id, ...seen }: OneQuery,
  sent: SentFile,
): Promise<void> {
  const file = await takeFile(services, actor, sent);
  await actAlone(services, actor, 'attachAnswer', seen, async (trx, claim) => {
    const query = await questionFor(trx, claim, actor, id);
    await attach(services, trx, actor, { query_id: query.id }, file);
    return { result: undefined, facts: factsOf(query) };
  });
}

/** Facts of an event about a question; whom it asked decides who reads of it. */
const factsOf = ({ line, asks }: OpenQuery) => ({ line, asks: [asks] });

async function unansweredQuery(trx: Db, { at }: LockedClaim, id: bigint): Promise<OpenQuery> {
  const query = (await selectQueries(trx, at)).find((q) => String(q.id) === String(id) && !q.answered);
  if (!query) throw new Refused('not-found', { what: 'open question' });
  return query;
}

/** A question that was sent to this person, as a maker or as an approver. */
async function questionFor(trx: Db, claim: LockedClaim, actor: Actor, id: bigint): Promise<OpenQuery> {
  const query = await unansweredQuery(trx, claim, id);
  const makes = standsTo(claim, 'claimant', actor) || standsTo(claim, 'preparer', actor);
  if (!query.sent || makes !== (query.asks === 'claimant')) throw new Refused('not-found', { what: 'open question' });
  return query;
}

/** Who is asked now, how many questions wait and are answered, and where that puts the claim in the queue. */
export async function pendingColumns(
  { clock }: Context,
  trx: Db,
  { row, at }: LockedClaim,
): Promise<Record<string, unknown>> {
  const sent = (await selectQueries(trx, at)).filter((q) => q.sent);
  const open = sent.filter((q) => !q.answered);
  const makers = open.some((q) => q.asks === 'claimant') ? [row.claimant_id, row.preparer_id] : [];
  const approvers = open.some((q) => q.asks === 'approver') ? await selectDeciders(trx, row.number, at.version) : [];
  const pending = { waiting: open.length, answered: sent.length - open.length };
  const standing = standingOf({ ...row, ...pending }, clock);
  const columns = summaryColumns(await keptClaim(trx, at), await selectMarks(trx, at), standing);
  return { ...columns, ...pending, questioned: [...new Set([...makers, ...approvers])] };
}

/** Nobody is asked any more: the claim leaves review. */
export const NO_QUESTIONS = { questioned: [], waiting: 0, answered: 0 };

/** A claim is not cleared over a question that is not dealt with. */
export async function refuseUnasked(trx: Db, { at }: LockedClaim): Promise<void> {
  const open = (await selectQueries(trx, at)).find((q) => !q.answered);
  if (open) throw new Refused('question-open', { line: open.line, sent: open.sent ? 'not answered' : 'not sent' });
}
