import { daysBetween } from '../../../core/numbers/isoDate.ts';
import { audienceOf } from '../../../core/workflow/audienceOf.ts';
import type { BeginDraft, Beginnings, NewLine } from '../../../contract/drafts.ts';
import { movedBy, newLineOf } from '../../../contract/newLineOf.ts';
import { entitiesOf, type Actor, type Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { entityToday } from '../../records/book/postingDate.ts';
import { beginClaim, usualCoding } from '../../records/claims/beginClaim.ts';
import { claimFacts } from '../../records/claims/claimStore.ts';
import { selectClaim, type ClaimRow } from '../../records/claims/claims.queries.ts';
import { readDocument } from '../../records/claims/readDocument.ts';
import { selectPayable, selectPerson, selectPayees, type PersonRow } from '../../records/people/people.queries.ts';
import { selectClaimsToCopy, selectPlansToClaim } from './begin.queries.ts';
import { writeLinesIn } from './lines.service.ts';

/** With what a claim of a person can be begun, as far as whoever begins it made those records too. */
export async function viewBeginnings(
  { db, clock }: Pick<Context, 'db' | 'clock'>,
  actor: Actor,
  claimant: string = actor.id,
): Promise<Beginnings> {
  const known = claimant === actor.id || (await mayPrepareFor(db, actor, claimant));
  const person = known ? await selectPerson(db, claimant) : undefined;
  if (!person) throw new Refused('not-found', { what: 'person' });
  return {
    payable: await selectPayable(db, person, await entityToday(db, clock, person.entity_id)),
    plans: await selectPlansToClaim(db, { claimant, actor: actor.id }),
    claims: await selectClaimsToCopy(db, { claimant, actor: actor.id }),
  };
}

async function mayPrepareFor(db: Db, actor: Actor, claimant: string): Promise<boolean> {
  const people = await selectPayees(db, entitiesOf(actor, ['preparer']), actor.id);
  return people.some((p) => p.id === claimant);
}

/**
 * Begins a claim, one's own or for somebody else; its number. It begins with the coding of their last one, or as a copy of
 * one of theirs, whose lines move with its days.
 */
export const beginDraft = (
  context: Context,
  actor: Actor,
  { copyOf, ...begin }: BeginDraft,
): Promise<{ number: string }> =>
  inTransaction(context, async (trx) => {
    const claimant = begin.claimant ?? actor.id;
    const person = await selectPerson(trx, claimant);
    if (!person) throw new Refused('not-found', { what: 'person' });
    const paid = await payableAs(context, trx, person, begin);
    const source = copyOf === undefined ? null : await sourceOf(trx, actor, claimant, copyOf);
    const coding = begin.coding ?? source?.row.coding ?? (await usualCoding(trx, claimant));
    const { number, revision } = await beginClaim(context, trx, actor, { ...begin, ...paid, claimant, coding });
    if (source?.lines.length) {
      const lines = movedWith(source, begin.tripFrom ?? null);
      await writeLinesIn(context, trx, actor, { number, revision }, lines);
    }
    return { number };
  });

/** For which entity and in which currency, where the person may be paid there so. */
async function payableAs(
  { clock }: Context,
  trx: Db,
  person: PersonRow,
  begin: Pick<BeginDraft, 'entity' | 'currency'>,
) {
  const places = await selectPayable(trx, person, await entityToday(trx, clock, person.entity_id));
  const entity = begin.entity ?? person.entity_id;
  const place = places.find((p) => p.entity === entity);
  const currency = begin.currency ?? place?.currencies[0] ?? person.currency;
  if (!place?.currencies.includes(currency))
    throw new Refused('not-payable-there', { entity, currency, path: 'currency' });
  return { entity, currency };
}

interface Source {
  row: ClaimRow;
  lines: NewLine[];
}

/** What can be written again of a claim: what people wrote. What came from a card's statement, and private parts, did not. */
async function sourceOf(trx: Db, actor: Actor, claimant: string, number: string): Promise<Source> {
  const row = await selectClaim(trx, number);
  const isMakers = row && row.claimant_id === claimant && audienceOf(claimFacts(row), actor) === 'claimant';
  if (!isMakers) throw new Refused('not-found', { what: 'claim' });
  const { lines } = await readDocument(trx, row, new Map(), row.begun_on);
  const typed = lines.filter((l) => !l.personal && l.rate?.kind !== 'card');
  return { row, lines: typed.map((l) => ({ ...newLineOf(l), estimate: null })) };
}

/** The lines as many days later as the trip is; where one of the trips has no first day they keep theirs. */
function movedWith({ row, lines }: Source, from: string | null): NewLine[] {
  if (row.trip_from === null || from === null) return lines;
  const days = daysBetween(row.trip_from, from);
  return lines.map((line) => movedBy(line, days));
}
