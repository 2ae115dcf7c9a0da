import { assertPostable } from '../../records/claims/assertPostable.ts';
import { NOTHING_PENDING } from '../../../core/evidence/comparisons/summariseReview.ts';
import { budgetUse } from '../../../core/ledger/budgetUse.ts';
import { reverseRows } from '../../../core/ledger/reverseRows.ts';
import { canonical } from '../../../core/numbers/canonical.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import type { PostRequest } from '../../../contract/claims.ts';
import type { ReverseRequest } from '../../../contract/journals.ts';
import type { Outcome } from '../../platform/acts/acts.types.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { sha256 } from '../../platform/history/sha256.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { settleAdvances } from '../../records/advances/settleAdvances.ts';
import { openPeriodOf } from '../../records/book/postingDate.ts';
import { lockBudgets } from '../../records/budgets/budgets.queries.ts';
import { holdBudget } from '../../records/budgets/holdBudget.ts';
import { assessClaim, keepAssessment, keptClaim, subjectAgain } from '../../records/claims/assessClaim.ts';
import type { AssessedClaim } from '../../records/claims/assessed.ts';
import { actOnClaim, type LockedClaim } from '../../records/claims/claimStore.ts';
import { holdDriven } from '../../records/claims/driven.ts';
import { drivenAgain } from '../../records/claims/usesOf.ts';
import { selectUsedBudgets } from '../../records/claims/uses.queries.ts';
import { claimRows, movementRecords, taxRecords } from '../../records/ledger/claimJournal.ts';
import {
  lockAdvances,
  selectJournal,
  selectMovements,
  selectRows,
  selectTaxRows,
} from '../../records/ledger/journals.queries.ts';
import { claimSource, type JournalRecord, type MovementRecord } from '../../records/ledger/ledger.types.ts';
import { takeUpPlan, useUpPlan } from '../../records/plans/reservePlan.ts';
import { postJournal, type PostedJournal } from '../../records/ledger/postJournal.ts';

export interface Posted {
  journal: string;
}

/**
 * Posts a cleared claim as one balanced journal. The claim is assessed again under its lock for the posting date; nothing
 * of the client is taken but its consent to the journal it saw. Posting again with the same key answers as the first time;
 * any other second posting is refused.
 */
export function postClaim(context: Context, actor: Actor, number: string, request: PostRequest): Promise<Posted> {
  return inTransaction(context, (trx) => {
    const seen = { number, revision: request.revision };
    return actOnClaim(context, trx, { act: 'post', claim: seen, actor }, (claim) =>
      post(context, trx, actor, claim, request),
    );
  });
}

async function post(
  context: Context,
  trx: Db,
  actor: Actor,
  claim: LockedClaim,
  { date, digest }: PostRequest,
): Promise<Outcome<Posted>> {
  const { row, at, revision } = claim;
  await openPeriodOf(trx, context.clock, row.entity_id, date);
  const kept = await keptClaim(trx, at);
  await lockBudgets(trx, await selectUsedBudgets(trx, row.id));
  await lockAdvances(
    trx,
    (kept.claim.advances ?? []).map((a) => a.advance),
  );
  await holdDriven(trx, row, kept.claim.lines);
  const assessed = await assessClaim(trx, row, await subjectAgain(trx, row, kept), date);
  await assertPostable(trx, claim, { assessed, kept }, date);
  if (assessed.assessment.journal.length === 0) throw new Refused('nothing-to-post');
  if (digest !== sha256(canonical(assessed.assessment.journal))) throw new Refused('figures-changed');
  const journal = await writeClaimJournal(context, trx, actor, claim, assessed, date);
  const ledger = assessed.document.book.entities[0]!.currency;
  const uses = budgetUse(assessed.assessment, assessed.document.claim, assessed.budgets, ledger);
  const holding = {
    source: { kind: 'claim' as const, id: row.number },
    stage: 'posted' as const,
    at: context.clock.now(),
  };
  const jobs = [
    ...(await holdBudget(trx, holding, uses)),
    ...(await settleAdvances(context, trx, advancesIn(assessed))),
    ...(kept.claim.plan ? await useUpPlan(context, trx, kept.claim.plan.number) : []),
  ];
  const columns = await keepAssessment(trx, row, assessed, {
    clock: context.clock,
    revision,
    standing: NOTHING_PENDING,
    before: kept,
    final: true,
  });
  return {
    result: { journal: journal.number },
    columns,
    facts: { version: row.version, journal: journal.number, date },
    about: journal.hash,
    jobs,
  };
}

function writeClaimJournal(
  context: Context,
  trx: Db,
  actor: Actor,
  { row }: LockedClaim,
  assessed: AssessedClaim,
  date: string,
): Promise<PostedJournal> {
  const { assessment, document, own, evidence, movements, bookHash } = assessed;
  const currency = document.book.entities[0]!.currency;
  const source = claimSource(row.number, row.version);
  return postJournal(context, trx, actor, {
    entity: row.entity_id,
    currency,
    date,
    purpose: 'claim',
    source,
    rows: claimRows(assessment, currency),
    movements: movementRecords(movements, { person: row.claimant_id, subject: source, entity: row.entity_id }),
    taxes: taxRecords(assessment, document),
    document: { postingDate: date, claim: document.claim, own, assessment, receipts: receiptIds(evidence.receipts) },
    bookHash,
  });
}

const receiptIds = (receipts: AssessedClaim['evidence']['receipts']): Record<string, string> =>
  Object.fromEntries(Object.entries(receipts).map(([line, r]) => [line, r.id]));

const advancesIn = ({ movements }: AssessedClaim): string[] =>
  movements.flatMap((m) => (m.kind === 'staff advance' && m.of !== null ? [m.of] : []));

/** Reverses a live posting: the same rows with sides exchanged, in an open period; advances and budgets get back what they gave. */
export function reverseJournal(context: Context, actor: Actor, request: ReverseRequest): Promise<Posted> {
  return inTransaction(context, async (trx) => {
    const original = await selectJournal(trx, request.journal);
    if (!original || original.source_kind !== 'claim') throw new Refused('not-found', { what: 'journal' });
    if (!original.live) throw new Refused('not-live', { number: original.number });
    const number = original.source_id.slice(0, original.source_id.lastIndexOf('/'));
    return actOnReversed(context, trx, actor, number, (claim) => reverse(context, trx, actor, claim, request));
  });
}

/** The claim of a journal, at whatever revision it is: what is reversed cannot have changed. */
const actOnReversed = (
  context: Context,
  trx: Db,
  actor: Actor,
  number: string,
  work: (claim: LockedClaim) => Promise<Outcome<Posted>>,
): Promise<Posted> => actOnClaim(context, trx, { act: 'reverse', claim: { number, revision: null }, actor }, work);

async function reverse(
  context: Context,
  trx: Db,
  actor: Actor,
  { row, at }: LockedClaim,
  { journal: wanted, date, reason }: ReverseRequest,
): Promise<Outcome<Posted>> {
  const original = (await selectJournal(trx, wanted))!;
  if (!original.live) throw new Refused('not-live', { number: wanted });
  if (date < original.date) throw new Refused('before-original', { date, original: original.date });
  const movements = await selectMovements(trx, original.id);
  const advances = movements.flatMap((m) => (m.kind === 'staff advance' ? [m.source_id] : []));
  const kept = await keptClaim(trx, at);
  await lockBudgets(trx, await selectUsedBudgets(trx, row.id));
  await lockAdvances(trx, advances);
  const journal = await postJournal(context, trx, actor, await mirrorOf(trx, original, movements, { date, reason }));
  const source = { kind: 'claim' as const, id: row.number };
  const jobs = [
    ...(await holdBudget(trx, { source, stage: null, at: context.clock.now() }, [])),
    ...(await settleAdvances(context, trx, advances)),
    ...drivenAgain(kept.claim),
    ...(kept.claim.plan ? await takeUpPlan(context, trx, kept.claim.plan.number) : []),
  ];
  return {
    result: { journal: journal.number },
    facts: { version: row.version, journal: journal.number, reverses: original.number, date },
    words: { reason },
    about: journal.hash,
    jobs,
  };
}

async function mirrorOf(
  trx: Db,
  original: JournalRecord,
  movements: readonly MovementRecord[],
  { date, reason }: { date: string; reason: string },
) {
  const taxes = await selectTaxRows(trx, original.id);
  return {
    entity: original.entity_id,
    currency: original.currency,
    date,
    purpose: 'reversal' as const,
    source: { kind: original.source_kind, id: original.source_id },
    live: false,
    reverses: original,
    reason,
    rows: reverseRows<bigint, Awaited<ReturnType<typeof selectRows>>[number]>(await selectRows(trx, original.id)),
    movements: movements.map((m) => ({ ...m, amount: -m.amount, ledger_amount: -m.ledger_amount })),
    taxes: taxes.map((t) => ({ ...t, base: -t.base, tax: -t.tax, recoverable: -t.recoverable })),
  };
}
