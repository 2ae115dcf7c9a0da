import { fromMinor, toMinor } from '../../core/numbers/amount.ts';
import type { Context } from '../../server/platform/context.ts';
import type { Db } from '../../server/platform/db/connect.ts';
import { systemClock, today } from '../../server/platform/ports/clock.ts';
import { Refused } from '../../server/platform/http/refusal.ts';
import { rebuildBook } from '../../server/records/book/sharedBook.ts';
import { closePastPeriods, jobs, passwordHash, readOldMessages } from '../loadDemo.ts';
import { dailyRates, months } from '../loadBook.ts';
import { loadClaim } from '../loadClaim.ts';
import { factsOf, storePaper } from '../loadReceipts.ts';
import type { LineSeed } from '../claims/claim.types.ts';
import { randomFrom } from '../random.ts';
import { entities as firstEntities } from '../organisation.ts';
import { loadOthers } from './others.ts';
import { plainPaper } from './paper.ts';
import { yearClaims, type YearClaim } from './claims.ts';
import { putFaults } from './faults.ts';
import { accountNames, APPROVERS, entities, limits, people, planTolerances, taxCodes } from './organisation.ts';

const TOGETHER = 4;
const RATE_DAYS = 730;
const MONTHS_BEFORE = 13;

/**
 * Adds the year before to a demo that is served already: two more entities, their people, and claims through the
 * application's own acts, the oldest first. What is there is left, so an ended start goes on where it was.
 */
export async function loadYear(db: Db, count?: number): Promise<number> {
  const context: Context = { db, clock: systemClock, jobs };
  const day = today(systemClock);
  if (!(await db('entities').where({ id: entities[0]!.id }).first('id'))) {
    await loadOrganisation(db, day);
    await loadOthers(context, day);
  }
  const claims = yearClaims(count);
  putFaults(claims);
  const there = new Set<string>(
    await db('claims')
      .whereIn(
        'number',
        claims.map((c) => c.number),
      )
      .pluck('number'),
  );
  const waiting = claims.filter((c) => !there.has(c.number));
  // whoever opened a month again since finds it open after the next start
  if (waiting.length === 0) return claims.length;
  const one = async (): Promise<void> => {
    for (let claim = waiting.shift(); claim; claim = waiting.shift()) {
      const receipts = await loadPapers(db, claim, day);
      await loadClaim(context, claim, day, { receipts, plan: null }).catch(leave);
    }
  };
  await Promise.all(Array.from({ length: TOGETHER }, one));
  await readOldMessages(db, day);
  await closePastPeriods(
    context,
    day,
    [...firstEntities, ...entities].map((e) => e.id),
  );
  return claims.length;
}

/** A claim that begins to look like another one on its way is left where it is, for somebody to look at. */
function leave(error: unknown): void {
  if (!(error instanceof Refused) || error.code !== 'ties-open') throw error;
}

async function loadOrganisation(db: Db, day: string): Promise<void> {
  await db.transaction(async (trx) => {
    await trx('accounts').insert(accountNames.map(([code, name]) => ({ code, name })));
    await trx('entities').insert(
      entities.map(({ id, name, currency, time_zone }) => ({ id, name, currency, time_zone })),
    );
    await trx('entity_terms').insert(
      entities.map(({ id, name: _, currency: __, time_zone: ___, accounts, cards, ...terms }) => ({
        ...{ ...terms, entity_id: id, accounts: JSON.stringify(accounts), cards: JSON.stringify(cards) },
        plan_tolerance: JSON.stringify(planTolerances[id]),
      })),
    );
    await trx('tax_codes').insert(taxCodes.map((code) => ({ recovery: '100', ...code })));
    await trx('limits').insert(limits.map(({ id, ...rule }) => ({ id, rule: JSON.stringify(rule) })));
    await trx('rates').insert(dailyRates(day, RATE_DAYS)).onConflict(['from_currency', 'to_currency', 'date']).ignore();
    const all = [...firstEntities, ...entities];
    const periods = all.flatMap(({ id }) =>
      months(day, MONTHS_BEFORE).map((m) => ({ entity_id: id, ...m, state: 'open' })),
    );
    await trx('periods').insert(periods).onConflict(['entity_id', 'id']).ignore();
    await loadPeople(trx);
    for (const { id } of all) await rebuildBook(trx, id);
  });
}

async function loadPeople(trx: Db): Promise<void> {
  const password_hash = await passwordHash();
  await trx('people').insert(
    people.map(({ id, name, mail, entity, currency }) => ({
      ...{ id, name, kind: 'employee', entity_id: entity, currency },
      email: `${mail}@saltmarsh.example`,
    })),
  );
  for (const { id, entity } of people) {
    const usual = APPROVERS[entity] === id ? 'P09' : APPROVERS[entity];
    await trx('people').where({ id }).update({ usual_approver: usual });
  }
  await trx('credentials').insert(people.map(({ id }) => ({ person_id: id, password_hash })));
  await trx('person_roles').insert(people.flatMap(({ id, roles }) => roles.map((role) => ({ person_id: id, role }))));
}

/** The papers of a claim, each over the sum of its lines; ids by "claim number/line index". */
async function loadPapers(db: Db, claim: YearClaim, day: string): Promise<Map<string, bigint>> {
  const random = randomFrom(Number(claim.number.slice(2)));
  const ids = new Map<string, bigint>();
  for (const paper of new Set(claim.papers)) {
    if (paper === null) continue;
    const on = claim.lines.flatMap((line, i) => (claim.papers[i] === paper ? [{ line, i }] : []));
    const facts = factsOf(claim, summed(on.map(({ line }) => line)), day, random);
    const id = await storePaper(db, { claimant: claim.claimant, facts, ...(await plainPaper(facts)) });
    for (const { i } of on) ids.set(`${claim.number}/${i}`, id);
  }
  return ids;
}

/** The lines of one paper as one: its total is theirs, or what the first says it shows. */
function summed(lines: readonly LineSeed[]): LineSeed {
  const [first] = lines as [LineSeed, ...LineSeed[]];
  const currency = first.currency!;
  const odd = lines.find((l) => l.receipt?.currency)?.receipt;
  const shown = lines.reduce((a, l) => a + toMinor((odd ? null : l.receipt?.amount) ?? l.amount, currency), 0n);
  const amount = fromMinor(shown, currency);
  const receipt = lines.find((l) => l.receipt)?.receipt ?? {};
  return {
    ...first,
    amount,
    items: lines.map((l, i) => ({ id: String(i), text: l.text, amount: l.receipt?.amount ?? l.amount })),
    tax: [],
    receipt: odd ?? { ...receipt, amount },
  };
}
