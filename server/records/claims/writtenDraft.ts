import { setImmediate } from 'node:timers/promises';
import { LRUCache } from 'lru-cache';
import type { Case, Line } from '../../../core/documents/case.schema.ts';
import { rememberCase, type RememberedCase } from '../../../core/evidence/comparisons/rememberCase.ts';
import type { Review } from '../../../core/evidence/comparisons/reviewCase.ts';
import type { Evidence } from '../../../core/evidence/comparisons/tie.types.ts';
import { sameValue } from '../../../core/numbers/sameValue.ts';
import type { Db } from '../../platform/db/connect.ts';
import { selectAssessment, selectWriting, type StoredAssessment } from './assessments.queries.ts';
import { selectDuplicates, type Alike } from './selectDuplicates.ts';
import type { VersionKey } from './versionKey.ts';

/** What a line is compared by with lines that may be the same spending. */
interface Compared {
  line: Line;
  receipt: unknown;
  charge: unknown;
}
/** What was found alike, of which lines, and when all of them were last looked for. */
interface Searched {
  of: Map<string, Compared>;
  found: Alike;
  at: number;
}
/**
 * A version somebody is writing, as this process last assessed it. Nothing depends on it but the time an edit takes: what is
 * remembered is compared with what the rows say now, and what is other is computed anew.
 */
export interface WrittenDraft {
  known: RememberedCase | null;
  searched: Searched | null;
  /** What was stored of it, and by which writing. */
  stored: { by: string; assessment: StoredAssessment } | null;
}

/** Lines of drafts that are remembered at once; some kilobytes each. */
const MOST_LINES = 20_000;
const memories = new WeakMap<Db, LRUCache<string, WrittenDraft>>();

const nameOf = ({ claim_id, version }: VersionKey): string => `${claim_id} ${version}`;

/** What is remembered of a version of this database. */
export function writtenDraft(db: Db, key: VersionKey): WrittenDraft {
  const drafts = memories.get(db) ?? new LRUCache({ maxSize: MOST_LINES });
  memories.set(db, drafts);
  const id = nameOf(key);
  const draft = drafts.get(id) ?? { known: null, searched: null, stored: null };
  drafts.set(id, draft, { size: 1 + (draft.searched?.of.size ?? 0) });
  return draft;
}

/** What was last computed of a version; where it was stored from here, and nothing since, it is not read again. */
export async function storedAssessment(db: Db, key: VersionKey): Promise<StoredAssessment | undefined> {
  const stored = memories.get(db)?.get(nameOf(key))?.stored;
  if (stored && stored.by === (await selectWriting(db, key))) return stored.assessment;
  return selectAssessment(db, key);
}

/** What reviews a case nobody remembers, refusing one that cannot be. */
type ReviewAnew = (document: Case, evidence: Evidence) => Promise<{ document: Case } & Review>;

/** The review of a draft: of the lines that are other than last time, or of all where more is other. */
export async function reviewDraft(
  draft: WrittenDraft,
  document: Case,
  evidence: Evidence,
  anew: ReviewAnew,
): Promise<{ document: Case } & Review> {
  const changed = draft.known?.changedIn(document) ?? null;
  if (changed) await computeInTurns(draft.known!);
  const again = changed && draft.known!.again(document, evidence, changed);
  if (again) return again;
  const review = await anew(document, evidence);
  draft.known = rememberCase(review.document, evidence);
  return review;
}

const MS_IN_A_TURN = 15;
/** Computes what is not computed yet of a long claim without keeping others waiting. */
async function computeInTurns(known: RememberedCase): Promise<void> {
  let since = performance.now();
  while (known.computeNext())
    if (performance.now() - since > MS_IN_A_TURN) {
      await setImmediate();
      since = performance.now();
    }
}

/**
 * What other people write meanwhile is found within this time where nothing of the draft's own lines tells to look; and before
 * it is handed in all is looked for.
 */
const MS_FOUND = 60_000;
/** With more lines that are other, one search of all costs less than searches of some. */
const MOST_APART = 20;

/** What is alike of a draft's lines: looked for where a line is other than last time, and where it was, or is, alike to such a line. */
export async function alikeOfDraft(
  trx: Db,
  { draft, key, number }: { draft: WrittenDraft; key: VersionKey; number: string },
  lines: readonly Line[],
  { receipts, charges }: Pick<Evidence, 'receipts' | 'charges'>,
): Promise<Alike> {
  const of = new Map(lines.map((line) => [line.id, { line, receipt: receipts[line.id], charge: charges[line.id] }]));
  const { searched } = draft;
  const ask = searched && performance.now() - searched.at < MS_FOUND ? toAsk(searched, of, number) : null;
  if (searched === null || ask === null || ask.length > MOST_APART) {
    const found = await selectDuplicates(trx, key);
    draft.searched = { of, found, at: performance.now() };
    return found;
  }
  let found = await searchAgain(trx, key, searched.found, ask);
  found = await searchAgain(trx, key, found, alikeTo(found, number, ask));
  draft.searched = { of, found, at: searched.at };
  return found;
}

/** Lines that are other than they were, those such a line was alike to, and those of which more is alike than was looked at. */
function toAsk({ of, found }: Searched, now: Searched['of'], number: string): string[] {
  const ids = new Set([...of.keys(), ...now.keys()]);
  const other = [...ids].filter((id) => !sameValue(of.get(id), now.get(id)));
  if (other.length === 0) return [];
  const beside = Object.keys(found.duplicates).filter((id) =>
    found.duplicates[id]!.some((d) => d.claim === number && other.includes(d.line)),
  );
  return [...new Set([...other, ...beside, ...(found.duplicatesCut ?? [])])];
}

/** The claim's own lines that are alike to some of its lines, without these. */
const alikeTo = ({ duplicates }: Alike, number: string, lines: readonly string[]): string[] => {
  const named = lines.flatMap((id) => duplicates[id] ?? []).filter((d) => d.claim === number);
  return [...new Set(named.map((d) => d.line))].filter((line) => !lines.includes(line));
};

/** What was found, with some lines looked for again. */
async function searchAgain(trx: Db, key: VersionKey, before: Alike, lines: readonly string[]): Promise<Alike> {
  if (lines.length === 0) return before;
  const asked = new Set(lines);
  const { duplicates, duplicatesCut = [] } = await selectDuplicates(trx, key, lines);
  const rest = Object.entries(before.duplicates).filter(([id]) => !asked.has(id));
  const cut = [...(before.duplicatesCut ?? []).filter((id) => !asked.has(id)), ...duplicatesCut].sort();
  return {
    duplicates: { ...Object.fromEntries(rest), ...duplicates },
    ...(cut.length > 0 ? { duplicatesCut: cut } : {}),
  };
}
