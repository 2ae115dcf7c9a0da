import { toMinor } from '../../../core/numbers/amount.ts';
import type { Line } from '../../../core/documents/case.schema.ts';
import type { Tie, TieKind } from '../../../core/evidence/comparisons/tie.types.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { lockBudgets } from '../book/rules.queries.ts';
import { proposedPostingDate } from '../book/postingDate.ts';
import { canonical } from '../../../core/workflow/eventText.ts';
import { appendEvent } from '../../platform/history/appendEvent.ts';
import { claimToActOn, inTransaction } from './access.ts';
import type { Correction, Mark } from './claims.schema.ts';
import {
  deleteMarks,
  insertQuery,
  replaceLine,
  selectQueries,
  updateClaim,
  upsertMark,
  type ClaimRow,
  type ClaimState,
  type LineRecord,
} from './claims.queries.ts';
import { assessClaim, refreshClaim, settledState, validCase, type AssessedClaim } from './refreshClaim.ts';

/** The acts of a reviewer on a claim in review. Each is one transaction under the claim's lock and leaves an event. */

/** Corrects coding, split, tax or category of a line or item; the original stays in the submitted version and the history. */
export function correctLine(context: Context, actor: Actor, number: string, lineId: string, correction: Correction) {
  return act(
    context,
    actor,
    { number, revision: correction.revision, states: ['in review'] },
    async (trx, claim, before) => {
      const line = before.document.claim.lines.find((l) => l.id === lineId);
      const part = correction.item ? line?.items?.find((item) => item.id === correction.item) : line;
      if (!line || !part) throw new Refused('not-found', { what: 'line' });
      const changed = Object.entries(correction.set).filter(([field, value]) =>
        differs(value, part[field as keyof typeof part]),
      );
      if (changed.length === 0) return before;
      const from = Object.fromEntries(changed.map(([field]) => [field, part[field as keyof typeof part] ?? null]));
      Object.assign(part, Object.fromEntries(changed));
      validCase(before.document);
      await replaceLine(trx, { claim_id: claim.id, version: claim.version }, toRecord(line));
      const after = await saveNext(trx, context, claim, before);
      const facts = {
        revision: claim.revision,
        line: lineId,
        item: correction.item ?? null,
        from,
        to: Object.fromEntries(changed),
      };
      await record(trx, context, actor, claim, 'corrected', facts);
      return after;
    },
  );
}

/** Whether a field is given and says something else than now; missing, null and empty say the same. */
function differs(value: unknown, now: unknown): boolean {
  const plain = (x: unknown) => canonical(x == null || (Array.isArray(x) && x.length === 0) ? null : x);
  return value !== undefined && plain(value) !== plain(now);
}

/** Ticks a comparison as seen, waives it with a reason, or takes either back. The claim's figures do not change. */
export function markTie(context: Context, actor: Actor, number: string, mark: Mark) {
  return act(context, actor, { number, revision: mark.revision, states: ['in review'] }, async (trx, claim, before) => {
    if (!before.ties.some((t) => t.line === mark.line && t.kind === mark.kind))
      throw new Refused('not-found', { what: 'comparison' });
    const key = { claim_id: claim.id, version: claim.version, line_id: mark.line };
    const reason = mark.mark === 'waived' ? mark.reason : null;
    if (mark.mark === 'none') await deleteMarks(trx, key, [mark.kind]);
    else
      await upsertMark(trx, {
        ...key,
        kind: mark.kind,
        mark: mark.mark,
        reason,
        by_id: actor.id,
        at: context.clock.now(),
      });
    await refreshClaim(trx, claim, before.document.postingDate);
    await record(
      trx,
      context,
      actor,
      claim,
      'marked',
      { line: mark.line, tie: mark.kind, mark: mark.mark },
      reason ? { reason } : undefined,
    );
  });
}

/** Pins a question to a line; it goes to the claimant with the others when the claim is returned. */
export function askAbout(
  context: Context,
  actor: Actor,
  number: string,
  query: { revision: number; line: string; kind?: TieKind | null | undefined; text: string },
) {
  return act(
    context,
    actor,
    { number, revision: query.revision, states: ['in review'] },
    async (trx, claim, before) => {
      if (!before.document.claim.lines.some((l) => l.id === query.line))
        throw new Refused('not-found', { what: 'line' });
      const row = {
        claim_id: claim.id,
        version: claim.version,
        line_id: query.line,
        kind: query.kind ?? null,
        text: query.text,
      };
      await insertQuery(trx, { ...row, by_id: actor.id, at: context.clock.now() });
      await record(
        trx,
        context,
        actor,
        claim,
        'asked',
        { line: query.line, tie: query.kind ?? null },
        { text: query.text },
      );
    },
  );
}

/** Clears a claim for posting: no stop, and every comparison tied, waived or, where nothing can be compared, ticked. */
export function clearClaim(context: Context, actor: Actor, number: string, revision: number) {
  return act(context, actor, { number, revision, states: ['in review'] }, async (trx, claim, before) => {
    await lockBudgets(trx, claim.entity_id);
    assertClearable(await assessClaim(trx, claim, before.document.postingDate));
    await move(
      trx,
      context,
      actor,
      claim,
      'cleared',
      { cleared_by: actor.id, hold_reason: null, hold_until: null },
      'cleared',
    );
  });
}

/** Refuses what must not reach the ledger, naming the first stop or the cells that are not dealt with. */
export function assertClearable({ assessment, ties, marks }: AssessedClaim): void {
  const stop = assessment.findings.find((f) => f.severity === 'stop');
  if (stop) throw new Refused('has-stops', { first: `${stop.line ? `line ${stop.line}: ` : ''}${stop.says}` });
  const loose = ties.filter((tie) => ['off', 'open'].includes(settledState(tie, marks)));
  if (loose.length > 0)
    throw new Refused('ties-open', {
      count: loose.length,
      cells: loose.map((t) => `line ${t.line} ${t.kind}`).join(', '),
    });
}

/** Takes a cleared, or a reversed, claim back into review. */
export function reopenClaim(context: Context, actor: Actor, number: string, revision: number) {
  return act(context, actor, { number, revision, states: ['cleared', 'reversed'] }, async (trx, claim) => {
    await move(trx, context, actor, claim, 'in review', { cleared_by: null }, 'reopened');
  });
}

/** Sends a claim back to the claimant with the reason and all queries at once. */
export function returnClaim(
  context: Context,
  actor: Actor,
  number: string,
  { revision, reason }: { revision: number; reason: string },
) {
  return act(context, actor, { number, revision, states: ['in review'] }, async (trx, claim) => {
    const queries = await selectQueries(trx, { claim_id: claim.id, version: claim.version });
    const words = { reason, queries: queries.map(({ line, text }) => ({ line, text })) };
    await move(trx, context, actor, claim, 'returned', { hold_reason: null, hold_until: null }, 'returned', words);
  });
}

/** Puts a claim on hold with a reason and a date to look again, or takes it off hold. */
export function holdClaim(
  context: Context,
  actor: Actor,
  number: string,
  { revision, hold }: { revision: number; hold: { reason: string; until: string } | null },
) {
  return act(context, actor, { number, revision, states: ['in review'] }, async (trx, claim, before) => {
    const columns = { hold_reason: hold?.reason ?? null, hold_until: hold?.until ?? null };
    await updateClaim(trx, claim.id, columns);
    await saveNext(trx, context, Object.assign(claim, columns), before);
    await record(
      trx,
      context,
      actor,
      claim,
      hold ? 'held' : 'released',
      { revision: claim.revision, until: hold?.until ?? null },
      hold ? { reason: hold.reason } : undefined,
    );
  });
}

interface Scope {
  number: string;
  revision: number;
  states: readonly ClaimState[];
}

function act<T>(
  context: Context,
  actor: Actor,
  scope: Scope,
  work: (trx: Db, claim: ClaimRow, before: AssessedClaim) => Promise<T>,
): Promise<T> {
  return inTransaction(context, async (trx) => {
    const claim = await claimToActOn(trx, actor, scope);
    const date = await proposedPostingDate(trx, context.clock, claim.entity_id);
    return work(trx, claim, await assessClaim(trx, claim, date));
  });
}

/** Counts the revision up, assesses again, and forgets marks on comparisons that are no longer what was marked. */
async function saveNext(trx: Db, { clock }: Context, claim: ClaimRow, before: AssessedClaim): Promise<AssessedClaim> {
  claim.revision += 1;
  await updateClaim(trx, claim.id, { revision: claim.revision });
  const date = await proposedPostingDate(trx, clock, claim.entity_id);
  const after = await assessClaim(trx, claim, date);
  for (const tie of after.ties) {
    const old = before.ties.find((t) => t.line === tie.line && t.kind === tie.kind);
    if (sameTie(old, tie)) continue;
    await deleteMarks(trx, { claim_id: claim.id, version: claim.version, line_id: tie.line }, [tie.kind]);
  }
  return refreshClaim(trx, claim, date);
}

const sameTie = (a: Tie | undefined, b: Tie): boolean =>
  JSON.stringify(a?.comparisons) === JSON.stringify(b.comparisons);

/** Moves a claim to another state, counting its revision up. */
export async function move(
  trx: Db,
  context: Context,
  actor: Actor,
  claim: ClaimRow,
  state: ClaimState,
  columns: Partial<ClaimRow>,
  kind: string,
  words?: Record<string, unknown>,
  facts?: Record<string, unknown>,
): Promise<void> {
  claim.revision += 1;
  await updateClaim(trx, claim.id, { ...columns, state, revision: claim.revision });
  await record(
    trx,
    context,
    actor,
    claim,
    kind,
    { revision: claim.revision, version: claim.version, state, ...facts },
    words,
  );
}

export function record(
  trx: Db,
  { clock }: Context,
  actor: Actor,
  claim: ClaimRow,
  kind: string,
  facts: Record<string, unknown>,
  words?: Record<string, unknown>,
): Promise<void> {
  return appendEvent(trx, {
    recordKind: 'claim',
    recordId: claim.id,
    at: clock.now(),
    actorId: actor.id,
    kind,
    facts,
    ...(words ? { words } : {}),
  });
}

/** The rows a line of a document is stored as. */
export function toRecord(line: Line): LineRecord {
  const minor = (amount: string | null | undefined) => (amount == null ? null : toMinor(amount, line.currency));
  const partsOf = (part: Pick<Line, 'tax' | 'split'>, item_id: string | null) => ({
    taxEntries: (part.tax ?? []).map((t) => ({ item_id, code: t.code, gross: minor(t.gross), tax: minor(t.tax) })),
    shares: (part.split?.shares ?? []).map((s) => ({ item_id, coding: s.coding, value: s.value ?? null })),
  });
  const all = [partsOf(line, null), ...(line.items ?? []).map((item) => partsOf(item, item.id))];
  return {
    line: { id: line.id, category: line.category ?? null, coding: line.coding ?? {}, split_by: line.split?.by ?? null },
    items: (line.items ?? []).map((item) => ({
      id: item.id,
      category: item.category ?? null,
      amount: minor(item.amount)!,
      description: item.description ?? null,
      personal: item.personal ?? false,
      coding: item.coding ?? {},
      split_by: item.split?.by ?? null,
    })),
    taxEntries: all.flatMap((p) => p.taxEntries),
    shares: all.flatMap((p) => p.shares),
  };
}
