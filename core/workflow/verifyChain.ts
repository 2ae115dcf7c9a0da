import type { ExportedWords } from '../documents/record.schema.ts';
import { canonical } from '../numbers/canonical.ts';
import { CHAIN_START, eventText, markedText, type ChainedEvent } from './eventText.ts';

/** ebbet-event/2: one event of an exported history. */
export interface ExportedEvent extends ChainedEvent {
  format: 'ebbet-event/2';
  hash: string;
  mark?: string | null | undefined;
}
/** One thing wrong with a history: which event, and what. */
export interface ChainFault {
  record: string;
  seq: number;
  what: 'hash' | 'previous' | 'gap' | 'order' | 'mark' | 'unmarked' | 'replayed' | 'words';
}
/** Where each record's chain ends: enough to show later that its tail was cut. */
export interface ChainSeal {
  record: string;
  seq: number;
  hash: string;
}

/**
 * Walks chains event by event, in the order they come; `sha256` gives the lower-case hex digest of a text. Example: an
 * event taken out of the middle → the one after it has the fault "gap".
 */
export function chainVerifier(sha256: (text: string) => string) {
  const ends = new Map<string, ChainSeal>();
  return {
    /** The faults of the next event, none when it continues its record's chain. */
    next(event: ExportedEvent): ChainFault[] {
      const record = `${event.recordKind} ${event.recordId}`;
      const before = ends.get(record);
      const faults: ChainFault['what'][] = [];
      if (event.seq <= (before?.seq ?? 0)) faults.push('order');
      else if (event.seq !== (before?.seq ?? 0) + 1) faults.push('gap');
      if (event.previousHash !== (before?.hash ?? CHAIN_START)) faults.push('previous');
      if (event.hash !== sha256(eventText(event))) faults.push('hash');
      ends.set(record, { record, seq: event.seq, hash: event.hash });
      return faults.map((what) => ({ record, seq: event.seq, what }));
    },
    seals: (): ChainSeal[] => [...ends.values()],
  };
}

/** Events that functions of the database write by themselves; they carry no mark. */
const UNMARKED = new Set(['signed in', 'letter written']);

/**
 * Checks the marks of events, by which the application says that it wrote them: one that does not fit, one that stands twice, and,
 * from the first marked event on, one that is missing are faults. `hmac` gives the lower-case hex HMAC-SHA-256 of a text by the
 * application's key. Example: an event added to the end of a chain by somebody with the database in hand → "unmarked".
 */
export function markVerifier(hmac: (text: string) => string) {
  const seen = new Set<string>();
  const without: { at: string; fault: ChainFault }[] = [];
  let first: string | null = null;
  return {
    next({ mark, ...event }: ExportedEvent): ChainFault[] {
      const record = `${event.recordKind} ${event.recordId}`;
      const fault = (what: ChainFault['what']): ChainFault => ({ record, seq: event.seq, what });
      if (!mark) {
        if (!UNMARKED.has(event.kind)) without.push({ at: event.at, fault: fault('unmarked') });
        return [];
      }
      if (first === null || event.at < first) first = event.at;
      const twice = seen.has(mark);
      seen.add(mark);
      return [...(mark === hmac(markedText(event)) ? [] : [fault('mark')]), ...(twice ? [fault('replayed')] : [])];
    },
    /** Events without a mark since there are marks. */
    missing: (): ChainFault[] => without.filter(({ at }) => first !== null && at >= first).map(({ fault }) => fault),
  };
}

/**
 * Checks words against the hashes they went into their events by. Example: a reason changed by a letter → "words". Words that were
 * removed are no fault.
 */
export function wordsVerifier(sha256: (text: string) => string) {
  const hashes = new Map<string, string | null>();
  const keyOf = (e: { recordKind: string; recordId: string; seq: number }) => `${e.recordKind} ${e.recordId} ${e.seq}`;
  return {
    event: (event: ExportedEvent): void => void hashes.set(keyOf(event), event.privateHash),
    next({ salt, words, ...of }: ExportedWords): ChainFault[] {
      const fits = hashes.get(keyOf(of)) === sha256(salt + canonical(words));
      return fits ? [] : [{ record: `${of.recordKind} ${of.recordId}`, seq: of.seq, what: 'words' }];
    },
  };
}
