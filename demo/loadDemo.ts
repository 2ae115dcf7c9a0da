import { hash } from 'argon2';
import { addDays } from '../core/numbers/isoDate.ts';
import type { Line } from '../core/documents/case.schema.ts';
import type { Actor, Context, Role } from '../server/platform/context.ts';
import type { Db } from '../server/platform/db/connect.ts';
import { buildCase } from '../server/features/claims/buildCase.ts';
import { insertLine, selectClaim, type ClaimRow } from '../server/features/claims/claims.queries.ts';
import { toMinor } from '../core/numbers/amount.ts';
import { clearClaim, move, record, toRecord } from '../server/features/claims/review.service.ts';
import { postClaim, reverseJournal } from '../server/features/journals/post.service.ts';
import { proposedPostingDate } from '../server/features/book/postingDate.ts';
import { refreshClaim } from '../server/features/claims/refreshClaim.ts';
import { systemClock, today } from '../server/platform/ports/clock.ts';
import { claims, type ClaimSeed, type LineSeed } from './claims.ts';
import { loadBook, loadEntities } from './loadBook.ts';
import { chargeOf, draftOf, loadCards, loadGathered } from './loadGather.ts';
import { loadReceipts } from './loadReceipts.ts';
import { people } from './organisation.ts';

const PASSWORD = 'saltmarsh';

/**
 * Loads Saltmarsh Commons into an empty database as its owner. Dates count back from today; everything else is the same
 * every time. Claims go through the application's own services, so their journals and histories are real.
 */
export async function loadDemo(db: Db): Promise<void> {
  const day = today(systemClock);
  await loadEntities(db);
  await loadPeople(db);
  await loadBook(db, day);
  await loadAdvances(db, day);
  const receipts = await loadReceipts(db, claims, day);
  const context: Context = { db, clock: systemClock };
  const book = await loadCards(context, claims, day);
  for (const claim of [...claims, draftOf(book, day)]) await loadClaim(db, claim, day, receipts);
  await db.raw(`select setval('claim_numbers', 1031)`);
  await loadGathered(context, book, day);
  await closePastPeriods(db, day);
}

async function loadPeople(db: Db): Promise<void> {
  const password_hash = await hash(PASSWORD);
  await db('people').insert(
    people.map(({ id, name, mail, entity, currency, kind }) => ({
      id,
      name,
      email: `${mail}@saltmarsh.example`,
      kind: kind ?? 'employee',
      entity_id: entity,
      currency,
    })),
  );
  await db('credentials').insert(people.map(({ id }) => ({ person_id: id, password_hash })));
  await db('person_roles').insert(people.flatMap(({ id, roles }) => roles.map((role) => ({ person_id: id, role }))));
}

async function loadAdvances(db: Db, day: string): Promise<void> {
  const advance = {
    id: 'A-031',
    person_id: 'P08',
    entity_id: 'IE',
    currency: 'KES',
    purpose: 'Cash for Gazi Bay',
    paid_on: addDays(day, -34),
    due_by: addDays(day, -4),
  };
  await db('advances').insert(advance);
  await db('advance_movements').insert({
    advance_id: 'A-031',
    kind: 'paid out',
    part: 6_000_000,
    ledger_part: 42_857,
    at: moment(advance.paid_on, 9),
  });
}

/** Step by step as it would have happened: drafted, submitted, approved, reviewed, posted. */
async function loadClaim(db: Db, seed: ClaimSeed, day: string, receipts: Map<string, bigint>): Promise<void> {
  const start = addDays(day, -seed.daysAgo);
  const end = addDays(start, seed.days - 1);
  const steps = stepsOf(seed.state);
  const submitted = steps.includes('with approver');
  const columns = {
    number: seed.number,
    entity_id: seed.entity,
    claimant_id: seed.claimant,
    preparer_id: seed.claimant,
    approver_id: seed.approver,
    currency: seed.currency,
    state: 'draft',
    purpose: seed.purpose,
    trip_from: start,
    trip_to: end,
    submitted_on: submitted ? addDays(end, 1) : null,
    coding: JSON.stringify(seed.coding),
  };
  const [{ id }] = await db('claims').insert(columns, 'id');
  const key = { claim_id: id, version: 1 };
  await db('claim_versions').insert({ ...key, submitted_at: submitted ? moment(addDays(end, 1), 10) : null });
  for (const [i, line] of seed.lines.entries())
    await insertLine(db, key, i, {
      ...recordOf(line, i, start),
      line: rowOf(line, i, start, receipts.get(`${seed.number}/${i}`) ?? null, await chargeOf(db, seed.number, i)),
    });
  if (seed.advances)
    await db('claim_advances').insert(
      seed.advances.map((a, position) => ({
        ...key,
        position,
        advance_id: a.advance,
        up_to: a.upTo ? toMinor(a.upTo, seed.currency) : null,
      })),
    );
  await walk(db, (await selectClaim(db, seed.number))!, seed, steps, end);
}

const PATHS: Record<string, string[]> = {
  draft: [],
  'with approver': ['with approver'],
  'in review': ['with approver', 'in review'],
  returned: ['with approver', 'in review', 'returned'],
  declined: ['with approver', 'declined'],
  withdrawn: ['with approver', 'withdrawn'],
  cleared: ['with approver', 'in review', 'cleared'],
  posted: ['with approver', 'in review', 'cleared', 'posted'],
};
const AFTER_POSTING = new Set(['reversed', 'paid', 'part paid', 'payment rejected']);

const stepsOf = (state: string): string[] => (AFTER_POSTING.has(state) ? [...PATHS.posted!, state] : PATHS[state]!);

async function walk(db: Db, claim: ClaimRow, seed: ClaimSeed, steps: string[], end: string): Promise<void> {
  const at = { now: moment(addDays(end, 1), 9) };
  const context: Context = { db, clock: { now: () => at.now } };
  await record(db, context, actor(seed.claimant), claim, 'drafted', { revision: 1, version: 1, state: 'draft' });
  const last = systemClock.now().getTime() - 3_600_000;
  const span = Math.max(steps.length, 1);
  for (const [i, step] of steps.entries()) {
    const begun = moment(addDays(end, 1), 10).getTime();
    at.now = new Date(Math.min(last, begun + ((last - begun) * i * 0.7) / span + i * 1_800_000));
    await take(db, context, claim.number, seed, step);
  }
  const now = (await selectClaim(db, claim.number))!;
  await refreshClaim(db, now, await proposedPostingDate(db, systemClock, claim.entity_id));
}

async function take(db: Db, context: Context, number: string, seed: ClaimSeed, step: string): Promise<void> {
  const claim = (await selectClaim(db, number))!;
  switch (step) {
    case 'with approver': {
      const { document } = await buildCase(db, claim, today(context.clock));
      await db('claim_versions')
        .where({ claim_id: claim.id, version: 1 })
        .update({ submitted: JSON.stringify(document.claim) });
      return move(db, context, actor(seed.claimant), claim, 'with approver', {}, 'submitted');
    }
    case 'in review':
      return move(db, context, actor(seed.approver), claim, 'in review', {}, 'approved');
    case 'returned':
      return move(db, context, actor('P02'), claim, 'returned', {}, 'returned', {
        reason: 'The supper receipt is for another evening. Please add the right one.',
        queries: [],
      });
    case 'declined':
      return move(db, context, actor(seed.approver), claim, 'declined', {}, 'declined', {
        reason: 'This was paid centrally already.',
      });
    case 'withdrawn':
      return move(db, context, actor(seed.claimant), claim, 'withdrawn', {}, 'withdrawn');
    case 'cleared':
      return clearClaim(context, actor('P02'), number, claim.revision);
    case 'posted': {
      await postClaim(context, actor('P03'), {
        claim: number,
        revision: claim.revision,
        date: today(context.clock),
        digest: null,
        key: `demo-${number}`,
      });
      return;
    }
    case 'reversed': {
      const journal = await db('journals').where({ claim_id: claim.id, live: true }).first('number');
      const reason = 'Posted with the coding of last year’s project.';
      await reverseJournal(context, actor('P03'), {
        journal: journal.number,
        date: today(context.clock),
        reason,
        key: `demo-${number}-back`,
      });
      return;
    }
    default:
      return move(db, context, actor('P03'), claim, step as ClaimRow['state'], {}, step);
  }
}

function actor(id: string): Actor {
  const person = people.find((p) => p.id === id)!;
  return { id, name: person.name, roles: new Set(person.roles as Role[]) };
}

async function closePastPeriods(db: Db, day: string): Promise<void> {
  await db('periods')
    .where('to_date', '<', `${day.slice(0, 7)}-01`)
    .update({ state: 'closed' });
}

function rowOf(seed: LineSeed, index: number, start: string, receipt: bigint | null, charge: bigint | null) {
  const currency = seed.currency ?? (seed.country === 'JP' ? 'JPY' : 'EUR');
  return {
    ...toRecord(documentOf(seed, index, start)).line,
    date: addDays(start, seed.day),
    paid_by: seed.by ?? 'own',
    card: seed.card ?? null,
    amount: toMinor(seed.amount, currency),
    currency,
    country: seed.country,
    merchant: seed.merchant,
    description: seed.text,
    personal: seed.personal ?? false,
    nights: seed.nights ?? null,
    attendees: seed.attendees ?? null,
    rate_kind: seed.settled ? ('card' as const) : seed.own ? ('own' as const) : ('reference' as const),
    rate_value: seed.own ?? null,
    settled_amount: seed.settled ? toMinor(...seed.settled) : null,
    settled_currency: seed.settled?.[1] ?? null,
    receipt_id: receipt,
    charge_id: charge,
  };
}

const recordOf = (seed: LineSeed, index: number, start: string) => toRecord(documentOf(seed, index, start));

function documentOf(seed: LineSeed, index: number, start: string): Line {
  const { category, coding, tax, split, items } = seed;
  return {
    id: String(index + 1),
    date: addDays(start, seed.day),
    paidBy: seed.by ?? 'own',
    amount: seed.amount,
    currency: seed.currency ?? (seed.country === 'JP' ? 'JPY' : 'EUR'),
    category: category ?? null,
    coding: coding ?? {},
    tax: tax ?? [],
    split: split ?? null,
    items: (items ?? []).map(({ text, ...item }) => ({ ...item, description: text })),
  };
}

const moment = (date: string, hour: number): Date => new Date(`${date}T${String(hour).padStart(2, '0')}:00:00Z`);
