import { fromMinor } from '../../../core/numbers/amount.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { openPeriodOf } from '../book/postingDate.ts';
import { insertJournal, nextJournalNumber } from './journals.queries.ts';
import type { JournalRecord, JournalRowRecord, MovementRecord, Purpose, Source, TaxRowRecord } from './ledger.types.ts';

/** A journal to be posted. Amounts in minor units; the rows must balance in the ledger's currency. */
export interface NewJournal {
  entity: string;
  currency: string;
  date: string;
  purpose: Purpose;
  source: Source;
  rows: readonly JournalRowRecord[];
  movements: readonly MovementRecord[];
  taxes?: readonly TaxRowRecord[];
  /** Not a reversal, and not ended by one: at most one live journal of a source and purpose. */
  live?: boolean;
  reverses?: Pick<JournalRecord, 'id' | 'number'> | null;
  reason?: string | null;
  document?: unknown;
  bookHash?: string | null;
}
export interface PostedJournal {
  id: bigint;
  number: string;
  hash: string;
}

/**
 * Posts a journal into the open period of its date; refused when that is closed or has not come yet. The database refuses
 * what does not balance, what leaves a control account without its open items, and a second live journal of a source.
 */
export async function postJournal(
  context: Context,
  trx: Db,
  actor: Actor,
  journal: NewJournal,
): Promise<PostedJournal> {
  const period = await openPeriodOf(trx, context.clock, journal.entity, journal.date);
  const number = await nextJournalNumber(trx, journal.entity);
  const head = {
    number,
    entity_id: journal.entity,
    currency: journal.currency,
    date: journal.date,
    period_id: period.id,
    purpose: journal.purpose,
    source_kind: journal.source.kind,
    source_id: journal.source.id,
    reverses: journal.reverses?.id ?? null,
    corrects: null,
    undone_on: null,
    live: journal.live ?? true,
    reason: journal.reason ?? null,
    posted_by: actor.id,
    posted_at: context.clock.now(),
    document: journal.document ?? null,
    book_hash: journal.bookHash ?? null,
  };
  const { id, hash } = await insertJournal(
    trx,
    head,
    journal.rows,
    journal.movements,
    journal.taxes ?? [],
    actor.proof ?? null,
  );
  return { id, number, hash };
}

/** A row as journals are exported and hashed. */
export const writeLedgerRow = (row: JournalRowRecord, ledgerCurrency: string) => ({
  position: row.position,
  account: row.account,
  coding: row.coding,
  debit: fromMinor(row.debit, ledgerCurrency),
  credit: fromMinor(row.credit, ledgerCurrency),
  currency: row.currency,
  amount: fromMinor(row.amount, row.currency),
  line: row.line_id,
  item: row.item_id,
  taxCode: row.tax_code,
  text: row.text,
});
