import type { Explain, HeaderEdit } from '../../../contract/drafts.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { invalid, Refused } from '../../platform/http/refusal.ts';
import type { LockedClaim, SeenClaim } from '../../records/claims/claimStore.ts';
import { keptClaim } from '../../records/claims/assessClaim.ts';
import {
  replaceExplanations,
  replaceWantedAdvances,
  selectExplanations,
  updateClaim,
  selectWantedAdvances,
} from '../../records/claims/claims.queries.ts';
import { selectLines, updateLine } from '../../records/claims/lines.queries.ts';
import { selectUsableAdvances } from '../../records/advances/advances.queries.ts';
import { minorOf } from '../../records/claims/minorOf.ts';
import { entityToday } from '../../records/book/postingDate.ts';
import { selectPayable, selectPerson } from '../../records/people/people.queries.ts';
import { updateAnswer } from './queries.queries.ts';
import { touchClaims } from '../../records/claims/touchClaims.ts';

/** Changes what the header of a claim in preparation says. */
export function editHeader(context: Context, actor: Actor, seen: SeenClaim, set: HeaderEdit['set']): Promise<void> {
  return inTransaction(context, (trx) => {
    const facts = () => ({ fields: Object.keys(set) });
    return touchClaims(context, trx, { act: 'edit', actor, claims: [seen], charges: [], facts }, async (claims) => {
      const { row } = claims.get(seen.number)!;
      const { tripFrom = row.trip_from, tripTo = row.trip_to, financeNote = row.finance_note, advances, ...rest } = set;
      if (tripFrom && tripTo && tripTo < tripFrom)
        throw invalid({ path: ['set', 'tripTo'], message: 'is before the first day' });
      if (rest.currency !== undefined) await assertPayable(context, trx, claims.get(seen.number)!, rest.currency);
      if (advances) await setAdvances(trx, claims.get(seen.number)!, rest.currency ?? row.currency, advances);
      const columns = { ...rest, trip_from: tripFrom, trip_to: tripTo, finance_note: financeNote };
      Object.assign(row, columns);
      await updateClaim(trx, row.id, { ...columns, coding: JSON.stringify(row.coding) });
    });
  });
}

/** A claim takes another currency only where its claimant may be paid in it; one of a plan, or with amounts of advances, keeps its own. */
async function assertPayable({ clock }: Context, trx: Db, { row, at }: LockedClaim, currency: string): Promise<void> {
  const person = (await selectPerson(trx, row.claimant_id))!;
  const places = await selectPayable(trx, person, await entityToday(trx, clock, person.entity_id));
  const there = places.find((p) => p.entity === row.entity_id)?.currencies ?? [];
  const fixed = row.plan !== null || (await selectWantedAdvances(trx, at)).some((a) => a.up_to !== null);
  if (currency !== row.currency && (fixed || !there.includes(currency)))
    throw new Refused('not-payable-there', { entity: row.entity_id, currency, path: 'set.currency' });
}

/** Sets the claim against these advances of its claimant, which are paid out and not settled in its entity. */
async function setAdvances(
  trx: Db,
  { row, at }: LockedClaim,
  currency: string,
  wanted: NonNullable<HeaderEdit['set']['advances']>,
): Promise<void> {
  const usable = new Set(await selectUsableAdvances(trx, row.claimant_id, row.entity_id));
  const rows = wanted.map(({ advance, upTo }, i) => {
    if (!usable.has(advance))
      throw invalid({
        path: ['set', 'advances', i, 'advance'],
        message: 'is no open advance of the claimant in this entity',
      });
    return { advance_id: advance, up_to: upTo === null ? null : minorOf(upTo, currency, `set.advances.${i}.upTo`) };
  });
  await replaceWantedAdvances(trx, at, rows);
}

/** Puts the lines of a claim in preparation in another order. */
export function orderLines(context: Context, actor: Actor, seen: SeenClaim, order: readonly string[]): Promise<void> {
  return inTransaction(context, (trx) => {
    const facts = () => ({ fields: ['order'] });
    return touchClaims(context, trx, { act: 'edit', actor, claims: [seen], charges: [], facts }, async (claims) => {
      const { at } = claims.get(seen.number)!;
      const lines = await selectLines(trx, at);
      const there = new Set(lines.map((l) => l.id));
      if (order.length !== there.size || new Set(order).size !== order.length || order.some((id) => !there.has(id)))
        throw new Refused('order-other');
      for (const [position, id] of order.entries())
        if (lines[position]!.id !== id) await updateLine(trx, { ...at, id }, { position });
    });
  });
}

/** Keeps what the claimant says to a finding beside it; an empty text takes it back. */
export function explainFinding(context: Context, actor: Actor, seen: SeenClaim, said: Explain): Promise<void> {
  const { line, code, about, text } = said;
  return inTransaction(context, (trx) => {
    const facts = () => ({ ...(line === null ? {} : { line }), fields: ['explanation'] });
    return touchClaims(context, trx, { act: 'edit', actor, claims: [seen], charges: [], facts }, async (claims) => {
      const { at } = claims.get(seen.number)!;
      const { assessment } = await keptClaim(trx, at);
      const isSaid = assessment.findings.some((f) => f.code === code && f.line === line && f.says === about);
      if (!isSaid) throw new Refused('finding-gone');
      const rest = (await selectExplanations(trx, at)).filter(
        (e) => e.line_id !== line || e.code !== code || e.about !== about,
      );
      await replaceExplanations(trx, at, text ? [...rest, { line_id: line, code, about, text }] : rest);
    });
  });
}

/** Answers a query that came back with a returned claim; until it goes out again the answer can be written anew. */
export function answerQuery(context: Context, actor: Actor, seen: SeenClaim, id: bigint, text: string): Promise<void> {
  return inTransaction(context, (trx) => {
    let line: string | null = null;
    const facts = () => ({ line, fields: ['answer'] });
    return touchClaims(context, trx, { act: 'edit', actor, claims: [seen], charges: [], facts }, async (claims) => {
      const answer = { id, answer: text, answered_by: actor.id, answered_at: context.clock.now() };
      line = await updateAnswer(trx, claims.get(seen.number)!.at, answer);
      if (line === null) throw new Refused('not-found', { what: 'query' });
    });
  });
}
