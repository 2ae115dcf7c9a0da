import { hash } from 'argon2';
import { addDays } from '../core/numbers/isoDate.ts';
import type { Context } from '../server/platform/context.ts';
import type { Db } from '../server/platform/db/connect.ts';
import { systemClock, today } from '../server/platform/ports/clock.ts';
import { closePeriod } from '../server/features/periods/periods.service.ts';
import { selectPeriods } from '../server/records/book/periods.queries.ts';
import { actorOf, moment } from './actors.ts';
import { advances, loadAdvance } from './advances.ts';
import { claims } from './claims/claims.ts';
import { loadBook, loadEntities } from './loadBook.ts';
import { loadClaim } from './loadClaim.ts';
import { draftOf, loadCards, loadGathered } from './loadGather.ts';
import { loadPlans } from './loadPlans.ts';
import { loadReceipts } from './loadReceipts.ts';
import { entities } from './organisation.ts';
import { people, usualApprovers } from './people.ts';
import { sponsors } from './routes.ts';

const PASSWORD = 'saltmarsh';
/** It is printed at every start, so it costs the least that OWASP's Password Storage Cheat Sheet allows to look at it. */
export const passwordHash = (): Promise<string> => hash(PASSWORD, { memoryCost: 19_456, timeCost: 2, parallelism: 1 });
/** Nothing follows an act while the demo is loaded: every claim is assessed anew at the end. */
export const jobs = { quiet: true, ask: async () => {} };

/**
 * Loads Saltmarsh Commons into an empty database as its owner. Dates count back from today; everything else is the same
 * every time. Claims, advances and periods go through the application's own acts, with the clock handed in, so their
 * journals and histories are real. Where its year before follows, past periods stay open for it.
 */
export async function loadDemo(db: Db, { yearFollows = false } = {}): Promise<void> {
  const day = today(systemClock);
  const context: Context = { db, clock: systemClock, jobs };
  await loadEntities(db);
  await loadPeople(db);
  await loadBook(db, day);
  for (const advance of advances) await loadAdvance(context, advance, day);
  const receipts = await loadReceipts(db, claims, day);
  const book = await loadCards(context, claims, day);
  const plans = await loadPlans(context, day);
  for (const claim of [...claims, draftOf(book, day)])
    await loadClaim(context, claim, day, { receipts, plan: plans.get(claim.number) ?? null });
  await db.raw(`select setval('claim_numbers', 1031)`);
  await loadGathered(context, book, day);
  await readOldMessages(db, day);
  if (!yearFollows)
    await closePastPeriods(
      context,
      day,
      entities.map((e) => e.id),
    );
}

async function loadPeople(db: Db): Promise<void> {
  const password_hash = await passwordHash();
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
  for (const [id, usual_approver] of Object.entries(usualApprovers))
    await db('people')
      .where({ id })
      .update({ usual_approver, sponsor: sponsors[id] ?? null });
  await db('credentials').insert(people.map(({ id }) => ({ person_id: id, password_hash })));
  await db('person_roles').insert(people.flatMap(({ id, roles }) => roles.map((role) => ({ person_id: id, role }))));
}

/** What people of the demo heard of more than a few days ago they have read. */
export async function readOldMessages(db: Db, day: string): Promise<void> {
  await db('messages')
    .whereNull('read_at')
    .where('at', '<', moment(addDays(day, -3), 0))
    .update({ read_at: db.ref('at') });
}

/** Closes the months before the day's, as far as they are open. */
export async function closePastPeriods(context: Context, day: string, of: readonly string[]): Promise<void> {
  for (const entity of of) {
    const { periods } = await selectPeriods(context.db, entity);
    const past = periods.filter((p) => p.to_date < `${day.slice(0, 7)}-01` && p.state === 'open');
    for (const { id } of past) await closePeriod(context, actorOf('P03'), { entity, id, revision: 1 });
  }
}
