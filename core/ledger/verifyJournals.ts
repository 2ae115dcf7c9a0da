import type { ExportedJournal } from '../documents/record.schema.ts';
import { toMinor } from '../numbers/amount.ts';
import { journalText } from './journalText.ts';

/** One thing wrong with exported journals: which journal, and what; for `other` and `missing` the event that says so. */
export interface JournalFault {
  journal: string;
  what: 'hash' | 'balance' | 'repeated' | 'missing' | 'other' | 'without event';
  event: string | null;
}
/** An event that is about a journal: how it is named, the journal's number, and its hash. */
export interface AboutJournal {
  event: string;
  journal: string;
  hash: string | null;
}

/**
 * Checks exported journals one by one, then against the events that are about them. `sha256` gives the lower-case hex
 * digest of a text. A journal that was changed, is out of balance, comes twice, is missing, was replaced, or that no
 * event tells of is a fault. Example: a row changed by a cent → its number among what does not agree.
 */
export function journalVerifier(sha256: (text: string) => string) {
  const hashes = new Map<string, string>();
  return {
    /** The faults of one journal by itself. */
    next({ hash, ...journal }: ExportedJournal): JournalFault[] {
      const faults: JournalFault['what'][] = [];
      if (hashes.has(journal.number)) faults.push('repeated');
      if (hash !== sha256(journalText(journal))) faults.push('hash');
      if (balanceOf(journal) !== 0n) faults.push('balance');
      hashes.set(journal.number, hash);
      return faults.map((what) => ({ journal: journal.number, what, event: null }));
    },
    /** The faults between all journals seen and the events that are about one. */
    against(events: readonly AboutJournal[]): JournalFault[] {
      const told = new Set(events.map((e) => e.journal));
      const untold = [...hashes.keys()].filter((number) => !told.has(number));
      return [
        ...events.flatMap((e) => faultOf(e, hashes.get(e.journal))),
        ...untold.map((journal) => ({ journal, what: 'without event' as const, event: null })),
      ];
    },
  };
}

function faultOf({ journal, event, hash }: AboutJournal, found: string | undefined): JournalFault[] {
  if (found === undefined) return [{ journal, what: 'missing', event }];
  return found === hash ? [] : [{ journal, what: 'other', event }];
}

const balanceOf = ({ rows, currency }: Omit<ExportedJournal, 'hash'>): bigint =>
  rows.reduce((a, r) => a + toMinor(r.debit, currency) - toMinor(r.credit, currency), 0n);
