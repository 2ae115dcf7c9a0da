import type { BudgetsAnswer, PersonAnswer, VersionAnswer } from '../../../contract/beside.ts';
import { budgetUse } from '../../../core/ledger/budgetUse.ts';
import { fromMinor, toMinor } from '../../../core/numbers/amount.ts';
import { groupBy } from '../../../core/numbers/groupBy.ts';
import { addDays } from '../../../core/numbers/isoDate.ts';
import type { Actor, Context } from '../../platform/context.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { today } from '../../platform/ports/clock.ts';
import { selectBudgets } from '../../records/book/book.queries.ts';
import { keptClaim } from '../../records/claims/assessClaim.ts';
import { reviewedClaim } from '../../records/claims/reviewedClaim.ts';
import { selectPerson } from '../../records/people/people.queries.ts';
import { advancesBeside } from './advances.view.ts';
import {
  countReturned,
  selectBudgetStates,
  selectBudgetUses,
  selectSameMerchants,
  selectVersion,
  selectYear,
  type SubmittedVersion,
} from './beside.queries.ts';

type Reading = Pick<Context, 'db' | 'clock'>;

/** A claim as an earlier version was submitted, with the figures that were last computed of it. */
export async function viewVersion(
  { db }: Reading,
  actor: Actor,
  number: string,
  version: number,
): Promise<VersionAnswer> {
  const row = await reviewedClaim(db, actor, number);
  const found = await selectVersion(db, { claim_id: row.id, version });
  if (!found) throw new Refused('not-found', { what: 'version' });
  return { version, submittedOn: found.claim.submittedOn ?? null, ...found };
}

const A_YEAR = 365;
const MOST_LINES = 20;

/** What the claimant of a claim claimed in its entity within a year, and what is open; amounts as they were stored. */
export async function viewPerson({ db, clock }: Reading, actor: Actor, number: string): Promise<PersonAnswer> {
  const row = await reviewedClaim(db, actor, number);
  const key = { claim_id: row.id, version: row.submitted_version! };
  const kept = await keptClaim(db, key);
  const currency = kept.document.book.entities[0]!.currency;
  const span = { person: row.claimant_id, entity: row.entity_id, since: addDays(today(clock, row.time_zone), -A_YEAR) };
  const [person, year, returned, lines, advances] = await Promise.all([
    selectPerson(db, row.claimant_id),
    selectYear(db, span),
    countReturned(db, span),
    selectSameMerchants(db, key, span, MOST_LINES),
    advancesBeside({ db, clock }, row, key),
  ]);
  return {
    name: person!.name,
    currency,
    since: span.since,
    claims: year.length,
    returned,
    spent: spentBy(year, currency),
    advances: advances
      .filter((a) => /[1-9]/.test(a.open))
      .map(({ number: id, purpose, open, currency: own, dueBy }) => ({ id, purpose, open, currency: own, dueBy })),
    sameMerchants: lines.map(({ amount, ...line }) => ({ ...line, amount: fromMinor(amount, line.currency) })),
  };
}

/** What claims came to by category, in the currency of the ledger; parts that are private or not known are left out. */
function spentBy(claims: readonly SubmittedVersion[], currency: string): PersonAnswer['spent'] {
  const parts = claims.flatMap(({ claim, assessment }) => {
    const lines = new Map(claim.lines.map((l) => [l.id, l]));
    return assessment.lines.flatMap((figures) => {
      const line = lines.get(figures.id);
      return figures.parts.flatMap(({ item, personal, ledgerAmount }) => {
        const category = (item ? line?.items?.find((i) => i.id === item) : line)?.category;
        return personal || ledgerAmount === null || !category
          ? []
          : [{ category, amount: toMinor(ledgerAmount, currency) }];
      });
    });
  });
  return [...groupBy(parts, (p) => p.category)]
    .map(([category, of]) => ({ category, lines: of.length, sum: of.reduce((a, p) => a + p.amount, 0n) }))
    .sort((a, b) => (a.sum < b.sum ? 1 : -1))
    .map(({ sum, ...spent }) => ({ ...spent, amount: fromMinor(sum, currency) }));
}

/** The budgets a claim charges: what others have of each, what this claim charges, and what is left then. */
export async function viewBudgets({ db }: Reading, actor: Actor, number: string): Promise<BudgetsAnswer> {
  const row = await reviewedClaim(db, actor, number);
  const { document, assessment, claim } = await keptClaim(db, { claim_id: row.id, version: row.submitted_version! });
  const { currency } = document.book.entities[0]!;
  const own = [{ kind: 'claim', id: row.number }, ...(claim.plan ? [{ kind: 'plan', id: claim.plan.number }] : [])];
  const all = await selectBudgets(db, row.entity_id, own);
  const charged = new Map(budgetUse(assessment, claim, all, currency).map((use) => [use.id, use.amount]));
  const budgets = all.filter((b) => charged.has(b.id));
  const ids = budgets.map((b) => b.id);
  const [states, uses] = await Promise.all([selectBudgetStates(db, ids), selectBudgetUses(db, ids)]);
  const write = (minor: bigint) => fromMinor(minor, currency);
  const isOwn = (use: { kind: string; id: string }) => own.some((o) => o.kind === use.kind && o.id === use.id);
  return {
    budgets: budgets.map(({ id, dimension, code, category, left }) => {
      const state = states.find((s) => s.id === id)!;
      const others = uses.filter((u) => u.budget === id && !isOwn(u));
      const staged = (stage: 'posted' | 'cleared' | 'reserved') =>
        write(others.filter((u) => u.stage === stage).reduce((a, u) => a + u.amount, 0n));
      return {
        ...{ dimension, code, category, currency },
        amount: write(state.amount),
        ...{ posted: staged('posted'), cleared: staged('cleared'), reserved: staged('reserved') },
        thisClaim: write(charged.get(id)!),
        left: write(left - charged.get(id)!),
        uses: others.map(({ budget: _, amount, ...use }) => ({ ...use, amount: write(amount) })),
      };
    }),
  };
}
