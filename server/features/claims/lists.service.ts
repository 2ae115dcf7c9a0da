import { groupBy } from '../../../core/numbers/groupBy.ts';
import type { QueueQuery } from '../../../contract/claims.ts';
import { FINANCE } from '../../../core/workflow/lifecycle.types.ts';
import { entitiesOf, type Actor, type Context } from '../../platform/context.ts';
import { selectStateChanges } from '../../platform/history/history.queries.ts';
import { selectClaimPage, selectOwnClaims, selectStateCounts, type ListedClaim } from './desk.queries.ts';

/** One page of the Desk: claims of a state, what deserves attention first, with how many there are of each state. */
export async function viewQueue({ db }: Pick<Context, 'db'>, actor: Actor, { state, q, after }: QueueQuery) {
  const entities = entitiesOf(actor, FINANCE);
  const [page, counts] = await Promise.all([
    selectClaimPage(db, { state, q, after: after ?? null, entities }),
    selectStateCounts(db, entities),
  ]);
  const claims = (await withTides(db, page.rows)).map((row) => deskRow(row, actor));
  return { claims, next: page.next, counts };
}

/** A row of the Desk; of their own claim nobody sees there what finance thinks of it. */
function deskRow<Row extends ListedClaim>(row: Row, actor: Actor) {
  const own = row.makers.includes(actor.id);
  return own ? { ...row, own, atRisk: null, ties: {}, stops: 0, asks: 0, waiting: 0, answered: 0 } : { ...row, own };
}

/** The claims a person made or has made for them, newest first. */
export async function viewOwnClaims({ db }: Pick<Context, 'db'>, actor: Actor) {
  return { claims: await withTides(db, await selectOwnClaims(db, actor.id)) };
}

async function withTides(db: Context['db'], rows: readonly ListedClaim[]) {
  const changes = await selectStateChanges(
    db,
    'claim',
    rows.map((row) => row.number),
  );
  const byClaim = groupBy(changes, (change) => change.recordId);
  return rows.map((row) => ({
    ...row,
    tide: (byClaim.get(row.number) ?? []).map(({ state, at }) => ({ state, from: at })),
  }));
}
