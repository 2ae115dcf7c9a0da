import { sameValue } from '../../core/numbers/sameValue.ts';
import type { Preview } from '../../core/evidence/comparisons/previewCase.ts';

type Reviewed = Extract<Preview, { ok: true }>;
/** What of a list is other than before: so many are taken out from a place on, and these put in. */
interface Change<T> {
  from: number;
  out: number;
  put: readonly T[];
}
/** The lists of a review that grow with its lines; the rest of it is small and crosses whole. */
interface Lists {
  lines: Reviewed['assessment']['lines'];
  journal: Reviewed['assessment']['journal'];
  ties: Reviewed['ties'];
}
type Changes = { [K in keyof Lists]: Change<Lists[K][number]> };

/** A preview as it crosses from the worker: a long claim would take a frame or two to copy whole. */
export type Patch = Extract<Preview, { ok: false }> | { ok: true; rest: Reviewed; changes: Changes };

/** What is other in a preview than in the one sent before; null sends all of it. */
export function toPatch(before: Reviewed | null, now: Preview): Patch {
  if (!now.ok) return now;
  const [old, lists] = [before ? listsOf(before) : EMPTY, listsOf(now)];
  const changes = {
    lines: changeOf(old.lines, lists.lines),
    journal: changeOf(old.journal, lists.journal),
    ties: changeOf(old.ties, lists.ties),
  };
  return { ok: true, rest: withLists(now, EMPTY), changes };
}

/** The preview again, from the one before it; what did not change are the same objects as before. */
export function fromPatch(before: Reviewed | null, patch: Patch): Preview {
  if (!patch.ok) return patch;
  const { changes } = patch;
  const old = before ? listsOf(before) : EMPTY;
  return withLists(patch.rest, {
    lines: changed(old.lines, changes.lines),
    journal: changed(old.journal, changes.journal),
    ties: changed(old.ties, changes.ties),
  });
}

const EMPTY: Lists = { lines: [], journal: [], ties: [] };
const listsOf = ({ assessment: { lines, journal }, ties }: Reviewed): Lists => ({ lines, journal, ties });
const withLists = (of: Reviewed, { lines, journal, ties }: Lists): Reviewed => ({
  ...of,
  assessment: { ...of.assessment, lines, journal },
  ties,
});

function changeOf<T>(before: readonly T[], now: readonly T[]): Change<T> {
  const most = Math.min(before.length, now.length);
  let from = 0;
  while (from < most && sameValue(before[from], now[from])) from += 1;
  let end = 0;
  while (end < most - from && sameValue(before.at(-1 - end), now.at(-1 - end))) end += 1;
  return { from, out: before.length - end - from, put: now.slice(from, now.length - end) };
}

/** The list as it is now; the same list where nothing of it changed. */
const changed = <T>(before: T[], { from, out, put }: Change<T>): T[] =>
  out === 0 && put.length === 0 ? before : before.toSpliced(from, out, ...put);
