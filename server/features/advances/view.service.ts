import type { AdvanceInput, AdvanceRowInput, RegisterInput } from '../../../contract/advances.ts';
import { isOverdue } from '../../../core/advances/judgeRequest.ts';
import { proposedDue } from '../../../core/advances/reminders.ts';
import { AGES, ageOf, standingOf, type AdvanceStanding, type BothWays } from '../../../core/advances/standing.ts';
import { fromMinor } from '../../../core/numbers/amount.ts';
import { audienceOf } from '../../../core/workflow/audienceOf.ts';
import { actsOpen, judgeAct } from '../../../core/workflow/judgeAct.ts';
import { FINANCE } from '../../../core/workflow/lifecycle.types.ts';
import { advanceLifecycle } from '../../../core/workflow/lifecycles/advance.ts';
import { selectSettings } from '../../platform/acts/settings.queries.ts';
import { entitiesOf, hasAny, type Actor, type Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { selectEvents } from '../../platform/history/history.queries.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { today } from '../../platform/ports/clock.ts';
import { selectAdvanceMovements } from '../../records/advances/advances.queries.ts';
import { advanceFacts } from '../../records/advances/advanceStore.ts';
import { selectAttachments } from '../../records/attachments/attachments.queries.ts';
import { currentBook } from '../../records/book/sharedBook.ts';
import { selectPerson } from '../../records/people/people.queries.ts';
import {
  selectAccountName,
  selectAdvancesIn,
  selectBalances,
  selectNamedAdvance,
  selectOpenOn,
  selectOwnAdvances,
  selectPayments,
  selectUses,
  type NamedAdvance,
} from './advances.queries.ts';

type Reads = Pick<Context, 'db' | 'clock'>;
const OFF = { isOn: () => false };

/** An advance with where it stands; to those it does not concern it does not exist. */
export async function viewAdvance({ db, clock }: Reads, actor: Actor, number: string): Promise<AdvanceInput> {
  const row = await selectNamedAdvance(db, number);
  const audience = row ? audienceOf(advanceFacts(row), actor) : null;
  if (!row || !audience) throw new Refused('not-found', { what: 'advance' });
  const on = today(clock, row.timeZone);
  const history = await selectEvents(db, 'advance', number);
  const movements = (await selectAdvanceMovements(db, [number])).get(number);
  // what was paid from which bank, and what somebody claims, is no matter of an approver
  const inner = audience !== 'approver';
  const version = audience === 'claimant' ? 'version' : 'submitted_version';
  return {
    advance: {
      ...listed(row, on),
      entityName: row.entityName,
      requested: fromMinor(row.requested, row.currency),
      from: row.trip_from,
      to: row.trip_to,
      plan: row.plan,
      exception: row.exception,
      deciders: row.deciderNames,
      proposedDue: proposedDue(row.trip_to, on, await dueAfter(db)),
      bankAccount: await bankOf(db, row.entity_id),
      tide: history.flatMap(({ at, facts }) =>
        typeof facts.state === 'string' ? [{ state: facts.state, from: at }] : [],
      ),
    },
    standing: movements ? standing(standingOf(movements), row) : null,
    problems: row.problems,
    payments: inner ? await paymentsOf(db, row) : [],
    uses: inner ? await usesOf(db, number, version) : [],
    attachments: await selectAttachments(db, { advance_id: row.id }),
    history: history as never,
    may: actsOpen(advanceLifecycle, advanceFacts(row), actor, OFF),
  };
}

/** A row of a list. `open` stands there once something was paid out. */
function listed(row: NamedAdvance, on: string): AdvanceRowInput {
  const { id, revision, state, kind, purpose, person, currency, ledgerCurrency, open, openLedger } = row;
  const wasPaid = open !== null && openLedger !== null;
  return {
    ...{ number: id, revision, state, kind, purpose, person, currency, ledgerCurrency },
    entity: row.entity_id,
    amount: fromMinor(row.amount, currency),
    requestedOn: row.requested_on,
    paidOn: row.paidOn,
    dueBy: row.due_by,
    overdue: isOverdue({ open: open ?? 0n, dueBy: row.due_by }, on),
    open: wasPaid ? both({ amount: open, ledger: openLedger }, row) : null,
    proofMissing: row.proofMissing,
  };
}

type Currencies = Pick<NamedAdvance, 'currency' | 'ledgerCurrency'>;
const both = ({ amount, ledger }: BothWays, { currency, ledgerCurrency }: Currencies) => ({
  amount: fromMinor(amount, currency),
  ledger: fromMinor(ledger, ledgerCurrency),
});
const standing = ({ paidOut, accountedFor, givenBack, open }: AdvanceStanding, row: Currencies) => ({
  paidOut: both(paidOut, row),
  accountedFor: both(accountedFor, row),
  givenBack: both(givenBack, row),
  open: both(open, row),
});

const USUAL_DAYS = 14;
async function dueAfter(db: Db): Promise<number> {
  const { 'advance-due-after-days': days = USUAL_DAYS } = await selectSettings(db, ['advance-due-after-days']);
  return Number(days);
}

async function bankOf(db: Db, entity: string) {
  const { content } = await currentBook(db, entity);
  const code = content.entities[0]!.accounts.bank;
  return code ? { code, name: (await selectAccountName(db, code)) ?? code } : null;
}

async function paymentsOf(db: Db, { id: number, currency, ledgerCurrency }: NamedAdvance) {
  const shown: AdvanceInput['payments'] = [];
  for (const { id, kind, date, amount, bank, account, accountName, reference, journal, by } of await selectPayments(
    db,
    number,
  ))
    shown.push({
      ...{ id: String(id), kind, date, account, accountName, reference, journal, by },
      amount: fromMinor(amount, currency),
      bank: fromMinor(bank, ledgerCurrency),
      proofs: await selectAttachments(db, { payment_id: id }),
    });
  return shown;
}

const POSTED = new Set(['posted', 'part paid', 'paid', 'payment rejected']);
const usesOf = async (
  db: Db,
  number: string,
  version: 'version' | 'submitted_version',
): Promise<AdvanceInput['uses']> =>
  (await selectUses(db, number, version)).map((use) => ({ ...use, posted: POSTED.has(use.state) }));

/** One's own advances, and what finance has to do with those of others. */
export async function viewAdvances({ db, clock }: Reads, actor: Actor) {
  const rows = (of: readonly NamedAdvance[]) => of.map((row) => listed(row, today(clock, row.timeZone)));
  const inState = async (state: NamedAdvance['state'], roles: Parameters<typeof hasAny>[1]) =>
    hasAny(actor, roles)
      ? rows(await selectAdvancesIn(db, { state, entities: entitiesOf(actor, roles), apart: actor.id }))
      : [];
  const person = (await selectPerson(db, actor.id))!;
  const birth = { state: null, entity: person.entity_id, people: { claimant: actor.id } };
  return {
    own: rows(await selectOwnAdvances(db, actor.id)),
    mayBegin: person.kind === 'employee' && judgeAct(advanceLifecycle, 'begin', birth, actor, OFF).ok,
    currency: person.currency,
    toGrant: await inState('in review', ['reviewer']),
    toPay: await inState('to pay out', ['controller']),
    overdue: (await inState('paid out', FINANCE)).filter((a) => a.overdue),
  };
}

/**
 * What is open of advances at the end of a day, by person and entity, with its age, beside what the journals of the account
 * come to; the two are kept equal by the ledger, and shown so that anybody can see it.
 */
export async function viewRegister(
  { db, clock }: Reads,
  actor: Actor,
  { entity, on = today(clock) }: { entity?: string | undefined; on?: string | undefined },
): Promise<RegisterInput> {
  const held = entitiesOf(actor, FINANCE);
  const entities = entity === undefined ? held : held === null || held.includes(entity) ? [entity] : [];
  const open = await selectOpenOn(db, on, entities);
  const rows = open.map((row) => {
    const { days, span } = ageOf(row.paidOn!, on);
    return { ...listed(row, on), days, age: span, ledger: row.openLedger! };
  });
  const balances = await selectBalances(db, on, entities);
  return {
    on,
    rows: rows.map(({ ledger: _, ...row }) => row),
    entities: balances.map(({ entity: id, name, currency, account, balance }) => {
      const own = rows.filter((r) => r.entity === id);
      const sum = (of: typeof own) =>
        fromMinor(
          of.reduce((s, r) => s + r.ledger, 0n),
          currency,
        );
      return {
        ...{ entity: id, name, currency, account },
        ages: AGES.map((age) => ({ age, ledger: sum(own.filter((r) => r.age === age)) })),
        open: sum(own),
        balance: fromMinor(balance, currency),
      };
    }),
  };
}
