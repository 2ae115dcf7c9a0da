import type { LedgerJournal } from '../documents/record.schema.ts';
import { canonical } from '../numbers/canonical.ts';

/**
 * The text whose SHA-256 is a journal's hash, by which an event proves which journal it is about: canonical JSON of all
 * that an export says of it but the hash. The same rows in another order are another journal. Example: the order of
 * keys changed → the same text; one cent changed → another.
 */
export const journalText = (journal: LedgerJournal): string => canonical(journal);
