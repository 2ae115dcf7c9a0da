import type { RouteInput, TryRoute } from '../../../contract/approvals.ts';
import { toMinor } from '../../../core/numbers/amount.ts';
import { computeRoute } from '../../../core/routing/computeRoute.ts';
import type { Detour, Need, Route, Skip } from '../../../core/routing/route.types.ts';
import { audienceOf, planAudienceOf } from '../../../core/workflow/audienceOf.ts';
import { IN_PREPARATION } from '../../../core/workflow/lifecycles/claim.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { invalid, Refused } from '../../platform/http/refusal.ts';
import { today } from '../../platform/ports/clock.ts';
import type { Routed } from '../../../core/routing/route.schema.ts';
import { selectAdvance } from '../../records/advances/advances.queries.ts';
import { advanceFacts } from '../../records/advances/advanceStore.ts';
import { routedAdvance, routedAdvanceKey } from '../../records/advances/routedAdvance.ts';
import { keptClaim } from '../../records/claims/assessClaim.ts';
import { claimFacts } from '../../records/claims/claimStore.ts';
import { selectClaim } from '../../records/claims/claims.queries.ts';
import { routedClaim, routedKey } from '../../records/claims/routedClaim.ts';
import { assessPlan } from '../../records/plans/assessPlan.ts';
import { planFacts } from '../../records/plans/planStore.ts';
import { selectPlan } from '../../records/plans/plans.queries.ts';
import { routedPlan, routedPlanKey } from '../../records/plans/routedPlan.ts';
import { routeOf } from '../../records/routing/routeOf.ts';
import {
  selectCodeOwners,
  selectNames,
  selectNeeds,
  selectRoute,
  selectRouteBook,
  type NeedRow,
  type RoutedKey,
} from '../../records/routing/routing.queries.ts';
import { entityToday } from '../../records/book/postingDate.ts';
import { selectLedgerCurrency } from './approvals.queries.ts';

type Reads = Pick<Context, 'db' | 'clock'>;

/**
 * Who decides about a record: while it is in preparation as it would go now, afterwards as it went, with what was decided. To
 * those the record does not concern it does not exist.
 */
export const viewRoute = (context: Reads, actor: Actor, kind: Routed, number: string): Promise<RouteInput> =>
  VIEWS[kind](context, actor, number);

async function routeOfClaim({ db, clock }: Reads, actor: Actor, number: string): Promise<RouteInput> {
  const row = await selectClaim(db, number);
  const audience = row ? audienceOf(claimFacts(row), actor) : null;
  if (!row || !audience) throw new Refused('not-found', { what: 'claim' });
  const preview = audience === 'claimant' && IN_PREPARATION.includes(row.state);
  const version = preview ? row.version : row.submitted_version!;
  const kept = await keptClaim(db, { claim_id: row.id, version });
  const subject = routedClaim(row, kept, today(clock, row.time_zone));
  if (preview) return shown(db, subject.ledgerCurrency, await routeOf(db, subject), null);
  return stored(db, subject.ledgerCurrency, routedKey({ ...row, version }));
}

async function routeOfPlan({ db, clock }: Reads, actor: Actor, number: string): Promise<RouteInput> {
  const row = await selectPlan(db, number);
  if (!row || !planAudienceOf(planFacts(row), actor)) throw new Refused('not-found', { what: 'plan' });
  if (row.state === 'draft') {
    const on = await entityToday(db, clock, row.entity_id);
    const subject = routedPlan(row, await assessPlan(db, row, on), on);
    return shown(db, subject.ledgerCurrency, await routeOf(db, subject), null);
  }
  return stored(db, (await selectLedgerCurrency(db, row.entity_id))!, routedPlanKey(row));
}

async function routeOfAdvance({ db, clock }: Reads, actor: Actor, number: string): Promise<RouteInput> {
  const row = await selectAdvance(db, number);
  if (!row || !audienceOf(advanceFacts(row), actor)) throw new Refused('not-found', { what: 'advance' });
  const ledgerCurrency = (await selectLedgerCurrency(db, row.entity_id))!;
  if (row.state !== 'draft') return stored(db, ledgerCurrency, routedAdvanceKey(row));
  const on = await entityToday(db, clock, row.entity_id);
  return shown(db, ledgerCurrency, await routeOf(db, routedAdvance(row, ledgerCurrency, on)), null);
}

const VIEWS: Record<Routed, typeof routeOfClaim> = {
  claim: routeOfClaim,
  plan: routeOfPlan,
  advance: routeOfAdvance,
};

/** The route of a made-up record, with the reasons; nothing is kept. */
export async function tryRoute({ db }: Reads, wanted: TryRoute): Promise<RouteInput> {
  const { kind, on, entity, claimant, preparer, total: amount, currency, charged, categories } = wanted;
  const ledgerCurrency = await selectLedgerCurrency(db, entity);
  if (!ledgerCurrency) throw new Refused('not-found', { what: 'entity' });
  if (!(await selectNames(db, [claimant])).has(claimant)) throw new Refused('not-found', { what: 'person' });
  assertDecimals(amount, currency, ['total']);
  charged.forEach((c, i) => assertDecimals(c.amount, ledgerCurrency, ['charged', i, 'amount']));
  const owners = await selectCodeOwners(db);
  const unknown = charged.findIndex((c) => !owners.has(`${c.dimension} ${c.code}`));
  if (unknown >= 0) throw invalid({ path: ['charged', unknown, 'code'], message: 'is no code of this dimension' });
  const record = {
    ...{ kind, on, entity, claimant, preparer: preparer ?? claimant, ledgerCurrency, categories },
    total: { amount, currency },
    charged: charged.map((c) => ({ ...c, owner: owners.get(`${c.dimension} ${c.code}`) ?? null })),
  };
  const book = await selectRouteBook(db, on, [currency, ledgerCurrency]);
  return shown(db, ledgerCurrency, computeRoute(record, book), null);
}

function assertDecimals(amount: string, currency: string, path: (string | number)[]): void {
  try {
    toMinor(amount, currency);
  } catch {
    throw invalid({ path, message: `does not have the decimals of ${currency}` });
  }
}

/** The route as it was computed, with its decisions; one that came before routes has its decisions alone. */
async function stored(db: Db, ledgerCurrency: string, key: RoutedKey): Promise<RouteInput> {
  const needs = await selectNeeds(db, key);
  const own = needs.filter((n) => n.asks === 'record');
  const route = (await selectRoute(db, key)) ?? {
    levels: own.map((need) => ({ id: need.level, name: need.level, place: need.place, needs: [need], skipped: [] })),
    unfilled: null,
  };
  return shown(db, ledgerCurrency, route, needs);
}

/** A route with names for people; `needs` are the decisions of a submitted one, in the order of its levels. */
async function shown(
  db: Db,
  ledgerCurrency: string,
  route: Route,
  needs: readonly NeedRow[] | null,
): Promise<RouteInput> {
  const names = await selectNames(db, peopleIn(route, needs ?? []));
  const name = (id: string) => names.get(id) ?? id;
  const own = (needs ?? []).filter((n) => n.asks === 'record');
  let next = 0;
  return {
    submitted: needs !== null,
    ledgerCurrency,
    levels: route.levels.map((level) => ({
      name: level.name,
      place: level.place,
      needs: level.needs.map((need) => shownNeed(need, needs ? own[next++] : undefined, name)),
      skipped: level.skipped.map((skip) => shownSkip(skip, name)),
    })),
    codes: (needs ?? []).filter((n) => n.asks === 'code').map((need) => shownNeed(need, need, name)),
    unfilled: route.unfilled && { level: route.unfilled.level, ask: route.unfilled.ask.map(name) },
  };
}

type Name = (id: string) => string;
const shownDetour = ({ person, why, to, as }: Detour, name: Name) => ({
  ...{ why, as, person: name(person) },
  to: to === null ? null : name(to),
});
const shownNeed = ({ people, about, detours }: Need, row: NeedRow | undefined, name: Name) => ({
  people: people.map(name),
  about,
  detours: detours.map((d) => shownDetour(d, name)),
  decidedBy: row?.decided_by ? name(row.decided_by) : null,
  decidedAt: row?.decided_at ?? null,
  waiting: row?.waiting ?? false,
});

function shownSkip(skip: Skip, name: Name): RouteInput['levels'][number]['skipped'][number] {
  if (skip.why === 'nobody') return { ...skip, detours: skip.detours.map((d) => shownDetour(d, name)) };
  if (skip.why !== 'decides already') return skip;
  return { ...skip, person: name(skip.person), detours: skip.detours.map((d) => shownDetour(d, name)) };
}

function peopleIn({ levels, unfilled }: Route, needs: readonly NeedRow[]): string[] {
  const inDetours = (detours: readonly Detour[]) => detours.flatMap((d) => [d.person, ...(d.to ? [d.to] : [])]);
  const ofLevels = levels.flatMap(({ needs: asked, skipped }) => [
    ...asked.flatMap((n) => [...n.people, ...inDetours(n.detours)]),
    ...skipped.flatMap((s) => [
      ...(s.why === 'decides already' ? [s.person] : []),
      ...('detours' in s ? inDetours(s.detours) : []),
    ]),
  ]);
  const ofNeeds = needs.flatMap((n) => [...n.people, ...inDetours(n.detours), ...(n.decided_by ? [n.decided_by] : [])]);
  return [...new Set([...ofLevels, ...ofNeeds, ...(unfilled?.ask ?? [])])];
}
