import type { Claim, Item, Line } from '../../../core/documents/case.schema.ts';
import { toMinor } from '../../../core/numbers/amount.ts';
import { canonical } from '../../../core/numbers/canonical.ts';
import type { Db } from '../../platform/db/connect.ts';
import { sha256 } from '../../platform/history/sha256.ts';
import { deleteDeclined, insertDeclined, selectDeclined } from './declined.queries.ts';
import type { VersionKey } from './versionKey.ts';

/** The parts of a line of which amounts can be cut: its items, or the line itself; what is private is no cost. */
export const partsOf = (line: Line): (Line | Item)[] =>
  (line.items?.length ? line.items : [line]).filter((part) => !part.personal);

/** The whole of a part as a cut; null of one that comes to nothing. */
export const wholeCut = (part: Line | Item, currency: string, reason: string): NonNullable<Line['cut']> | null =>
  toMinor(part.amount, currency) === 0n ? null : { amount: part.amount, reason };

const fingerprint = (line: Line): string => sha256(canonical(line));

/** Takes what was declined of a version over to the next, whose lines are asked for as they are written: it holds until they change. */
export async function carryDeclined(trx: Db, from: VersionKey, written: () => Promise<readonly Line[]>): Promise<void> {
  const next = { claim_id: from.claim_id, version: from.version + 1 };
  const all = await selectDeclined(trx, from);
  const lines = all.length > 0 ? await written() : [];
  for (const declined of all) {
    const line = lines.find((l) => l.id === declined.line_id);
    if (line) await insertDeclined(trx, next, { ...declined, about: fingerprint(line) });
  }
}

/** Cuts what was declined in an earlier version of the lines that are still as they were then. */
export async function cutDeclined(db: Db, key: VersionKey, { lines }: Pick<Claim, 'lines'>): Promise<void> {
  for (const { line_id, about, reason } of await selectDeclined(db, key)) {
    const line = lines.find((l) => l.id === line_id);
    if (!line || about !== fingerprint(line)) continue;
    for (const part of partsOf(line)) {
      const cut = wholeCut(part, line.currency, reason);
      if (cut) part.cut = cut;
    }
  }
}

/** What was declined before of lines that are others now is asked anew. */
export async function dropChanged(trx: Db, key: VersionKey, { lines }: Pick<Claim, 'lines'>): Promise<void> {
  const holds = new Set(lines.flatMap((l) => (isCut(l) ? [l.id] : [])));
  const gone = (await selectDeclined(trx, key)).filter((d) => d.about !== null && !holds.has(d.line_id));
  if (gone.length > 0) await deleteDeclined(trx, key, ...gone.map((d) => d.line_id));
}

/** Whether something is cut of a line. */
export const isCut = (line: Line): boolean => Boolean(line.cut ?? line.items?.some((i) => i.cut));
