import type { Assessment } from '../../../core/documents/assessment.schema.ts';
import type { Case } from '../../../core/documents/case.schema.ts';
import type { Finding } from '../../../core/documents/finding.ts';
import type { OwnBook, SharedBook } from '../../../core/documents/splitBook.ts';
import type { SpentEstimate } from '../../../core/evidence/comparisons/reviewCase.ts';
import { TIE_KINDS, type Evidence, type Tie, type TieKind } from '../../../core/evidence/comparisons/tie.types.ts';
import { sameValue } from '../../../core/numbers/sameValue.ts';
import type { Db } from '../../platform/db/connect.ts';
import type { VersionKey } from './versionKey.ts';

/** A case without the part of its book that is kept once by hash. */
export type StoredDocument = Omit<Case, 'book'> & { own: OwnBook };

/** What was computed of a claim's version, and everything it was computed from. */
export interface StoredAssessment {
  revision: number;
  assessed_at: Date;
  book_hash: string;
  document: StoredDocument;
  evidence: Evidence;
  result: Assessment;
  ties: Tie[];
  estimates: SpentEstimate[];
}

const COMPUTED = ['revision', 'assessed_at', 'book_hash', 'document', 'evidence', 'result', 'ties', 'estimates'];

/** What was last computed of a version. */
export async function selectAssessment(
  db: Db,
  { claim_id, version }: VersionKey,
): Promise<StoredAssessment | undefined> {
  const stored: StoredAssessment | undefined = await db('assessments').where({ claim_id, version }).first(COMPUTED);
  return stored && withWholeTies(stored);
}

/** Most comparisons of a long claim do not apply: they are not stored, and are there again when they are read. */
const withoutEmpty = (ties: readonly Tie[]): Tie[] => ties.filter((tie) => !sameValue(tie, empty(tie.line, tie.kind)));
const empty = (line: string, kind: TieKind): Tie => ({
  line,
  kind,
  state: 'none',
  difference: null,
  comparisons: [],
  steps: [],
});

function withWholeTies<Stored extends StoredAssessment>(stored: Stored): Stored {
  const there = new Map(stored.ties.map((tie) => [`${tie.line} ${tie.kind}`, tie]));
  const ties = stored.document.claim.lines.flatMap(({ id }) =>
    TIE_KINDS.map((kind) => there.get(`${id} ${kind}`) ?? empty(id, kind)),
  );
  return { ...stored, ties };
}

/** What no two writings of a row have alike: the transaction, and where in the table it put the row. */
const WRITING = `xmin::text || ' ' || ctid::text as writing`;

/** Which writing what is stored of a version is of. */
export const selectWriting = async (db: Db, { claim_id, version }: VersionKey): Promise<string | undefined> =>
  (await db('assessments').where({ claim_id, version }).first(db.raw(WRITING)))?.writing;

/** The same with the shared part of its book, which is by far the largest: for what is computed again. */
export async function selectWithBook(
  db: Db,
  key: VersionKey,
): Promise<(StoredAssessment & { book: SharedBook }) | undefined> {
  const stored: (StoredAssessment & { book: SharedBook }) | undefined = await db('assessments as a')
    .join('books as b', 'b.hash', 'a.book_hash')
    .where({ claim_id: key.claim_id, version: key.version })
    .first([...COMPUTED.map((column) => `a.${column}`), 'b.content as book']);
  return stored && withWholeTies(stored);
}

/**
 * Keeps what was computed, its findings, and what of the book, the budgets and the advances it was made from, so that the
 * claim is found when one of those changes. Which writing it is.
 */
export async function upsertAssessment(
  trx: Db,
  key: VersionKey,
  row: StoredAssessment,
  uses: readonly string[],
): Promise<string> {
  const { document, evidence, result, ties, estimates, ...rest } = row;
  const stored = {
    ...key,
    ...rest,
    document: JSON.stringify(document),
    evidence: JSON.stringify(evidence),
    result: JSON.stringify(result),
    ties: JSON.stringify(withoutEmpty(ties)),
    estimates: JSON.stringify(estimates),
  };
  const [{ writing }] = await trx('assessments')
    .insert(stored)
    .onConflict(['claim_id', 'version'])
    .merge()
    .returning(trx.raw(WRITING));
  await replaceFound(trx, key, result.findings, uses);
  return writing;
}

/** Findings as rows of their own, for reports by rule, of which those that say the same stay; and the uses. */
async function replaceFound(
  trx: Db,
  key: VersionKey,
  findings: readonly Finding[],
  uses: readonly string[],
): Promise<void> {
  const rows = findings.map(({ line, item, ...finding }, position) => ({
    ...finding,
    position,
    line_id: line,
    item_id: item,
  }));
  await trx.raw(
    `with fewer as (delete from findings where claim_id = :claim and version = :version and position >= :count),
       unused as (delete from assessment_uses where claim_id = :claim and key <> all(cast(:uses as text[]))),
       used as (insert into assessment_uses (claim_id, key)
         select cast(:claim as bigint), unnest(cast(:uses as text[])) on conflict do nothing)
     insert into findings (claim_id, version, position, code, severity, line_id, item_id, says, difference)
     select cast(:claim as bigint), cast(:version as integer), x.position, x.code, x.severity, x.line_id, x.item_id, x.says, x.difference
     from jsonb_populate_recordset(null::findings, cast(:rows as jsonb)) x
     on conflict (claim_id, version, position) do update set code = excluded.code, severity = excluded.severity, line_id = excluded.line_id,
       item_id = excluded.item_id, says = excluded.says, difference = excluded.difference
       where findings is distinct from excluded`,
    {
      ...{ claim: String(key.claim_id), version: key.version, count: rows.length },
      ...{ rows: JSON.stringify(rows), uses: [...new Set(uses)] as never },
    },
  );
}

/** Numbers of claims that were assessed by something, in order, after one. */
export function selectUsers(
  db: Db,
  key: string,
  after: string,
  limit: number,
): Promise<{ id: bigint; number: string }[]> {
  return db('assessment_uses as u')
    .join('claims as c', 'c.id', 'u.claim_id')
    .where('u.key', key)
    .whereRaw('c.id > ?', [after])
    .orderBy('c.id')
    .limit(limit)
    .select('c.id', 'c.number');
}
