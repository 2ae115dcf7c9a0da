import { randomKey } from '../api/once.ts';
import { drop, keep, kept, keptNames } from './kept.ts';

/** An edit as it is kept: what to send, over what, and for which revision while nobody knows whether it came through. */
export interface KeptEdit {
  what: unknown;
  over?: string | null;
  sentFor: number | null;
}

const TAB = randomKey();
const lockOf = (tab: string): string => `ebbet tab ${tab}`;
// held as long as the tab is there: what a tab left behind is taken over by another one, and nothing of one that lives
if (typeof navigator !== 'undefined') void navigator.locks?.request(lockOf(TAB), () => new Promise(() => undefined));

const nameOf = (record: string, tab: string): string => `queue ${record} ${tab}`;

/** Keeps the edits of a record that wait in this tab. */
export function keepQueue(record: string, edits: readonly KeptEdit[]): void {
  if (edits.length > 0) keep(nameOf(record, TAB), edits);
  else drop(nameOf(record, TAB));
}

/**
 * Takes over the edits of a record that another tab leaves behind when it is closed or loaded again: now, or as soon as it is gone.
 * Until `signal` ends it.
 */
export function takeLeft(record: string, signal: AbortSignal, take: (edit: KeptEdit) => void): void {
  const start = nameOf(record, '');
  for (const name of keptNames(start)) {
    const tab = name.slice(start.length);
    if (tab === TAB) continue;
    const adopt = () => {
      const edits = kept<KeptEdit[]>(name) ?? [];
      drop(name);
      edits.forEach(take);
    };
    // a tab that is being loaded again holds its lock a moment longer
    if (navigator.locks) void navigator.locks.request(lockOf(tab), { signal }, adopt).catch(() => undefined);
    else adopt();
  }
}

const keysOf = (tab: string): string => `keys ${tab}`;
/** Keeps the keys of writes of this tab whose outcome is not known. */
export function keepOpen(keys: readonly [string, string][]): void {
  if (keys.length > 0) keep(keysOf(TAB), keys);
  else drop(keysOf(TAB));
}
/** Keys that tabs kept: whoever sends what another tab left behind sends it with its key. */
export const leftKeys = (): [string, string][] =>
  keptNames(keysOf('')).flatMap((name) => kept<[string, string][]>(name) ?? []);
