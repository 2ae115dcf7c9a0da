import { canonical } from '../core/numbers/canonical.ts';
import { addDays } from '../core/numbers/isoDate.ts';
import { toMinor } from '../core/numbers/amount.ts';
import type { Line } from '../core/documents/case.schema.ts';
import type { Actor, Context } from '../server/platform/context.ts';
import type { Db } from '../server/platform/db/connect.ts';
import { inTransaction } from '../server/platform/db/transaction.ts';
import { sha256 } from '../server/platform/history/sha256.ts';
import { systemClock } from '../server/platform/ports/clock.ts';
import { wordsWanted } from '../core/workflow/wordsWanted.ts';
import { explainFinding } from '../server/features/claims/drafts.service.ts';
import { selectPolicyStatement } from '../server/records/book/rules.queries.ts';
import { assessAgain } from '../server/features/claims/reassess.service.ts';
import { correctLines } from '../server/features/claims/correct.service.ts';
import { clearClaim, markTie } from '../server/features/claims/review.service.ts';
import { approveClaim, declineClaim, returnClaim } from '../server/features/claims/decisions.service.ts';
import { callBackClaim, submitClaim, withdrawClaim } from '../server/features/claims/submission.service.ts';
import { postClaim, reverseJournal } from '../server/features/journals/post.service.ts';
import { payClaim, rejectPayment } from '../server/features/payments/payClaim.service.ts';
import { today } from '../server/platform/ports/clock.ts';
import { beginClaim, type NewDraft } from '../server/records/claims/beginClaim.ts';
import { keptClaim } from '../server/records/claims/assessClaim.ts';
import { fingerprintOf } from '../server/records/claims/assessed.ts';
import { replaceWantedAdvances, selectClaim, type ClaimRow } from '../server/records/claims/claims.queries.ts';
import { insertLines, type LineRecord } from '../server/records/claims/lines.queries.ts';
import { lineRecord } from '../server/records/claims/lineRecord.ts';
import { touchClaims } from '../server/records/claims/touchClaims.ts';
import { onlyClaim } from '../server/records/claims/usesOf.ts';
import { frozenPlan } from '../server/records/plans/assessPlan.ts';
import { actOnPlan } from '../server/records/plans/planStore.ts';
import { selectEstimates, selectPlan } from '../server/records/plans/plans.queries.ts';
import { selectLiveJournal } from '../server/records/ledger/journals.queries.ts';
import { claimSource } from '../server/records/ledger/ledger.types.ts';
import type { ClaimSeed, LineSeed } from './claims/claim.types.ts';
import { actorOf, clockAt, moment } from './actors.ts';
import { chargeOf } from './loadGather.ts';

/** The receipts of lines, by claim and line; and the plan the claim comes from. */
interface Sources {
  receipts: Map<string, bigint>;
  plan: string | null;
}

/** Step by step as it would have happened: drafted, submitted, approved, reviewed, posted. */
export async function loadClaim(context: Context, seed: ClaimSeed, day: string, from: Sources): Promise<void> {
  const start = addDays(day, -seed.daysAgo);
  const end = addDays(start, seed.days - 1);
  const steps = stepsOf(seed);
  const moments = momentsOf(steps, addDays(end, 1), seed.took);
  await draft({ ...context, clock: clockAt(moment(addDays(end, 1), 9)) }, seed, { start, end }, from);
  for (const [i, step] of steps.entries()) await take({ ...context, clock: clockAt(moments[i]!) }, seed, step);
  await assessAgain(context, onlyClaim(seed.number));
}

/** When each step happened: from the morning after the trip to an hour ago, the last ones not too late. */
function momentsOf(steps: readonly string[], first: string, took = Infinity): Date[] {
  const begun = moment(first, 10).getTime();
  const last = Math.min(systemClock.now().getTime() - 3_600_000, begun + took * 86_400_000);
  const span = Math.max(steps.length, 1);
  return steps.map((_, i) => new Date(Math.min(last, begun + ((last - begun) * i * 0.7) / span + i * 1_800_000)));
}

async function draft(
  context: Context,
  seed: ClaimSeed,
  { start, end }: { start: string; end: string },
  { receipts, plan }: Sources,
): Promise<void> {
  const actor = actorOf(seed.claimant);
  await inTransaction(context, async (trx) => {
    const begin = {
      number: seed.number,
      claimant: seed.claimant,
      entity: seed.entity,
      currency: seed.currency,
      purpose: seed.purpose,
      coding: seed.coding,
      tripFrom: start,
      tripTo: end,
    };
    const { id } = plan ? await ofPlan(context, trx, plan, begin) : await beginClaim(context, trx, actor, begin);
    const at = { claim_id: id, version: 1 };
    const facts = () => ({ lines: seed.lines.map((_, i) => String(i + 1)) });
    const touch = { act: 'gather' as const, actor, claims: [{ number: seed.number, revision: 1 }], charges: [], facts };
    await touchClaims(context, trx, touch, async () => {
      const records: LineRecord[] = [];
      for (const [i, line] of seed.lines.entries()) {
        const receipt = receipts.get(`${seed.number}/${i}`) ?? null;
        const charge = line.by === 'card' ? await chargeOf(trx, seed.number, i) : null;
        records.push(recordOf(line, i, start, { receipt, charge }));
      }
      await insertLines(trx, at, 0, records);
      await replaceWantedAdvances(
        trx,
        at,
        (seed.advances ?? []).map(({ advance, upTo }) => ({
          advance_id: advance,
          up_to: upTo ? toMinor(upTo, seed.currency) : null,
        })),
      );
    });
  });
}

/** Begins a claim from its plan, as its makers would, with the number the demo gives it. */
async function ofPlan(context: Context, trx: Db, plan: string, begin: NewDraft): Promise<ClaimRow> {
  const { revision } = (await selectPlan(trx, plan))!;
  const actor = actorOf(begin.claimant);
  return actOnPlan(context, trx, { act: 'claim', plan: { number: plan, revision }, actor }, async ({ row }) => ({
    result: await beginClaim(context, trx, actor, {
      ...begin,
      plan: frozenPlan(row, await selectEstimates(trx, row.id)),
    }),
    facts: { claim: begin.number },
  }));
}

const PATHS: Record<string, string[]> = {
  draft: [],
  'with approver': ['submit'],
  'in review': ['submit', 'approve'],
  returned: ['submit', 'approve', 'return'],
  declined: ['submit', 'decline'],
  withdrawn: ['submit', 'callBack', 'withdraw'],
  cleared: ['submit', 'approve', 'clear'],
  posted: ['submit', 'approve', 'clear', 'post'],
  reversed: ['submit', 'approve', 'clear', 'post', 'reverse'],
  paid: ['submit', 'approve', 'clear', 'post', 'pay'],
  'part paid': ['submit', 'approve', 'clear', 'post', 'payHalf'],
  'payment rejected': ['submit', 'approve', 'clear', 'post', 'reject'],
};
const stepsOf = ({ state, correction }: ClaimSeed): string[] => [...PATHS[state]!, ...(correction ? ['correct'] : [])];

async function take(context: Context, seed: ClaimSeed, step: string): Promise<void> {
  const { number } = seed;
  const { revision } = (await selectClaim(context.db, number))!;
  await STEPS[step]!({ context, seed, seen: { number, revision }, date: today(context.clock) });
}

interface StepOf {
  context: Context;
  seed: ClaimSeed;
  seen: { number: string; revision: number };
  date: string;
}
const [REVIEWER, CONTROLLER] = ['P02', 'P03'].map(actorOf) as [Actor, Actor];

/** What happens to a claim of the demo, each act by somebody who may do it. */
const STEPS: Record<string, (step: StepOf) => Promise<unknown>> = {
  submit: async ({ context, seed, seen }) => {
    const accepted = (await selectPolicyStatement(context.db, today(context.clock)))?.version;
    await submitClaim(context, actorOf(seed.claimant), { ...(await explained(context, seed, seen)), accepted });
  },
  callBack: ({ context, seed, seen }) => callBackClaim(context, actorOf(seed.claimant), seen),
  withdraw: ({ context, seed, seen }) => withdrawClaim(context, actorOf(seed.claimant), seen),
  approve: ({ context, seen }) => approveAll(context, seen),
  correct: ({ context, seed: { correction }, seen }) => correctLines(context, REVIEWER, seen, [correction!]),
  decline: async ({ context, seen }) =>
    declineClaim(context, await deciderOf(context, seen.number), {
      ...seen,
      reason: 'This was paid centrally already.',
    }),
  return: ({ context, seen }) =>
    returnClaim(context, REVIEWER, {
      ...seen,
      reason: 'The supper receipt is for another evening. Please add the right one.',
    }),
  clear: async ({ context, seen }) => clearClaim(context, REVIEWER, await waived(context, seen)),
  post: ({ context, seed, seen, date }) => post(context, seed, seen.revision, date),
  reverse: ({ context, seed, date }) => reverse(context, seed.number, date),
  pay: ({ context, seen, date }) => payClaim(context, CONTROLLER, { ...seen, date, amount: null }),
  payHalf: async ({ context, seen, date }) =>
    payClaim(context, CONTROLLER, { ...seen, date, amount: await half(context, seen.number) }),
  reject: ({ context, seen }) => rejectPayment(context, CONTROLLER, seen, 'The account is closed.'),
};

/** Who decides about a claim now: the first of them. */
const deciderOf = async ({ db }: Context, number: string): Promise<Actor> =>
  actorOf((await selectClaim(db, number))!.deciders[0]!);

/** Approved by everybody on its route, one after the other. */
async function approveAll(context: Context, { number }: StepOf['seen']): Promise<void> {
  for (let claim = await selectClaim(context.db, number); claim!.state === 'with approver';) {
    await approveClaim(context, actorOf(claim!.deciders[0]!), { number, revision: claim!.revision });
    claim = await selectClaim(context.db, number);
  }
}

/** Waives what is not tied by itself, as somebody would who looked at it; the claim as it is seen afterwards. */
async function waived(context: Context, seen: StepOf['seen']): Promise<StepOf['seen']> {
  const claim = (await selectClaim(context.db, seen.number))!;
  const { ties } = await keptClaim(context.db, { claim_id: claim.id, version: claim.version });
  let { revision } = seen;
  for (const tie of ties.filter((t) => t.state === 'off' || t.state === 'open')) {
    const mark = { line: tie.line, kind: tie.kind, about: fingerprintOf(tie), mark: 'waived' as const };
    await markTie(context, REVIEWER, seen.number, { revision, ...mark, reason: 'Looked at, and as it should be.' });
    revision += 1;
  }
  return { ...seen, revision };
}

const WORDS = ['It was agreed beforehand.', 'There was no cheaper one that day.', 'The team knows about it.'];

/** A word to everything that is asked; the claim as it is seen afterwards. */
async function explained(context: Context, seed: ClaimSeed, seen: StepOf['seen']): Promise<StepOf['seen']> {
  const claim = (await selectClaim(context.db, seen.number))!;
  const { assessment } = await keptClaim(context.db, { claim_id: claim.id, version: claim.version });
  let { revision } = seen;
  for (const [i, { line, code, says }] of wordsWanted(assessment.findings, []).entries()) {
    const said = { line, code, about: says, text: WORDS[i % WORDS.length]! };
    await explainFinding(context, actorOf(seed.claimant), { number: seen.number, revision }, said);
    revision += 1;
  }
  return { ...seen, revision };
}

async function reverse(context: Context, number: string, date: string): Promise<void> {
  const { version } = (await selectClaim(context.db, number))!;
  const journal = (await selectLiveJournal(context.db, claimSource(number, version), 'claim'))!.number;
  const reason = 'Posted with the coding of last year’s project.';
  await reverseJournal(context, CONTROLLER, { journal, date, reason });
}

/** Posts as somebody would who looked at the journal of the day. */
async function post(context: Context, { number }: ClaimSeed, revision: number, date: string): Promise<void> {
  await assessAgain(context, onlyClaim(number));
  const claim = (await selectClaim(context.db, number))!;
  const { assessment } = await keptClaim(context.db, { claim_id: claim.id, version: claim.version });
  const digest = sha256(canonical(assessment.journal));
  await postClaim(context, actorOf('P03'), number, { revision, date, digest });
}

/** Half of what is to be paid for a claim, in minor units. */
async function half({ db }: Context, number: string): Promise<bigint> {
  const claim = (await selectClaim(db, number))!;
  const { assessment } = await keptClaim(db, { claim_id: claim.id, version: claim.version });
  return toMinor(assessment.settlement.payable!, claim.currency) / 2n;
}

function recordOf(
  seed: LineSeed,
  index: number,
  start: string,
  { receipt, charge }: { receipt: bigint | null; charge: bigint | null },
): LineRecord {
  const record = lineRecord(documentOf(seed, index, start));
  return { ...record, line: { ...record.line, ...factsOf(seed, start), receipt_id: receipt, charge_id: charge } };
}

/** What a line of the demo says beyond its document. */
const factsOf = (seed: LineSeed, start: string) => ({
  date: addDays(start, seed.day),
  paid_by: seed.by ?? 'own',
  card: seed.card ?? null,
  amount: toMinor(seed.amount, currencyOf(seed)),
  currency: currencyOf(seed),
  country: seed.country,
  merchant: seed.merchant,
  description: seed.text,
  personal: seed.personal ?? false,
  nights: seed.nights ?? null,
  attendees: seed.attendees ?? null,
  estimate: seed.estimate ?? null,
  rate_kind: seed.settled ? ('card' as const) : seed.own ? ('own' as const) : ('reference' as const),
  rate_value: seed.own ?? null,
  settled_amount: seed.settled ? toMinor(...seed.settled) : null,
  settled_currency: seed.settled?.[1] ?? null,
});

const currencyOf = (seed: LineSeed): string => seed.currency ?? (seed.country === 'JP' ? 'JPY' : 'EUR');

function documentOf(seed: LineSeed, index: number, start: string): Line {
  const { category, coding, tax, split, items } = seed;
  return {
    id: String(index + 1),
    date: addDays(start, seed.day),
    paidBy: seed.by ?? 'own',
    amount: seed.amount,
    currency: currencyOf(seed),
    category: category ?? null,
    coding: coding ?? {},
    tax: tax ?? [],
    split: split ?? null,
    items: (items ?? []).map(({ text, ...item }) => ({ ...item, description: text })),
  };
}
