import type { z } from 'zod';
import type { approvalsAnswer } from '../../../contract/approvals.ts';
import type { CodeLeft } from '../../../core/documents/splitBook.ts';
import { settlementSum } from '../../../core/figures/settlement/settlementSum.ts';
import { fromMinor } from '../../../core/numbers/amount.ts';
import { chargedCodes, totalCost } from '../../../core/routing/chargedCodes.ts';
import type { Actor, Context } from '../../platform/context.ts';
import { selectNames } from '../../records/routing/routing.queries.ts';
import {
  selectOwnedCodes,
  selectRecords,
  selectTakeable,
  selectWaiting,
  type DecidedRecord,
  type WaitingNeed,
} from './approvals.queries.ts';

type Approvals = z.input<typeof approvalsAnswer>;
const MOST_DECIDED = 20;

/**
 * Everything that waits for somebody, themselves or for whom they stand in, the longest first; and what they decided last, as
 * long as they may take it back. Figures are those that were stored when the records last changed.
 */
export async function viewApprovals({ db }: Pick<Context, 'db'>, actor: Actor): Promise<Approvals> {
  const seats = [actor.id, ...(actor.standsFor?.(null) ?? [])];
  const needs = await selectWaiting(db, seats);
  const decided = await selectTakeable(db, actor.id, MOST_DECIDED);
  const records = new Map((await selectRecords(db, [...needs, ...decided])).map((r) => [`${r.kind} ${r.number}`, r]));
  const owned = await selectOwnedCodes(db, seats);
  const names = await selectNames(db, seats);
  const isAsked = ({ people }: WaitingNeed, { entity }: DecidedRecord) =>
    [actor.id, ...(actor.standsFor?.(entity) ?? [])].some((seat) => people.includes(seat));
  const isTheirs = ({ makers }: DecidedRecord) => makers.includes(actor.id);
  return {
    waiting: needs.flatMap((need) => {
      const record = records.get(`${need.kind} ${need.number}`);
      return record && isAsked(need, record) && !isTheirs(record)
        ? [waitingRow(need, record, { actor, owned, names })]
        : [];
    }),
    decided: decided.flatMap(({ kind, number, at }) => {
      const record = records.get(`${kind} ${number}`);
      return record ? [{ ...headOf(record), at }] : [];
    }),
  };
}

const headOf = (record: DecidedRecord) => {
  const { kind, number, revision, who, purpose, currency } = record;
  return { kind, number, revision, who, purpose, currency, amount: costOf(record) };
};

const costOf = ({ total, currency, result }: DecidedRecord): string | null =>
  result ? totalCost(result, currency) : total === null ? null : fromMinor(total, currency);

interface Viewer {
  actor: Actor;
  owned: ReadonlySet<string>;
  names: ReadonlyMap<string, string>;
}

function waitingRow(
  need: WaitingNeed,
  record: DecidedRecord,
  { actor, owned, names }: Viewer,
): Approvals['waiting'][number] {
  const { from, to, ledgerCurrency, claim, result, plan, ties, stops, asks, words, problems } = record;
  const insteadOf = need.people.includes(actor.id) ? [] : need.people.filter((id) => names.has(id));
  const off = Object.values(ties).some((state) => state === 'off' || state === 'open');
  const declined = claim?.lines.some((l) => l.cut ?? l.items?.some((i) => i.cut)) ?? false;
  return {
    ...headOf(record),
    asks: need.asks,
    ...{ from, to, ledgerCurrency, plan, ties, stops },
    toPay: claim && result ? settlementSum(claim, result).toPay : null,
    since: need.since,
    levels: need.levels,
    insteadOf: insteadOf.map((id) => names.get(id)!),
    about: need.about,
    budgets: budgetsOf(record, owned),
    asksOpen: asks,
    words: words.map(({ line, about, text }) => ({ line: line ?? null, says: about, text })),
    usual:
      need.asks === 'record'
      && !off
      && !declined
      && stops === 0
      && asks === 0
      && problems === 0
      && costOf(record) !== null,
  };
}

/** What is left of the budgets of the codes a claim is charged to, as its last assessment found them. */
function budgetsOf({ result, left, ledgerCurrency }: DecidedRecord, owned: ReadonlySet<string>) {
  if (!result) return [];
  const charged = chargedCodes(result, [...new Set(left.map((l) => l.dimension))], ledgerCurrency);
  return charged.flatMap(({ dimension, code }) => {
    const budget = left.find((l: CodeLeft) => l.dimension === dimension && l.code === code);
    return budget ? [{ dimension, code, left: budget.left, mine: owned.has(`${dimension} ${code}`) }] : [];
  });
}
