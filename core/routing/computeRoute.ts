import { referenceConverter } from '../figures/currency/converter.ts';
import { rateTable, type RateTable } from '../figures/currency/rateTable.ts';
import { fromMinor, toMinor } from '../numbers/amount.ts';
import { holdsOn } from '../numbers/isoDate.ts';
import { askedBy, type Asked } from './_lib/askedBy.ts';
import { staffOf, type Staff } from './_lib/seatOf.ts';
import type { RouteLevel } from './route.schema.ts';
import type { Need, Route, RouteBook, RoutedLevel, RoutedRecord, Skip } from './route.types.ts';

/** Where the book has no level for a kind of record, the usual approver decides. */
const USUAL: RouteLevel & { id: string } = {
  id: 'usual approver',
  name: 'Usual approver',
  of: ['claim', 'plan', 'advance'],
  place: 1,
  who: { is: 'approver', steps: 1 },
};

/**
 * Who must decide about a record, by the levels of the book on its day: in order of place, side by side within one. Nobody
 * decides on what is theirs or what they prepared; somebody who is away or has left is replaced by their substitute, else by
 * the next above them; somebody on two levels decides once; a level that asks nobody says why. An amount that cannot be
 * converted reaches every threshold. A level that is left without anybody passes to those after it; if there are none,
 * `unfilled` says whom to ask. Example: usual approver B; 2,000.00 EUR with a level above 1,000.00 EUR for B's own approver
 * C → B, then C.
 */
export function computeRoute(record: RoutedRecord, book: RouteBook): Route {
  const staff = staffOf(book, record);
  const rates = rateTable({ ...book, rates: [...book.rates] });
  const found = book.levels
    .filter((l) => concerns(l, record))
    .sort((a, b) => a.place - b.place || (a.id < b.id ? -1 : 1));
  const levels: RoutedLevel[] = [];
  for (const level of found.length > 0 ? found : [USUAL])
    levels.push(onceEach({ ...level, ...askedIfReached(level, record, book, { staff, rates }) }, levels));
  return { levels, unfilled: unfilledOf(levels, record, book) };
}

const concerns = (level: RouteBook['levels'][number], { kind, entity, on }: RoutedRecord): boolean =>
  level.of.includes(kind) && holdsOn(level, on) && (!level.entities || level.entities.includes(entity));

interface Means {
  staff: Staff;
  rates: RateTable;
}

function askedIfReached(level: RouteLevel, record: RoutedRecord, book: RouteBook, { staff, rates }: Means): Asked {
  const { categories } = level;
  if (categories && !record.categories.some((c) => categories.includes(c)))
    return { needs: [], skipped: [{ why: 'category' }] };
  if (level.who.is !== 'owner') {
    const below = belowLimit(level, record.total, record.on, rates);
    return below ? { needs: [], skipped: [below] } : askedBy(level, record, book, staff);
  }
  // an owner's threshold is about what is charged to their code
  const currency = record.ledgerCurrency;
  const { dimensions } = level.who;
  const judged = record.charged
    .filter((c) => dimensions.includes(c.dimension))
    .map((c) => ({ c, below: belowLimit(level, { amount: c.amount, currency }, record.on, rates) }));
  const reached = judged.filter((j) => !j.below).map((j) => j.c);
  const skipped = judged.flatMap((j) => (j.below ? [j.below] : []));
  if (reached.length === 0 && skipped.length > 0) return { needs: [], skipped };
  const asked = askedBy(level, { ...record, charged: reached }, book, staff);
  return { needs: asked.needs, skipped: [...skipped, ...asked.skipped] };
}

/** Why an amount does not reach the threshold of a level; null when it does, or when nobody can tell. */
function belowLimit(
  { above }: RouteLevel,
  { amount, currency }: RoutedRecord['total'],
  on: string,
  rates: RateTable,
): Skip | null {
  if (!above || amount === null) return null;
  const minor = toMinor(amount, currency);
  const size = minor < 0n ? -minor : minor;
  const inLimit = referenceConverter(rates, currency, above.currency, on).convert(size);
  if (inLimit === null || inLimit > toMinor(above.amount, above.currency)) return null;
  return { why: 'below', total: fromMinor(inLimit, above.currency), currency: above.currency, limit: above.amount };
}

/** A level without the decisions that somebody on an earlier one takes already. */
function onceEach(level: RoutedLevel & RouteLevel, before: readonly RoutedLevel[]): RoutedLevel {
  const { id, name, place } = level;
  const [needs, skipped]: [Need[], Skip[]] = [[], [...level.skipped]];
  for (const need of level.needs) {
    const earlier = before.find((l) =>
      l.needs.some((n) => n.people.length === 1 && need.people.includes(n.people[0]!)),
    );
    if (!earlier) {
      needs.push(need);
      continue;
    }
    const person = earlier.needs.find((n) => n.people.length === 1 && need.people.includes(n.people[0]!))!.people[0]!;
    skipped.push({ why: 'decides already', person, place: earlier.place, about: need.about, detours: need.detours });
  }
  return { id, name, place, needs, skipped };
}

/** A level that asks nobody and after which nobody decides; null when every such level passes to a later one. */
function unfilledOf(levels: readonly RoutedLevel[], { entity, claimant, preparer }: RoutedRecord, book: RouteBook) {
  const decides = levels.filter((l) => l.needs.length > 0 || l.skipped.some((s) => s.why === 'decides already'));
  const highest = Math.max(...decides.map((l) => l.place));
  const empty = levels.find((l) => l.place >= highest && l.skipped.some((s) => s.why === 'nobody'));
  if (!empty && decides.length > 0) return null;
  const ask = book.roles
    .filter((r) => r.role === 'administrator' && (r.entity === null || r.entity === entity))
    .map((r) => r.person)
    .filter((person) => person !== claimant && person !== preparer);
  return { level: (empty ?? levels.at(-1)!).name, ask: [...new Set(ask)].sort() };
}
