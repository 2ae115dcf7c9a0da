import { canonical } from '../../../core/numbers/canonical.ts';
import { concernsMakers } from '../../../core/workflow/audienceOf.ts';
import { wordsWanted } from '../../../core/workflow/wordsWanted.ts';
import type { Outcome } from '../../platform/acts/acts.types.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { sha256 } from '../../platform/history/sha256.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { today } from '../../platform/ports/clock.ts';
import { selectPolicyStatement } from '../../records/book/rules.queries.ts';
import { selectPeriods } from '../../records/book/periods.queries.ts';
import { selectAttached } from '../../records/attachments/attachments.queries.ts';
import { assessRows, standingOf, summaryColumns } from '../../records/claims/assessClaim.ts';
import { fingerprintOf, type AssessedClaim } from '../../records/claims/assessed.ts';
import { actAlone, type LockedClaim, type SeenClaim } from '../../records/claims/claimStore.ts';
import { selectUsedElsewhere } from '../../records/claims/lines.queries.ts';
import { dropChanged } from '../../records/claims/declined.ts';
import { freezeVersion, replaceExplanations, selectExplanations } from '../../records/claims/claims.queries.ts';
import { copyMarks, selectMarks } from '../../records/claims/marks.queries.ts';
import { noLongerAlike, onlyClaim } from '../../records/claims/usesOf.ts';
import { openNextVersion } from './decisions.service.ts';
import { NO_QUESTIONS } from './queries.service.ts';
import { beginRoute, endRoute } from '../../records/routing/decide.ts';
import { routeOf } from '../../records/routing/routeOf.ts';
import { routedClaim, routedKey } from '../../records/claims/routedClaim.ts';

/** Submits a draft as its first version. The version is frozen: document, assessment and fingerprint of its evidence. */
export const submitClaim = (context: Context, actor: Actor, { accepted, ...seen }: HandedIn): Promise<void> =>
  actAlone(context, actor, 'submit', seen, (trx, claim) => handIn(context, trx, claim, accepted));

/** Submits a returned claim as its next version, which was opened when it was returned. */
export const resubmitClaim = (context: Context, actor: Actor, { accepted, ...seen }: HandedIn): Promise<void> =>
  actAlone(context, actor, 'resubmit', seen, (trx, claim) => handIn(context, trx, claim, accepted));

/** A claim as it was seen, with the version of the statement that was accepted. */
export type HandedIn = SeenClaim & { accepted?: string | undefined };

async function handIn(context: Context, trx: Db, claim: LockedClaim, accepted?: string): Promise<Outcome<void>> {
  const { row } = claim;
  const { timeZone } = await selectPeriods(trx, row.entity_id);
  row.submitted_on = today(context.clock, timeZone);
  const { assessed, columns } = await assessWithoutStaleWords(context, trx, claim);
  if (assessed.document.claim.lines.length === 0) throw new Refused('no-lines', { claim: row.number });
  refuseStops(assessed);
  const { explanations } = assessed.document.claim;
  const [unsaid] = wordsWanted(assessed.assessment.findings, explanations);
  if (unsaid) throw new Refused('word-wanted', { first: placed(unsaid) });
  const statement = await selectPolicyStatement(trx, row.submitted_on);
  if (statement && statement.version !== accepted) throw new Refused('statement-wanted');
  const attachments = await selectAttached(trx, claim.at);
  const frozen = {
    ...frozenOf(assessed),
    ...(statement ? { statement } : {}),
    ...(attachments.length > 0 ? { attachments } : {}),
  };
  await dropChanged(trx, claim.at, assessed.document.claim);
  await freezeVersion(trx, claim.at, frozen, context.clock.now());
  const carried = await carryMarks(context, trx, claim, assessed);
  const now = context.clock.now();
  const record = { key: routedKey(row), approvers: row.approvers };
  const route = await beginRoute(trx, record, await routeOf(trx, routedClaim(row, assessed, row.submitted_on)), now);
  return {
    result: undefined,
    columns: {
      ...columns,
      ...carried,
      ...route,
      ...{ decided_by: null, decided_in: null, code_owners: [], drawn_at: null },
      submitted_on: row.submitted_on,
      submitted_version: row.version,
    },
    facts: {
      version: row.version,
      evidence: frozen.evidence,
      goesTo: route.deciders,
      ...(statement ? { statement: statement.version } : {}),
    },
    about: sha256(canonical(frozen)),
    jobs: alikeAgain(assessed),
  };
}

/** What a reviewer said of comparisons of the version before still holds where the comparison is the same. */
async function carryMarks({ clock }: Context, trx: Db, { row, at }: LockedClaim, assessed: AssessedClaim) {
  if (row.submitted_version === null) return {};
  const holding = assessed.ties.map((tie) => ({ line: tie.line, kind: tie.kind, about: fingerprintOf(tie) }));
  await copyMarks(trx, at, row.submitted_version, holding);
  return summaryColumns(assessed, await selectMarks(trx, at), standingOf(row, clock));
}

/** Assesses what is handed in; words to what is no longer said of it do not go out with it. */
async function assessWithoutStaleWords({ clock }: Context, trx: Db, { row, at, revision }: LockedClaim) {
  const first = await assessRows(trx, clock, row, revision);
  const words = await selectExplanations(trx, at);
  const holds = words.filter((w) =>
    first.assessed.assessment.findings.some((f) => f.code === w.code && f.line === w.line_id && f.says === w.about),
  );
  if (holds.length === words.length) return first;
  await replaceExplanations(trx, at, holds);
  return assessRows(trx, clock, row, revision);
}

/** What its makers can put right forbids handing a claim in; the budgets of grants and projects are finance's matter. */
function refuseStops({ assessment }: AssessedClaim): void {
  const stop = assessment.findings.find((f) => f.severity === 'stop' && concernsMakers(f));
  if (!stop) return;
  if (stop.code === 'items-off') throw new Refused('items-left', { line: stop.line, left: stop.difference });
  throw new Refused('has-stops', { first: placed(stop) });
}

const placed = ({ line, says }: { line: string | null; says: string }): string =>
  `${line ? `line ${line}: ` : ''}${says}`;

/** What is kept of a version for good: what was claimed, what it came to, and the fingerprint of its evidence. */
function frozenOf({ document, assessment, evidence }: AssessedClaim) {
  const { receipts, charges } = evidence;
  return { claim: document.claim, assessment, evidence: sha256(canonical({ receipts, charges })) };
}

/** Claims that look like this one learn of it. */
const alikeAgain = ({ evidence }: AssessedClaim) => {
  const claims = new Set(Object.values(evidence.duplicates).flatMap((found) => found.map((d) => d.claim)));
  return [...claims].map((number) => ({ name: 'assess-claims' as const, data: { key: onlyClaim(number) } }));
};

/**
 * Takes a claim back to change it before it is handed in again. The version that went out stays as it was; the next one is
 * opened as a draft with everything it holds.
 */
export const callBackClaim = (context: Context, actor: Actor, seen: SeenClaim): Promise<void> =>
  actAlone(context, actor, 'callBack', seen, async (trx, claim) => ({
    result: undefined,
    columns: await openNextVersion(context, trx, claim),
    facts: { version: claim.at.version },
    jobs: noLongerAlike(claim),
  }));

/** Takes up a draft again that was taken away, as long as what was on it is on no other claim. */
export const bringBackClaim = (context: Context, actor: Actor, seen: SeenClaim): Promise<void> =>
  actAlone(context, actor, 'bringBack', seen, async (trx, claim) => {
    const { row, at } = claim;
    const elsewhere = await selectUsedElsewhere(trx, at);
    if (elsewhere) throw new Refused('receipt-in-use', { ...elsewhere });
    // one that was ended while it was out, when that still was possible
    const columns = row.submitted_version === row.version ? await openNextVersion(context, trx, claim) : {};
    return { result: undefined, columns };
  });

/** Ends a claim in preparation that is not wanted; it can be taken up again. */
export const withdrawClaim = (context: Context, actor: Actor, seen: SeenClaim): Promise<void> =>
  actAlone(context, actor, 'withdraw', seen, async (trx, claim) => ({
    result: undefined,
    columns: { ...(await endRoute(trx, routedKey(claim.row))), ...NO_QUESTIONS },
    jobs: noLongerAlike(claim),
  }));
