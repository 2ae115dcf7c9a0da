import { canonical } from '../numbers/canonical.ts';

/** One row of a posted journal as it is exported. Amounts are decimal strings: `debit` and `credit` of the ledger's currency, `amount` (debit − credit) of the row's own. */
export interface LedgerRow {
  position: number;
  account: string;
  coding: Record<string, string>;
  debit: string;
  credit: string;
  currency: string;
  amount: string;
  line: string | null;
  item: string | null;
  taxCode: string | null;
  text: string;
}

/** ebbet-journal/1: a posted journal of any source. `reverses` and `corrects` are journal numbers. */
export interface LedgerJournal {
  format: 'ebbet-journal/1';
  number: string;
  entity: string;
  currency: string;
  date: string;
  purpose: string;
  source: { kind: string; id: string };
  reverses: string | null;
  corrects: string | null;
  rows: LedgerRow[];
}

/**
 * The text whose SHA-256 is a journal's hash, by which an event proves which journal it is about: canonical JSON of all
 * that an export says of it. The same rows in another order are another journal.
 */
export const journalText = (journal: LedgerJournal): string => canonical(journal);
