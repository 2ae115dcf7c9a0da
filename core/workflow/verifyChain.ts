import { CHAIN_START, eventText, type ChainedEvent } from './eventText.ts';

/** ebbet-event/2: one event of an exported history. */
export interface ExportedEvent extends ChainedEvent {
  format: 'ebbet-event/2';
  hash: string;
}
/** One thing wrong with a history: which event, and what. */
export interface ChainFault {
  record: string;
  seq: number;
  what: 'hash' | 'previous' | 'gap' | 'order';
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
