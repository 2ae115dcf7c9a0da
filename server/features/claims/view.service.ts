import { createHash } from 'node:crypto';
import type { Actor, Context } from '../../platform/context.ts';
import { proposedPostingDate } from '../book/postingDate.ts';
import { groupBy } from '../../../core/numbers/groupBy.ts';
import { canonical } from '../../../core/workflow/eventText.ts';
import { selectEvents, selectStateChanges } from '../../platform/history/history.queries.ts';
import { isOwn, readableClaim } from './access.ts';
import { writeEvidence } from './buildCase.ts';
import { selectQueries, type ClaimRow } from './claims.queries.ts';
import {
  selectClaimPage,
  selectStateCounts,
  selectClaimHeader,
  selectOwnClaims,
  selectJournalsOfClaim,
  selectSubmitted,
  type QueueRow,
} from './desk.queries.ts';
import { assessClaim } from './refreshClaim.ts';

/** One piece of a tide bar: a state and when it began; it ends when the next begins. */
export interface TidePiece {
  state: string;
  from: string;
}

/** Everything the Sheet, or the claimant's page, shows of one claim. */
export async function viewClaim({ db, clock }: Context, actor: Actor, number: string) {
  const claim = await readableClaim(db, number, actor);
  const key = { claim_id: claim.id, version: claim.version };
  const date = await proposedPostingDate(db, clock, claim.entity_id);
  const [assessed, header, events, queries, journals, submitted] = await Promise.all([
    assessClaim(db, claim, date),
    selectClaimHeader(db, claim.id),
    selectEvents(db, 'claim', claim.id),
    selectQueries(db, key),
    selectJournalsOfClaim(db, claim.id),
    selectSubmitted(db, key),
  ]);
  const { document, assessment, ties, marks, receipts } = assessed;
  return {
    claim: header,
    document,
    assessment,
    digest: digestOf(assessment.journal),
    ties,
    marks: marks.map((m) => ({ line: m.line_id, kind: m.kind, mark: m.mark, reason: m.reason, by: m.by, at: m.at })),
    queries,
    evidence: assessed.evidence,
    receipts: Object.fromEntries(
      [...receipts].map(([line, r]) => [line, { ...writeEvidence(r), pages: r.pages, reading: r.reading }]),
    ),
    tide: tideOf(events.map((e) => ({ state: e.facts.state as string | undefined, at: e.at }))),
    history: events,
    journals,
    submitted,
    may: actsOpen(claim, actor),
  };
}

/** A fingerprint of a journal, by which a poster proves to have seen this one. */
export const digestOf = (journal: unknown): string => createHash('sha256').update(canonical(journal)).digest('hex');

export type Act = 'correct' | 'clear' | 'return' | 'hold' | 'reopen' | 'post' | 'reverse';

/** What this person may do with the claim as it is now; the server checks again when it is done. */
function actsOpen(claim: ClaimRow, actor: Actor): Act[] {
  if (isOwn(claim, actor)) return [];
  const acts: Act[] = [];
  if (actor.roles.has('reviewer') && claim.state === 'in review') acts.push('correct', 'clear', 'return', 'hold');
  if (actor.roles.has('reviewer') && (claim.state === 'cleared' || claim.state === 'reversed')) acts.push('reopen');
  if (actor.roles.has('controller') && claim.state === 'cleared') acts.push('post');
  if (actor.roles.has('controller') && claim.state === 'posted') acts.push('reverse');
  return acts;
}

function tideOf(changes: { state: string | undefined; at: Date }[]): TidePiece[] {
  return changes.filter((c) => c.state).map((c) => ({ state: c.state!, from: c.at.toISOString() }));
}

export interface QueueQuery {
  state?: string | undefined;
  q?: string | undefined;
  after?: string | undefined;
}

/** One page of the Desk: claims of a state, what deserves attention first, with how many there are of each state. */
export async function viewQueue({ db }: Context, { state = 'in review', q, after }: QueueQuery) {
  const [rows, counts] = await Promise.all([
    selectClaimPage(db, { state, q, after: after ?? null }),
    selectStateCounts(db),
  ]);
  return { ...(await withTides(db, rows.rows)), next: rows.next, counts };
}

/** The claims a person made or has made for them, newest first. */
export async function viewOwnClaims({ db }: Context, actor: Actor) {
  return withTides(db, await selectOwnClaims(db, actor.id));
}

async function withTides(db: Context['db'], rows: QueueRow[]) {
  const changes = await selectStateChanges(
    db,
    rows.map((row) => row.id),
  );
  const byClaim = groupBy(changes, (change) => change.claimId);
  return { claims: rows.map(({ id, ...row }) => ({ ...row, tide: tideOf(byClaim.get(id) ?? []) })) };
}
