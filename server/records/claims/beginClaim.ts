import type { Coding, Line, Plan } from '../../../core/documents/case.schema.ts';
import { claimLifecycle } from '../../../core/workflow/lifecycles/claim.ts';
import { performBirth } from '../../platform/acts/perform.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { entityToday } from '../book/postingDate.ts';
import { selectPerson } from '../people/people.queries.ts';
import { assessRows } from './assessClaim.ts';
import { wholeRecord } from './lineRecord.ts';
import { selectUsableAdvances } from '../advances/advances.queries.ts';
import { insertClaim, nextClaimNumber, replaceWantedAdvances, updateClaim, type ClaimRow } from './claims.queries.ts';
import { insertLines } from './lines.queries.ts';

/** A claim to be begun. The rest is the claimant's: entity and currency. */
export interface NewDraft {
  claimant: string;
  purpose: string;
  coding: Coding;
  tripFrom?: string | null | undefined;
  tripTo?: string | null | undefined;
  country?: string | null | undefined;
  place?: string | null | undefined;
  /** The plan it comes from, as it was approved. */
  plan?: Plan;
  /** Lines it begins with, each with the receipt that is its evidence. */
  lines?: readonly { line: Line; receipt: bigint | null }[];
  /** For the demo, whose claims have numbers of their own. */
  number?: string;
  entity?: string;
  currency?: string;
}

/** Begins a claim: a draft with one empty version, set against what is open of the claimant's advances, assessed as it is. */
export async function beginClaim(context: Context, trx: Db, actor: Actor, draft: NewDraft): Promise<ClaimRow> {
  const person = await selectPerson(trx, draft.claimant);
  if (!person) throw new Refused('not-found', { what: 'person' });
  const entity = draft.entity ?? person.entity_id;
  const people = { claimant: person.id };
  return performBirth(context, trx, { lifecycle: claimLifecycle, act: 'begin', actor, entity, people }, async () => {
    const row = await insertClaim(trx, {
      number: draft.number ?? (await nextClaimNumber(trx)),
      entity_id: entity,
      claimant_id: person.id,
      preparer_id: actor.id,
      currency: draft.currency ?? person.currency,
      purpose: draft.purpose,
      trip_from: draft.tripFrom ?? null,
      trip_to: draft.tripTo ?? null,
      country: draft.country ?? null,
      place: draft.place ?? null,
      begun_on: await entityToday(trx, context.clock, entity),
      coding: draft.coding,
      plan: draft.plan ?? null,
    });
    const records = (draft.lines ?? []).map(({ line, receipt }) => {
      const record = wholeRecord(line);
      return { ...record, line: { ...record.line, receipt_id: receipt } };
    });
    const at = { claim_id: row.id, version: 1 };
    await insertLines(trx, at, 0, records);
    const open = await selectUsableAdvances(trx, person.id, entity);
    if (open.length > 0)
      await replaceWantedAdvances(
        trx,
        at,
        open.map((advance_id) => ({ advance_id, up_to: null })),
      );
    const { columns } = await assessRows(trx, context.clock, row, 1);
    await updateClaim(trx, row.id, { ...columns, last_line: draft.lines?.length ?? 0 });
    return { id: row.number, state: 'draft', result: row, facts: { version: 1 } };
  });
}

/** The coding of the person's newest claim, with which a new one begins. */
export async function usualCoding(db: Db, personId: string): Promise<Coding> {
  const row = await db('claims').where({ claimant_id: personId }).orderBy('id', 'desc').first('coding');
  return row?.coding ?? {};
}
