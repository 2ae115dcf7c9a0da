import type { Item, Line } from '../../../core/documents/case.schema.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { assessRows, claimFromRows, keptClaim, validCase } from '../../records/claims/assessClaim.ts';
import { keepAgreed, keepApproved } from '../../records/claims/approved.ts';
import { assessKept } from '../../records/claims/assessKept.ts';
import { actAlone, actOnClaim, type LockedClaim, type SeenClaim } from '../../records/claims/claimStore.ts';
import { copyVersion, lockClaimRow } from '../../records/claims/claims.queries.ts';
import type { VersionKey } from '../../records/claims/versionKey.ts';
import { carryDeclined, partsOf, wholeCut } from '../../records/claims/declined.ts';
import { deleteDeclined, insertDeclined, selectDeclined } from '../../records/claims/declined.queries.ts';
import { selectLines } from '../../records/claims/lines.queries.ts';
import { routedKey } from '../../records/claims/routedClaim.ts';
import { noLongerAlike } from '../../records/claims/usesOf.ts';
import { answerForCodes } from '../../records/routing/askCodes.ts';
import { askLastAgain, decide, endRoute, isLastDecision, undecide } from '../../records/routing/decide.ts';
import { askMakersOnly, insertQuery, sendQueries } from './queries.queries.ts';
import { NO_QUESTIONS, pendingColumns } from './queries.service.ts';

/** Approves a claim for all this person is asked about; with the last decision of its route it goes to finance. */
export const approveClaim = (
  context: Context,
  actor: Actor,
  { comment, ...seen }: SeenClaim & { comment?: string | undefined },
): Promise<void> =>
  inTransaction(context, async (trx) => {
    const row = await lockClaimRow(trx, seen.number);
    const last = !row || (await isLastDecision(trx, routedKey(row), row.entity_id, actor));
    const name = last ? 'approve' : 'approvePart';
    await actOnClaim(context, trx, { act: name, claim: seen, actor }, async ({ row: claim, revision, at }) => {
      const record = { key: routedKey(claim), entity: claim.entity_id, revision, approvers: claim.approvers };
      const decided = await decide(trx, record, actor, context.clock.now());
      if (last) await keepApproved(trx, at, context.clock.now());
      return { result: undefined, ...decided, words: comment ? { comment } : null };
    });
  });

/** Takes back one's own decision, as long as nobody did anything since. */
export const takeBackClaim = (context: Context, actor: Actor, seen: SeenClaim): Promise<void> =>
  actAlone(context, actor, 'takeBack', seen, async (trx, { row }) => ({
    result: undefined,
    columns: await undecide(trx, { key: routedKey(row) }, row.decided_in!, context.clock.now()),
  }));

const NO_HOLD = { hold_reason: null, hold_told: null, hold_until: null, ...NO_QUESTIONS };

export interface WithReason extends SeenClaim {
  reason: string;
}

/** Declines a claim for good, with the reason. */
export const declineClaim = (context: Context, actor: Actor, { reason, ...seen }: WithReason): Promise<void> =>
  actAlone(context, actor, 'decline', seen, async (trx, claim) => ({
    result: undefined,
    words: { reason },
    columns: { ...(await endRoute(trx, routedKey(claim.row))), ...NO_HOLD, code_owners: [] },
    jobs: noLongerAlike(claim),
  }));

/** A claim that goes back, and what is asked at single lines besides what was asked before. */
export interface Return extends WithReason {
  lines?: readonly { line: string; text: string }[] | undefined;
}

/**
 * Sends a claim back to the claimant with the reason and all queries at once. The version stays as it was; the next one is
 * opened with everything it holds, for the claimant to put right.
 */
export function returnClaim(context: Context, actor: Actor, { reason, lines = [], ...seen }: Return): Promise<void> {
  return actAlone(context, actor, 'return', seen, async (trx, claim) => {
    const { at } = claim;
    const now = context.clock.now();
    await askAtLines(trx, at, lines, { by_id: actor.id, at: now });
    await askMakersOnly(trx, at);
    const queries = (await sendQueries(trx, at, now)).map(({ line, text }) => ({ line, text }));
    const columns = await openNextVersion(context, trx, claim);
    return {
      result: undefined,
      columns,
      facts: { version: at.version },
      words: { reason, queries },
    };
  });
}

/**
 * Opens the version after the one that went out, with everything it holds and what was declined of it; nobody is asked about it
 * any more. The columns of the claim that follow.
 */
export async function openNextVersion(context: Context, trx: Db, { row, at, revision }: LockedClaim) {
  await copyVersion(trx, at);
  const ended = await endRoute(trx, routedKey(row));
  Object.assign(row, { version: row.version + 1, ...NO_HOLD });
  await carryDeclined(trx, at, async () => (await claimFromRows(trx, row, row.submitted_on!)).lines);
  const { columns } = await assessRows(trx, context.clock, row, revision);
  return { ...columns, ...ended, ...NO_HOLD, code_owners: [], version: row.version };
}

/**
 * Sends a claim in review back to who approved it last, with the reason and what is pinned for them; the version stays as it is, and
 * what was said of comparisons too.
 */
export const returnToApprover = (context: Context, actor: Actor, { reason, ...seen }: WithReason): Promise<void> =>
  actAlone(context, actor, 'returnToApprover', seen, async (trx, claim) => {
    const now = context.clock.now();
    const asked = await askLastAgain(trx, routedKey(claim.row), now);
    await sendQueries(trx, claim.at, now, 'approver');
    const row = { ...claim.row, hold_until: null };
    const pending = await pendingColumns(context, trx, { ...claim, row });
    return {
      result: undefined,
      columns: { ...pending, ...asked, hold_reason: null, hold_told: null, hold_until: null },
      facts: { version: claim.row.version },
      words: { reason },
    };
  });

async function askAtLines(
  trx: Db,
  key: VersionKey,
  lines: NonNullable<Return['lines']>,
  by: { by_id: string; at: Date },
): Promise<void> {
  if (lines.length === 0) return;
  const there = new Set((await selectLines(trx, key)).map((l) => l.id));
  for (const { line, text } of lines) {
    if (!there.has(line)) throw new Refused('not-found', { what: 'line' });
    await insertQuery(trx, { ...key, line_id: line, kind: null, text, ...by });
  }
}

/** A line to decline, and why; or one that was, to be taken as it was again. */
export interface OneLine extends SeenClaim {
  line: string;
}

/**
 * Declines one line: it stays visible and leaves the total; on a card it becomes private, since the bank's amount never
 * changes. What is paid centrally is paid already, and what is private is no cost: neither can be declined by itself. What was
 * cut of it before stays under the decline.
 */
export const declineLine = (context: Context, actor: Actor, { reason, ...seen }: OneLine & { reason: string }) =>
  cutLine(context, actor, { act: 'declineLine', seen, words: { reason } }, async (trx, { at }, { line, parts }) => {
    if (await declinedLine(trx, at, line.id)) throw new Refused('line-declined', { line: line.id });
    const under = Object.fromEntries(parts.flatMap((p) => (p.cut ? [[itemOf(line, p), p.cut]] : [])));
    const row = { line_id: line.id, reason, by_id: actor.id, at: context.clock.now(), under, about: null };
    await insertDeclined(trx, at, row);
    return (part) => wholeCut(part, line.currency, reason);
  });

/** Takes a declined line as it was before it was declined. */
export const restoreLine = (context: Context, actor: Actor, seen: OneLine): Promise<void> =>
  cutLine(context, actor, { act: 'restoreLine', seen, words: null }, async (trx, { at }, { line }) => {
    const declined = await declinedLine(trx, at, line.id);
    if (!declined) throw new Refused('line-counts', { line: line.id });
    await deleteDeclined(trx, at, line.id);
    return (part) => declined.under[itemOf(line, part)] ?? null;
  });

const declinedLine = async (trx: Db, key: VersionKey, line: string) =>
  (await selectDeclined(trx, key)).find((d) => d.line_id === line);
const itemOf = (line: Line, part: Line | Item): string => (part === line ? '' : part.id);

interface CutParts {
  line: Line;
  parts: (Line | Item)[];
}
type CutOf = (part: Line | Item) => Line['cut'] | null;

function cutLine(
  context: Context,
  actor: Actor,
  { act, seen, words }: { act: 'declineLine' | 'restoreLine'; seen: OneLine; words: Record<string, unknown> | null },
  decide: (trx: Db, claim: LockedClaim, of: CutParts) => Promise<CutOf>,
): Promise<void> {
  const { line: id, ...claim } = seen;
  return actAlone(context, actor, act, claim, async (trx, locked) => {
    const kept = await keptClaim(trx, locked.at);
    const line = kept.claim.lines.find((l) => l.id === id);
    if (!line) throw new Refused('not-found', { what: 'line' });
    const parts = partsOf(line);
    const nothing = parts.every((part) => wholeCut(part, line.currency, '') === null);
    if (line.paidBy === 'central' || line.personal || nothing) throw new Refused('line-not-declined', { line: id });
    const cutOf = await decide(trx, locked, { line, parts });
    for (const part of parts) {
      const cut = cutOf(part);
      if (cut) part.cut = cut;
      else delete part.cut;
    }
    validCase(kept.document);
    const columns = await assessKept(context.clock, trx, locked, kept);
    return { result: undefined, columns, facts: { line: id }, words };
  });
}

/** Agrees to codes of one's own that finance gave the claim. */
export const agreeCode = (context: Context, actor: Actor, seen: SeenClaim): Promise<void> =>
  actAlone(context, actor, 'agreeCode', seen, async (trx, { row, revision, at }) => {
    const agreed = { by: actor.id, at: context.clock.now(), revision };
    const { codeOwners, codes } = await answerForCodes(
      trx,
      { key: routedKey(row), entity: row.entity_id },
      actor,
      agreed,
    );
    await keepAgreed(trx, at, codes, agreed.at);
    // who agreed goes on seeing what they agreed to
    const approvers = [...new Set([...row.approvers, actor.id])];
    return { result: undefined, columns: { code_owners: codeOwners, approvers }, facts: { codes } };
  });

/** Does not agree to them, with the reason: finance has to find another code, or ask again. */
export const refuseCode = (context: Context, actor: Actor, { reason, ...seen }: WithReason): Promise<void> =>
  actAlone(context, actor, 'refuseCode', seen, async (trx, { row }) => {
    const { codeOwners, codes } = await answerForCodes(
      trx,
      { key: routedKey(row), entity: row.entity_id },
      actor,
      null,
    );
    return { result: undefined, columns: { code_owners: codeOwners }, facts: { codes }, words: { reason } };
  });
