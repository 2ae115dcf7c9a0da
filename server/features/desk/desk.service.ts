import { stringify } from 'csv-stringify/sync';
import type { DeskFilter, QueueQuery } from '../../../contract/desk.ts';
import { attentionOf } from '../../../core/workflow/attention.ts';
import { FINANCE } from '../../../core/workflow/lifecycle.types.ts';
import { entitiesOf, type Actor, type Context } from '../../platform/context.ts';
import { guardCell } from '../../platform/http/guardCell.ts';
import { today } from '../../platform/ports/clock.ts';
import type { ListedClaim } from '../../records/claims/listed.queries.ts';
import { withTides } from '../../records/claims/withTides.ts';
import { selectClaimPage, selectStateCounts, type Page } from './desk.queries.ts';
import { selectHere } from './here.queries.ts';

type Looking = Pick<Context, 'db' | 'clock'>;

const pageFor = ({ clock }: Looking, actor: Actor, filter: DeskFilter, after: string | null): Page => ({
  ...{ filter, after },
  entities: entitiesOf(actor, FINANCE),
  person: actor.id,
  today: today(clock),
});

/** One page of the Desk: what deserves attention first, with why, and how many claims there are of each state. */
export async function viewQueue(context: Looking, actor: Actor, { after, ...filter }: QueueQuery) {
  const { db, clock } = context;
  const wanted = pageFor(context, actor, filter, after ?? null);
  const [page, counts] = await Promise.all([selectClaimPage(db, wanted), selectStateCounts(db, wanted.entities)]);
  const rows = await withTides(db, page.rows);
  const here = await selectHere(
    db,
    rows.map((r) => r.number),
    { person: actor.id, at: clock.now() },
  );
  const claims = rows.map((row) => ({ ...deskRow(row, actor, wanted.today), here: here.get(row.number) ?? [] }));
  return { claims, next: page.next, counts };
}

/** A row of the Desk; of their own claim nobody sees there what finance thinks of it. */
function deskRow<Row extends ListedClaim>(row: Row, actor: Actor, day: string) {
  const own = row.makers.includes(actor.id);
  if (!own) return { ...row, own, attention: attentionOf(row, day) };
  const untold = { atRisk: null, ties: {}, stops: 0, asks: 0, waiting: 0, answered: 0, clean: false };
  return { ...row, own, ...untold, attention: [] };
}

const COLUMNS =
  'number,state,entity,claimant,purpose,submittedOn,toPay,currency,atRisk,ledgerCurrency,stops,asks,attention';

/** Everything a filter lists as CSV for a spreadsheet (RFC 4180), page by page, however much it is. */
export async function* writeQueueCsv(context: Looking, actor: Actor, filter: DeskFilter): AsyncGenerator<string> {
  yield `\uFEFF${COLUMNS}\r\n`;
  for (let after: string | null = null; ;) {
    const wanted = pageFor(context, actor, filter, after);
    const { rows, next } = await selectClaimPage(context.db, wanted);
    const cells = rows.map((row) => cellsOf(deskRow(row, actor, wanted.today)).map(guardCell));
    yield stringify(cells, { record_delimiter: 'windows' });
    if (next === null) return;
    after = next;
  }
}

const cellsOf = (row: ReturnType<typeof deskRow>) => [
  ...[row.number, row.state, row.entity, row.claimant, row.purpose, row.submittedOn, row.toPay, row.currency],
  ...[row.atRisk, row.ledgerCurrency, String(row.stops), String(row.asks), row.attention.join('; ')],
];
