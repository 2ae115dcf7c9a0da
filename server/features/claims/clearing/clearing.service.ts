import { randomBytes } from 'node:crypto';
import type { BeginClearing } from '../../../../contract/clearing.ts';
import { audienceOf } from '../../../../core/workflow/audienceOf.ts';
import { selectSettings } from '../../../platform/acts/settings.queries.ts';
import type { Actor, Context } from '../../../platform/context.ts';
import type { Db } from '../../../platform/db/connect.ts';
import { inTransaction } from '../../../platform/db/transaction.ts';
import { sha256 } from '../../../platform/history/sha256.ts';
import { Refused } from '../../../platform/http/refusal.ts';
import { keptClaim, standingOf, summaryColumns } from '../../../records/claims/assessClaim.ts';
import { actOnClaim, claimFacts } from '../../../records/claims/claimStore.ts';
import { selectMarks } from '../../../records/claims/marks.queries.ts';
import { onlyClaim } from '../../../records/claims/usesOf.ts';
import { clearIn, isFound } from '../review.service.ts';
import {
  insertItems,
  insertRun,
  lockRun,
  resumeRun,
  selectChosen,
  selectItems,
  selectNext,
  selectRun,
  selectRuns,
  updateItem,
  updateRun,
  type ChosenClaim,
  type ItemRow,
  type RunRow,
} from './clearing.queries.ts';
import { drawnCount, drawOf } from './drawOf.ts';

const SHARE = 'clearing-draw-percent';
const USUAL_SHARE = 10;

/**
 * Begins to clear claims together: what is not as it was chosen is left out by name, a share of the others is drawn for a full
 * look and stays in review, the rest is cleared one by one by a job. Seed and share stand in the history of those drawn.
 */
export function beginClearing(context: Context, actor: Actor, request: BeginClearing): Promise<{ run: string }> {
  return inTransaction(context, async (trx) => {
    const seen = new Map(request.claims.map((c) => [c.number, c.revision]));
    // one's own claim, and one of another office, is none of those
    const claims = (await selectChosen(trx, [...seen.keys()])).filter(
      (claim) => audienceOf(claimFacts(claim), actor) === 'finance',
    );
    if (claims.length < seen.size) throw new Refused('not-found', { what: 'claim' });
    const against = new Map(claims.map((c) => [c.number, notClean(c, seen.get(c.number)!)]));
    const clean = claims.filter((c) => against.get(c.number) === null).map((c) => c.number);
    const { [SHARE]: set = USUAL_SHARE } = await selectSettings(trx, [SHARE]);
    const share = Number(set);
    const seed = randomBytes(32).toString('hex');
    const drawn = new Set(drawOf(clean, seed, drawnCount(clean.length, share)));
    const secret = randomBytes(32).toString('hex');
    const who = { person: actor.id, proof: actor.proof!, secretHash: sha256(secret) };
    const run = await insertRun(trx, { ...who, at: context.clock.now(), seed, share });
    for (const number of [...drawn].sort())
      await drawClaim(context, trx, actor, { number, revision: seen.get(number)!, facts: { run, seed, share } });
    const order = new Map([...seen.keys()].map((number, i) => [number, i]));
    const items = claims.map(({ id, number }) => ({
      claim_id: id,
      position: order.get(number)!,
      revision: seen.get(number)!,
      outcome: drawn.has(number) ? ('drawn' as const) : against.get(number) === null ? null : ('left out' as const),
      says: against.get(number) ?? null,
    }));
    await insertItems(trx, run, items);
    await context.jobs.ask(trx, 'clear-claims', { run, secret });
    return { run };
  });
}

/** Why a claim is not cleared with the others; null when it is as it was chosen. */
function notClean({ revision, state, clean }: ChosenClaim, seen: number): string | null {
  if (revision !== seen) return 'It was changed since you chose it.';
  if (state !== 'in review') return `It is ${state}.`;
  return clean ? null : 'Not everything of it is tied.';
}

/** Notes that a claim gets a full look; it is not cleared with others any more. */
function drawClaim(
  context: Context,
  trx: Db,
  actor: Actor,
  { facts, ...claim }: { number: string; revision: number; facts: Record<string, unknown> },
): Promise<void> {
  return actOnClaim(context, trx, { act: 'draw', claim, actor }, async ({ row, at }) => {
    const drawn_at = context.clock.now();
    const standing = standingOf({ ...row, drawn_at }, context.clock);
    const columns = summaryColumns(await keptClaim(trx, at), await selectMarks(trx, at), standing);
    return { result: undefined, columns: { ...columns, drawn_at }, facts };
  });
}

type ReadActor = (id: string) => Promise<Actor | null>;

/** So many claims are cleared by one job, which then asks for the next: none runs as long as to count as silent. */
const AT_A_TIME = 50;

/** Goes on with a run until it ends, or is stopped. Each claim is one transaction with what became of it, so twice is once. */
export async function clearChosen(
  context: Context,
  readActor: ReadActor,
  { run, secret }: { run: string; secret: string },
): Promise<void> {
  for (let i = 0; i < AT_A_TIME; i += 1) {
    const more = await inTransaction(context, (trx) => clearNext(context, trx, readActor, { run, secret }));
    if (!more) return;
  }
  await context.jobs.ask(context.db, 'clear-claims', { run, secret });
}

async function clearNext(
  context: Context,
  trx: Db,
  readActor: ReadActor,
  { run, secret }: { run: string; secret: string },
): Promise<boolean> {
  const row = await lockRun(trx, run);
  const over = !row || row.ended_at !== null || row.stopped_at !== null;
  if (over || row.proof_hash !== sha256(secret)) return false;
  const next = await selectNext(trx, run);
  if (!next) {
    await updateRun(trx, run, { ended_at: context.clock.now() });
    return false;
  }
  const person = await readActor(row.person_id);
  const says = person
    ? await whyNotCleared(context, trx, { ...person, proof: secret }, { ...next, run })
    : 'Who chose it is no longer here.';
  await updateItem(trx, run, next.claim_id, { outcome: says === null ? 'cleared' : 'left out', says });
  return true;
}

/** Clears one claim; null, or why it was not, with nothing of it done. */
async function whyNotCleared(
  context: Context,
  trx: Db,
  actor: Actor,
  { number, revision, run }: { number: string; revision: number; run: string },
): Promise<string | null> {
  try {
    await inTransaction({ db: trx }, (inner) => clearIn(context, inner, actor, { number, revision }, { run }));
    return null;
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    if (isFound(error)) await context.jobs.ask(trx, 'assess-claims', { key: onlyClaim(number) });
    return error.code === 'stale' ? 'It was changed since you chose it.' : error.says;
  }
}

/** Stops a run of one's own after the claim it is at. */
export async function stopClearing(context: Context, actor: Actor, run: string) {
  await inTransaction(context, async (trx) => {
    const row = await lockRun(trx, run);
    if (row?.person_id !== actor.id) throw new Refused('not-found', { what: 'run' });
    if (row.ended_at === null && row.stopped_at === null)
      await updateRun(trx, run, { stopped_at: context.clock.now() });
  });
  return viewClearing(context, actor, run);
}

/** Goes on with a run of one's own that was stopped. */
export async function resumeClearing(context: Context, actor: Actor, run: string) {
  await inTransaction(context, async (trx) => {
    const secret = randomBytes(32).toString('hex');
    const who = { person: actor.id, proof: actor.proof!, secretHash: sha256(secret) };
    if (!(await resumeRun(trx, run, who))) throw new Refused('not-found', { what: 'run that was stopped' });
    await context.jobs.ask(trx, 'clear-claims', { run, secret });
  });
  return viewClearing(context, actor, run);
}

/** A run of one's own, claim by claim. */
export async function viewClearing({ db }: Pick<Context, 'db'>, actor: Actor, run: string) {
  const row = await selectRun(db, run);
  if (row?.person_id !== actor.id) throw new Refused('not-found', { what: 'run' });
  const items = await selectItems(db, [row.id]);
  const shown = items.map(({ run_id: _, ...item }) => item);
  return { ...summary(row, items), seed: row.seed, share: row.share, items: shown };
}

const MOST_RUNS = 20;
/** One's own last runs. */
export async function viewClearings({ db }: Pick<Context, 'db'>, actor: Actor) {
  const rows = await selectRuns(db, actor.id, MOST_RUNS);
  const items = await selectItems(
    db,
    rows.map((r) => r.id),
  );
  return {
    runs: rows.map((row) =>
      summary(
        row,
        items.filter((i) => i.run_id === row.id),
      ),
    ),
  };
}

function summary(row: RunRow, items: readonly ItemRow[]) {
  const count = (outcome: ItemRow['outcome']) => items.filter((i) => i.outcome === outcome).length;
  const state = row.ended_at ? ('done' as const) : row.stopped_at ? ('stopped' as const) : ('running' as const);
  const counts = { cleared: count('cleared'), drawn: count('drawn'), leftOut: count('left out') };
  return { run: String(row.id), at: row.begun_at, state, chosen: items.length, ...counts };
}
