import type { LineCorrection } from '../../../contract/corrections.ts';
import type { Item, Line } from '../../../core/documents/case.schema.ts';
import { canonical } from '../../../core/numbers/canonical.ts';
import type { Actor, Context } from '../../platform/context.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { keptClaim, validCase } from '../../records/claims/assessClaim.ts';
import { assessKept } from '../../records/claims/assessKept.ts';
import { actAlone, type SeenClaim } from '../../records/claims/claimStore.ts';
import { selectDeclined } from '../../records/claims/declined.queries.ts';
import { replaceLine } from '../../records/claims/lines.queries.ts';
import { wholeRecord } from '../../records/claims/lineRecord.ts';

type Fields = Record<string, unknown>;
/** What one correction changes, before and after. */
type Changed = {
  line: string;
  item: string | null;
  from: Fields;
  to: Fields;
};

/**
 * Corrects lines or items as finance may: coding, split, tax, category, country, who paid, the source of the rate, and amounts
 * downwards with a reason (rule 31). The original stays in the submitted version and the history. All or none.
 */
export function correctLines(
  context: Context,
  actor: Actor,
  seen: SeenClaim,
  corrections: readonly LineCorrection[],
): Promise<void> {
  return actAlone(context, actor, 'correct', seen, async (trx, claim) => {
    const kept = await keptClaim(trx, claim.at);
    const declined = new Set((await selectDeclined(trx, claim.at)).map((d) => d.line_id));
    const cutAnew = corrections.find(({ line, set }) => set.cut !== undefined && declined.has(line));
    if (cutAnew) throw new Refused('line-declined', { line: cutAnew.line });
    const changes = corrections.flatMap((correction) => correctPart(kept.claim.lines, correction));
    if (changes.length === 0) return { result: undefined, unchanged: true };
    validCase(kept.document);
    const touched = new Set(changes.map((c) => c.line));
    for (const line of kept.claim.lines) if (touched.has(line.id)) await replaceLine(trx, claim.at, wholeRecord(line));
    const columns = await assessKept(context.clock, trx, claim, kept);
    const [first] = changes;
    const facts: Fields =
      changes.length === 1 ? withoutWords(first!) : { lines: [...touched], changes: changes.map(withoutWords) };
    const reason = changes.map((c) => (c.to.cut as Line['cut'])?.reason).find(Boolean);
    return { result: undefined, columns, facts, words: reason ? { reason } : null };
  });
}

/** Changes a part in place; what it came to, nothing when it says the same already. */
function correctPart(lines: readonly Line[], { line: id, item = null, set }: LineCorrection): Changed[] {
  const { line, part } = partOf(lines, id, item);
  if (set.paidBy && line.paidBy === 'card') throw new Refused('paid-by-card', { line: id });
  const now = part as Fields;
  const changed = Object.entries(set).filter(([field, value]) => differs(value, now[field]));
  if (changed.length === 0) return [];
  const from = Object.fromEntries(changed.map(([field]) => [field, now[field] ?? null]));
  const to = Object.fromEntries(changed);
  Object.assign(part, to);
  return [{ line: id, item, from, to }];
}

function partOf(lines: readonly Line[], lineId: string, item: string | null): { line: Line; part: Line | Item } {
  const line = lines.find((l) => l.id === lineId);
  const part = item === null ? line : line?.items?.find((i) => i.id === item);
  if (!line || !part) throw new Refused('not-found', { what: 'line' });
  return { line, part };
}

/** Whether a field is given and says something else than now; missing, null and empty say the same. */
function differs(value: unknown, now: unknown): boolean {
  const plain = (x: unknown) => canonical(x == null || (Array.isArray(x) && x.length === 0) ? null : x);
  return value !== undefined && plain(value) !== plain(now);
}

/** As facts of an event, which stay for ever: the reason of a cut may be personal and is kept with the words. */
const withoutWords = ({ from, to, ...where }: Changed): Changed => ({
  ...where,
  from: amountOf(from),
  to: amountOf(to),
});
const amountOf = ({ cut, ...fields }: Fields): Fields =>
  cut === undefined ? fields : { ...fields, cut: (cut as Line['cut'])?.amount ?? null };
