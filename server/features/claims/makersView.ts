import type { Assessment } from '../../../core/documents/assessment.schema.ts';
import type { Claim } from '../../../core/documents/case.schema.ts';
import type { OwnBook } from '../../../core/documents/splitBook.ts';
import { settlementSum } from '../../../core/figures/settlement/settlementSum.ts';
import { NOTHING_PENDING, summariseReview } from '../../../core/evidence/comparisons/summariseReview.ts';
import { concernsMakers, seesQuestion, type Audience } from '../../../core/workflow/audienceOf.ts';
import { IN_PREPARATION } from '../../../core/workflow/lifecycles/claim.ts';
import type { HistoryEvent } from '../../../contract/claims.ts';
import { changesOf } from '../../records/claims/changesOf.ts';
import { isCut } from '../../records/claims/declined.ts';
import { shownTies } from '../../records/claims/assessClaim.ts';
import type { Sources } from './view.types.ts';

/** What finance says among itself while it reviews; nobody else reads it. */
const FINANCE_ONLY = new Set(['marked', 'asked', 'question taken back', 'drawn for a full look']);

/**
 * What a claimant, or whoever prepares for one, sees: their lines, what will be paid and why, what finance changed, and
 * queries once they were sent. Nothing of other people's claims, of budgets, or of what finance waived.
 */
export function claimantView(sources: Sources) {
  return {
    ...makersView('claimant', sources),
    findings: sources.assessed.result.findings.filter(concernsMakers),
    differs: differsOf(sources),
  };
}

/** What an approver sees: as the claimant, with every finding and the worst state of each kind of comparison. */
export function approverView(sources: Sources) {
  const { assessed, around } = sources;
  const { currency, ledgerCurrency } = around.header;
  const shown = shownTies(assessed.ties, []);
  const { ties } = summariseReview(assessed.result, shown, {
    currency,
    ledgerCurrency,
    standing: NOTHING_PENDING,
  });
  const view = makersView('approver', sources);
  return {
    ...view,
    claim: { ...view.claim, financeNote: null },
    findings: assessed.result.findings,
    ties,
    lineTies: lineTies(shown),
  };
}

/** What a claimant compares while they write: findings tell of limits, and of other people's claims nothing is told. */
const COMPARED = new Set(['receipt', 'card', 'duplicate']);

/** What is off of the lines, as the reviewer will see it: a paper or a charge that says otherwise, a line of one's own that is alike. */
function differsOf({ assessed: { ties, evidence }, ownAlike }: Sources) {
  return ties.flatMap(({ line, kind, comparisons: all }) => {
    if (!COMPARED.has(kind)) return [];
    const alike = evidence.duplicates[line] ?? [];
    const comparisons = all.filter(
      ({ state }, i) => state === 'off' && (kind !== 'duplicate' || ownAlike.has(alike[i]?.claim ?? '')),
    );
    return comparisons.length > 0 ? [{ line, kind, comparisons }] : [];
  });
}

/** The comparisons of each line; whose other claims look alike is not for an approver to know. */
const lineTies = (shown: ReturnType<typeof shownTies>) =>
  shown.map(({ line, kind, shown: state, comparisons }) => ({
    ...{ line, kind, state },
    comparisons: kind === 'duplicate' ? [] : comparisons,
  }));

function makersView(
  audience: 'claimant' | 'approver',
  { around, assessed, receipts, attachments, advances, may }: Sources,
) {
  const { header, history, queries, submitted } = around;
  const { document, result, estimates } = assessed;
  const { plan } = document.claim;
  const { clearedBy: _, ...claim } = header;
  return {
    claim: { ...claim, holdReason: claim.holdTold },
    document: document.claim,
    plan: plan ? { number: plan.number, approvedOn: plan.approvedOn, estimates } : null,
    amounts: Object.fromEntries(result.lines.map((l) => [l.id, l.claimAmount])),
    rebilled: Object.fromEntries(
      result.lines.flatMap((l) => (l.rebilled === undefined ? [] : [[l.id, l.rebilled] as const])),
    ),
    parts: Object.fromEntries(result.lines.filter(isDivided).map((l) => [l.id, l.parts])),
    settlement: { ...settlementSum(document.claim, result), fromAdvances: fromAdvances(result, document.own) },
    queries: queries.filter((q) => q.sent && !q.takenBack && seesQuestion(audience, q.asks)) as never,
    attachments,
    advances,
    receipts,
    declined: declinedIn(
      around,
      document.claim,
      audience === 'claimant' ? around.row.version : around.row.submitted_version!,
    ),
    changes: IN_PREPARATION.includes(around.row.state) ? [] : changesOf(submitted?.claim ?? null, document.claim),
    tide: tideOf(history),
    history: history
      .filter((e) => !FINANCE_ONLY.has(e.kind) && isTold(e, audience))
      .map(withoutTies)
      .map(asTold),
    may,
  };
}

/** The lines of a version that are declined, with why and by whom. */
export function declinedIn({ declined }: Sources['around'], { lines }: Pick<Claim, 'lines'>, of: number) {
  const cut = new Set(lines.flatMap((l) => (isCut(l) ? [l.id] : [])));
  return declined.flatMap(({ version, ...line }) => (version === of && cut.has(line.line) ? [line] : []));
}

/** Why finance holds a claim is said to its makers and approvers in words of their own, or not at all. */
const asTold = (event: HistoryEvent): HistoryEvent => {
  if (event.kind !== 'held') return event;
  const told = event.words?.told;
  return { ...event, words: typeof told === 'string' ? { reason: told } : null };
};

/** What was asked of others alone, and what they answered, is not told. */
const isTold = ({ facts: { asks } }: HistoryEvent, audience: Audience): boolean =>
  !Array.isArray(asks) || asks.some((whom) => seesQuestion(audience, whom));

/** Whether there is more to say of a line than its amount: taxes, or shares. */
const isDivided = ({ parts }: Assessment['lines'][number]): boolean =>
  parts.some((p) => p.tax.length > 0 || p.shares.length > 1);

const fromAdvances = ({ settlement }: Assessment, { advances }: OwnBook) =>
  settlement.advances.map(({ advance, advancePart, left }) => ({
    advance,
    part: advancePart,
    left,
    currency: advances.find((a) => a.id === advance)!.currency,
  }));

/** Which comparisons a query was about is finance's matter. */
const withoutTies = ({ facts: { tie: _, ...facts }, ...event }: HistoryEvent): HistoryEvent => ({ ...event, facts });

/** One piece of a tide bar for each state a claim came into: it ends when the next begins. */
export const tideOf = (events: readonly { at: string | Date; facts: Record<string, unknown> }[]) =>
  events.flatMap(({ at, facts }) =>
    typeof facts.state === 'string' ? [{ state: facts.state, from: new Date(at) }] : [],
  );
