import { standsTo } from './standsTo.ts';
import type { ActingPerson, ActRecord, ActRule, Lifecycle, Relation, Role, Way } from './lifecycle.types.ts';

/** Why an act may not be done, as a code with its numbers; or the way in which it may. */
export type Judgement<State extends string> =
  | { ok: true; way: Way<State> }
  | { ok: false; no: 'own'; relation: Relation }
  | { ok: false; no: 'apart'; relation: Relation }
  | { ok: false; no: 'role'; roles: readonly Role[] }
  | { ok: false; no: 'relation'; as: readonly Relation[] }
  | { ok: false; no: 'state'; state: State | null; from: readonly State[] };

/** What a judgement looks at besides the table: whether a setting that keeps two people apart is on. */
export interface Rules {
  isOn(setting: string): boolean;
}

/**
 * Whether a person may do an act on a record now. Who they are is judged before where the record is, so that a stranger
 * learns nothing of its state. The first reason found is given, in the order relation that forbids, role, relation that
 * is needed, state. Pure; the same answer opens a button, a key and a route. Example: the claimant clears their own
 * claim → not ok, "own"; a reviewer clears a draft → "state".
 */
export function judgeAct<S extends string, A extends string>(
  { acts }: Lifecycle<S, A>,
  act: A,
  record: ActRecord<S>,
  person: ActingPerson,
  rules: Rules,
): Judgement<S> {
  const rule = acts[act];
  if (rule.bySystem) return { ok: false, no: 'role', roles: [] };
  const is = (relation: Relation) => standsTo(record, relation, person);
  const forbidding = rule.never.find(is);
  if (forbidding) return { ok: false, no: 'own', relation: forbidding };
  const held = rule.ways.filter((w) => w.roles.length === 0 || w.roles.some((r) => person.holds(r, record.entity)));
  if (held.length === 0) return { ok: false, no: 'role', roles: unique(rule.ways.flatMap((w) => w.roles)) };
  const related = held.filter((w) => w.as.length === 0 || w.as.some(is));
  if (related.length === 0) return { ok: false, no: 'relation', as: unique(held.flatMap((w) => w.as)) };
  const way = related.find((w) => fits(w, record.state));
  if (!way) return { ok: false, no: 'state', state: record.state, from: unique(related.flatMap((w) => w.from ?? [])) };
  return keptApart(rule, is, rules) ?? { ok: true, way };
}

/**
 * The way in which the application does an act by itself, on whatever a person may do too: only the state is looked at.
 * Example: an advance that came to zero is settled; one that is open is refused with "state".
 */
export function judgeSystemAct<S extends string, A extends string>(
  { acts }: Lifecycle<S, A>,
  act: A,
  state: S | null,
): Judgement<S> {
  const { ways } = acts[act];
  const way = ways.find((w) => fits(w, state));
  return way ? { ok: true, way } : { ok: false, no: 'state', state, from: unique(ways.flatMap((w) => w.from ?? [])) };
}

const fits = <S extends string>(way: Way<S>, state: S | null): boolean =>
  way.from === null ? state === null : state !== null && way.from.includes(state);

function keptApart<S extends string>(
  { apart }: ActRule<S>,
  is: (relation: Relation) => boolean,
  rules: Rules,
): Judgement<S> | null {
  const applies = apart && is(apart.relation) && rules.isOn(apart.setting);
  return applies ? { ok: false, no: 'apart', relation: apart.relation } : null;
}

const unique = <T>(values: readonly T[]): T[] => [...new Set(values)];

/**
 * The acts a person may do on a record now, in the order of the table; [] for nobody's. Example: a reviewer of a claim
 * in review → among them "clear"; its claimant → without it.
 */
export function actsOpen<S extends string, A extends string>(
  lifecycle: Lifecycle<S, A>,
  record: ActRecord<S>,
  person: ActingPerson,
  rules: Rules,
): A[] {
  const acts = Object.keys(lifecycle.acts) as A[];
  return acts.filter((act) => judgeAct(lifecycle, act, record, person, rules).ok);
}
