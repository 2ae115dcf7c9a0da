import { payOut } from '../../../core/ledger/payOut.ts';
import { advanceLifecycle } from '../../../core/workflow/lifecycles/advance.ts';
import { perform } from '../../platform/acts/perform.ts';
import type { Actor, Context } from '../../platform/context.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { advanceStore } from '../../records/advances/advances.queries.ts';
import { currentBook } from '../../records/book/sharedBook.ts';
import { journalRecords } from '../../records/ledger/claimJournal.ts';
import { postJournal } from '../../records/ledger/postJournal.ts';

/** A payout as it was made: on a day, for so many minor units of the ledger's currency. */
export interface Payout {
  advance: string;
  date: string;
  bank: bigint;
}

/** Records that an advance was paid out, and posts it: staff advances against the bank. The journal's number. */
export function payOutAdvance(context: Context, actor: Actor, { advance: id, date, bank }: Payout): Promise<string> {
  return inTransaction(context, (trx) =>
    perform(
      context,
      trx,
      { lifecycle: advanceLifecycle, store: advanceStore, act: 'payOut', key: id, actor, revision: null },
      async ({ row }) => {
        const { content } = await currentBook(trx, row.entity_id);
        const { accounts, currency: ledgerCurrency } = content.entities[0]!;
        const source = { kind: 'advance' as const, id };
        const rows = payOut({ ...row, id }, { bank, ledgerCurrency, accounts });
        const scope = { person: row.person_id, subject: source, entity: row.entity_id };
        const journal = await postJournal(context, trx, actor, {
          entity: row.entity_id,
          currency: ledgerCurrency,
          date,
          purpose: 'advance payout',
          source,
          ...journalRecords(rows, scope),
        });
        return { result: journal.number, facts: { journal: journal.number, date }, about: journal.hash };
      },
    ),
  );
}
