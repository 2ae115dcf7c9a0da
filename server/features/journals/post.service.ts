import { createHash } from 'node:crypto';
import type { Assessment } from '../../../core/documents/assessment.schema.ts';
import { traceRows } from '../../../core/ledger/traceRows.ts';
import { reverseRows } from '../../../core/ledger/reverseRows.ts';
import { toMinor } from '../../../core/numbers/amount.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { openPeriodOf } from '../book/postingDate.ts';
import { lockBudgets } from '../book/rules.queries.ts';
import { claimToActOn, inTransaction, lockForFinance } from '../claims/access.ts';
import { selectWantedAdvances, type ClaimRow } from '../claims/claims.queries.ts';
import { assessClaim, type AssessedClaim } from '../claims/refreshClaim.ts';
import { assertClearable, move } from '../claims/review.service.ts';
import { digestOf } from '../claims/view.service.ts';
import { canonical } from '../../../core/workflow/eventText.ts';
import {
  endPosting,
  insertJournal,
  insertKey,
  insertMovements,
  lockAdvances,
  nextJournalNumber,
  readSetting,
  selectClaimNumber,
  selectJournal,
  selectKey,
  selectMovements,
  selectRows,
  type JournalRowRecord,
} from './journals.queries.ts';

export interface PostRequest {
  claim: string;
  revision: number;
  date: string;
  /** The fingerprint of the journal the poster saw; null takes the figures as they are. */
  digest: string | null;
  key: string;
}
export interface Posted {
  journal: string;
}

/**
 * Posts a cleared claim as one balanced journal. The claim is assessed again under its lock; nothing of the client is
 * taken but its consent. Posting again with the same key answers as the first time; any other second posting is refused.
 */
export function postClaim(context: Context, actor: Actor, request: PostRequest): Promise<Posted> {
  return once(context, actor, 'post', request, async (trx) => {
    const scope = { number: request.claim, revision: request.revision, states: ['cleared'] as const };
    const claim = await claimToActOn(trx, actor, scope);
    await assertNotAlone(trx, actor, claim);
    const period = await openPeriodOf(trx, claim.entity_id, request.date);
    await lockBudgets(trx, claim.entity_id);
    await lockAdvances(trx, await advancesOf(trx, claim));
    const assessed = await assessClaim(trx, claim, request.date);
    assertClearable(assessed);
    if (request.digest !== null && request.digest !== digestOf(assessed.assessment.journal))
      throw new Refused('figures-changed');
    return {
      journal: await writePosting(trx, context, actor, claim, assessed, { date: request.date, period: period.id }),
    };
  });
}

/** Who clears and who posts are two people, unless the setting allows one. */
async function assertNotAlone(trx: Db, actor: Actor, claim: ClaimRow): Promise<void> {
  if (claim.cleared_by === actor.id && (await readSetting(trx, 'clearing-and-posting-apart')) !== false)
    throw new Refused('alone-cleared');
}

async function advancesOf(trx: Db, claim: ClaimRow): Promise<string[]> {
  const wanted = await selectWantedAdvances(trx, { claim_id: claim.id, version: claim.version });
  return wanted.map((w) => w.advance_id);
}

async function writePosting(
  trx: Db,
  context: Context,
  actor: Actor,
  claim: ClaimRow,
  assessed: AssessedClaim,
  at: { date: string; period: string },
): Promise<string> {
  const { assessment, document } = assessed;
  const currency = document.book.entities[0]!.currency;
  if (assessment.journal.length === 0) throw new Refused('has-stops', { first: 'there is nothing to post' });
  const number = await nextJournalNumber(trx, claim.entity_id);
  const header = {
    number,
    entity_id: claim.entity_id,
    currency,
    date: at.date,
    period_id: at.period,
    kind: 'posting' as const,
    claim_id: claim.id,
    claim_version: claim.version,
    reverses: null,
    live: true,
    reason: null,
    posted_by: actor.id,
    posted_at: context.clock.now(),
    document: { case: document, assessment },
  };
  const id = await insertJournal(trx, header, rowsOf(assessment, currency));
  await insertMovements(trx, movementsOf(assessed, id, context.clock.now()));
  await move(trx, context, actor, claim, 'posted', {}, 'posted', undefined, { journal: number, date: at.date });
  return number;
}

function rowsOf(assessment: Assessment, currency: string): JournalRowRecord[] {
  const shares = traceRows(assessment);
  return assessment.journal.map((row, index) => ({
    position: index + 1,
    account: row.account,
    coding: row.coding,
    debit: toMinor(row.debit, currency),
    credit: toMinor(row.credit, currency),
    currency: row.currency,
    amount: toMinor(row.amount, row.currency),
    line_id: row.line,
    item_id: row.item,
    share: shares[index]!,
    tax_code: row.taxCode,
    text: row.text,
  }));
}

function movementsOf({ assessment, document }: AssessedClaim, journalId: bigint, at: Date) {
  const ledger = document.book.entities[0]!.currency;
  return assessment.settlement.advances
    .map(({ advance, advancePart, ledgerPart }) => {
      const currency = document.book.advances!.find((a) => a.id === advance)!.currency;
      const movement = { part: -toMinor(advancePart!, currency), ledger_part: -toMinor(ledgerPart!, ledger) };
      return { advance_id: advance, kind: 'accounted for' as const, journal_id: journalId, ...movement, at };
    })
    .filter((m) => m.part !== 0n || m.ledger_part !== 0n);
}

export interface ReverseRequest {
  journal: string;
  date: string;
  reason: string;
  key: string;
}

/** Reverses a live posting: the same rows with sides exchanged, in an open period; advances get back what was applied. */
export function reverseJournal(context: Context, actor: Actor, request: ReverseRequest): Promise<Posted> {
  return once(context, actor, 'reverse', request, async (trx) => {
    const original = await selectJournal(trx, request.journal);
    if (!original) throw new Refused('not-found', { what: 'journal' });
    const claim = await lockForFinance(trx, actor, await selectClaimNumber(trx, original.claim_id));
    if (!(await selectJournal(trx, request.journal))!.live) throw new Refused('not-live', { number: original.number });
    if (claim.state !== 'posted')
      throw new Refused('wrong-state', { state: claim.state, needs: 'posted and not paid' });
    const period = await openPeriodOf(trx, original.entity_id, request.date);
    const movements = await selectMovements(trx, original.id);
    await lockAdvances(
      trx,
      movements.map((m) => m.advance_id),
    );
    const number = await nextJournalNumber(trx, original.entity_id);
    const header = {
      ...original,
      number,
      date: request.date,
      period_id: period.id,
      kind: 'reversal' as const,
      reverses: original.id,
      live: false,
    };
    const { id: _, ...columns } = header;
    const stamp = { reason: request.reason, posted_by: actor.id, posted_at: context.clock.now(), document: null };
    const id = await insertJournal(trx, { ...columns, ...stamp }, reversedRows(await selectRows(trx, original.id)));
    await endPosting(trx, original.id);
    const back = movements.map((m) => ({
      advance_id: m.advance_id,
      kind: 'reversed' as const,
      journal_id: id,
      part: -m.part,
      ledger_part: -m.ledger_part,
    }));
    await insertMovements(
      trx,
      back.map((m) => ({ ...m, at: context.clock.now() })),
    );
    const facts = { journal: number, reverses: original.number, date: request.date };
    await move(trx, context, actor, claim, 'reversed', {}, 'reversed', { reason: request.reason }, facts);
    return { journal: number };
  });
}

function reversedRows(rows: JournalRowRecord[]): JournalRowRecord[] {
  return reverseRows<bigint, JournalRowRecord>(rows).map(
    ({ position, account, coding, debit, credit, currency, amount, line_id, item_id, share, tax_code, text }) => ({
      position,
      account,
      coding,
      debit,
      credit,
      currency,
      amount,
      line_id,
      item_id,
      share,
      tax_code,
      text,
    }),
  );
}

/** Runs an act once for a person and key: repeated with the same content it answers as before, with other content it is refused. */
async function once<T extends { key: string }>(
  context: Context,
  actor: Actor,
  act: string,
  request: T,
  work: (trx: Db) => Promise<Posted>,
): Promise<Posted> {
  const request_hash = createHash('sha256').update(canonical(request)).digest('hex');
  const remembered = async (): Promise<Posted | null> => {
    const row = await selectKey(context.db, actor.id, act, request.key);
    if (!row) return null;
    if (row.request_hash !== request_hash) throw new Refused('key-reused');
    return row.response as Posted;
  };
  const before = await remembered();
  if (before) return before;
  try {
    return await inTransaction(context, async (trx) => {
      const response = await work(trx);
      await insertKey(trx, {
        person_id: actor.id,
        act,
        key: request.key,
        request_hash,
        response,
        at: context.clock.now(),
      });
      return response;
    });
  } catch (error) {
    // A twin of this request may have won while we waited for the claim's lock; then its answer is ours.
    const meanwhile = await remembered();
    if (meanwhile) return meanwhile;
    throw error;
  }
}
