import { judgeAct, judgeSystemAct, type Judgement } from '../../../core/workflow/judgeAct.ts';
import type { ActRecord, ActRule, Lifecycle } from '../../../core/workflow/lifecycle.types.ts';
import type { Actor, Context } from '../context.ts';
import type { Db } from '../db/connect.ts';
import { selectEvents } from '../history/history.queries.ts';
import { appendEvent } from '../history/appendEvent.ts';
import { Refused } from '../http/refusal.ts';
import { tell } from '../messages/tell.ts';
import type { LockedRecord, Outcome, RecordStore } from './acts.types.ts';
import { selectSettings } from './settings.queries.ts';

/** The act to perform: on which record, as it was seen, by whom. */
export interface Performance<S extends string, A extends string, Row extends LockedRecord<S>, Key> {
  lifecycle: Lifecycle<S, A>;
  store: RecordStore<S, Row, Key>;
  act: A;
  key: Key;
  /** null: the system acts; only the state is judged. */
  actor: Actor | null;
  /** The revision the actor has seen; null for acts that name none, because they do not depend on what is there. */
  revision: number | null;
}

/**
 * Does one act on one record inside a transaction: lock, who may, revision, state, the act's own work, then revision,
 * state, event and what is to follow. Everything the application does to a record goes through here or through
 * `performBirth`; the order of the refusals is that of the core's table.
 */
export async function perform<S extends string, A extends string, Row extends LockedRecord<S>, Key, Result>(
  context: Context,
  trx: Db,
  wanted: Performance<S, A, Row, Key>,
  work: (record: Row) => Promise<Outcome<Result>>,
): Promise<Result> {
  const { lifecycle, store, act, key, actor } = wanted;
  const record = await store.lock(trx, key);
  if (!record || (actor && !store.exists(record, actor))) throw new Refused('not-found', { what: lifecycle.kind });
  const to = await judged(trx, wanted, record);
  const before = { people: record.people };
  record.revision += 1;
  if (to !== null) record.state = to;
  const outcome = await work(record);
  if (outcome.unchanged) return outcome.result;
  const { revision, state } = record;
  await store.save(trx, record, { ...outcome.columns, revision, state });
  const facts = { revision, ...(to === null ? {} : { state }), ...outcome.facts };
  const rule: ActRule<S> = lifecycle.acts[act];
  await leave(context, trx, { kind: lifecycle.kind, id: record.id, rule, actor }, facts, outcome);
  const told = rule.tells.length > 0 ? store.told?.(record, outcome.columns ?? {}) : undefined;
  if (told)
    await tell(context, trx, {
      ...{
        record: { kind: lifecycle.kind, id: record.id, entity: record.entity },
        event: rule.event,
        tells: rule.tells,
        facts,
      },
      ...{ before, after: told, about: told.about, actor: actor?.id ?? null },
    });
  return outcome.result;
}

/** The record to make: for which entity, by whom, and who is what to it already. */
export interface Birth<S extends string, A extends string> {
  lifecycle: Lifecycle<S, A>;
  act: A;
  actor: Actor | null;
  entity: string | null;
  people?: ActRecord['people'];
}

/** Makes a record: judged as an act on nothing, then the work that inserts it, then its first event. */
export async function performBirth<S extends string, A extends string, Result>(
  context: Context,
  trx: Db,
  wanted: Birth<S, A>,
  work: () => Promise<Outcome<Result> & { id: string; state: S }>,
): Promise<Result> {
  const { lifecycle, act, actor, entity, people = {} } = wanted;
  if (actor) {
    const judgement = judgeAct(lifecycle, act, { state: null, entity, people }, actor, ALL_OFF);
    if (!judgement.ok) throw refusalOf(judgement, lifecycle.kind, '');
  }
  const outcome = await work();
  const facts = { revision: 1, state: outcome.state, ...outcome.facts };
  await leave(context, trx, { kind: lifecycle.kind, id: outcome.id, rule: lifecycle.acts[act], actor }, facts, outcome);
  return outcome.result;
}

const ALL_OFF = { isOn: () => false };

/** The state the act leads to, null when it stays; refused when the act may not be done, or not as the record is by now. */
async function judged<S extends string, A extends string, Row extends LockedRecord<S>, Key>(
  trx: Db,
  { lifecycle, act, actor, revision }: Performance<S, A, Row, Key>,
  record: Row,
): Promise<S | null> {
  const rule = lifecycle.acts[act];
  const settings = actor && rule.apart ? await selectSettings(trx, [rule.apart.setting]) : {};
  const judgement = actor
    ? judgeAct(lifecycle, act, record, actor, { isOn: (s) => settings[s] !== false })
    : judgeSystemAct(lifecycle, act, record.state);
  const stale = revision !== null && revision !== record.revision;
  if (stale && (judgement.ok || judgement.no === 'state')) throw await staleness(trx, lifecycle.kind, record, revision);
  if (!judgement.ok) throw refusalOf(judgement, lifecycle.kind, record.name);
  return judgement.way.to;
}

async function staleness(trx: Db, kind: string, record: LockedRecord, revision: number): Promise<Refused> {
  const events = await selectEvents(trx, kind, record.id);
  const changes = events.filter((event) => Number(event.facts.revision ?? 0) > revision);
  return new Refused('stale', { what: kind, revision: record.revision, state: record.state, changes });
}

/** A judgement that says no, as the answer to who asked. */
export function refusalOf(judgement: Exclude<Judgement<string>, { ok: true }>, kind: string, name: string): Refused {
  switch (judgement.no) {
    case 'own':
      return new Refused('own-record', { what: kind });
    case 'apart':
      return new Refused('kept-apart', { what: kind });
    case 'role':
      return new Refused('not-allowed', { needs: judgement.roles.join(' or ') });
    case 'relation':
      return new Refused('not-yours', { what: kind, needs: judgement.as.join(' or ') });
    case 'state':
      return new Refused('wrong-state', {
        what: kind,
        name,
        state: judgement.state,
        needs: judgement.from.join(' or '),
      });
    default:
      return judgement satisfies never;
  }
}

async function leave(
  { clock, jobs, historyKey }: Context,
  trx: Db,
  of: { kind: string; id: string; rule: ActRule<string>; actor: Actor | null },
  facts: Record<string, unknown>,
  { words, about, jobs: asked = [] }: Outcome<unknown>,
): Promise<void> {
  const event = {
    recordKind: of.kind,
    recordId: of.id,
    at: clock.now(),
    actorId: of.actor?.id ?? null,
    proof: of.actor?.proof ?? null,
    kind: of.rule.event,
    facts,
    about: about ?? null,
    words: words ?? null,
  };
  await appendEvent(trx, event, historyKey ?? null);
  for (const { name, data } of asked) await jobs.ask(trx, name, data as never);
}
