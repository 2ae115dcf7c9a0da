import type { Mapping } from '../../../../../contract/statements.ts';
import { readLocalDate } from '../../../../../core/numbers/readLocalDate.ts';
import type { Table } from '../csv.ts';
import { columnsOf, type Column } from './columnOf.ts';
import type { Said } from './headings.ts';
import { amountsOf } from './amountsOf.ts';
import { waysOf } from './ways.ts';

/** What was told of a table so far, with what it is told from. */
type Proposed = Partial<Mapping>;

/**
 * A mapping proposed from what the rows hold (days, amounts with their sign, two columns of which one is filled, a balance that
 * runs, currencies, marks), helped by what the headings say. What cannot be told is left for the person, never guessed.
 */
export function proposeMapping(table: Table): Proposed {
  const columns = columnsOf(table);
  const proposed: Proposed = {
    delimiter: table.delimiter,
    ...daysOf(columns),
    ...amountsOf(columns),
    ...wordsOf(columns),
  };
  const told = columns.map((column) => column.told);
  return { ...proposed, ...waysOf(told, proposed) };
}

const first = (columns: readonly Column[], said: Said): Column | undefined => columns.find((c) => c.said === said);

/** The day of booking and, where there is one, of the purchase; the day of value is neither, unless there is no other. */
function daysOf(all: readonly Column[]): Pick<Proposed, 'date' | 'purchased'> {
  const columns = all.filter((c) => c.kind === 'dates');
  const days = columns.filter((c) => c.said !== 'valueDate');
  const bought = first(days, 'purchased');
  const rest = days.filter((c) => c !== bought);
  const booked = first(rest, 'date') ?? rest[0];
  if (bought) return booked ? { date: booked.at, purchased: bought.at } : { date: bought.at, purchased: null };
  const other = rest.find((c) => c !== booked && c.said !== 'valueDate');
  if (!booked) return columns[0] ? { date: columns[0].at, purchased: null } : { purchased: null };
  if (!other) return { date: booked.at, purchased: null };
  const later = laterOf(booked, other);
  return later
    ? { date: later.at, purchased: (later === booked ? other : booked).at }
    : { date: booked.at, purchased: null };
}

/** Of two columns of days, the one that is never before the other and at least once after it: what is bought is booked later. */
function laterOf(a: Column, b: Column): Column | null {
  const order = a.told.orders.find((o) => b.told.orders.includes(o));
  if (!order) return null;
  const signs = a.cells.flatMap((cell, i) => {
    const [x, y] = [readLocalDate(cell, order), readLocalDate(b.cells[i]!, order)];
    return x && y && x !== y ? [x > y] : [];
  });
  return signs.length === 0 || signs.some((s) => s !== signs[0]) ? null : signs[0] ? a : b;
}

/** A column in which so many cells are their own is one of numbers, not of kinds. */
const MOSTLY_OWN = 0.9;
const ownShare = ({ cells }: Column): number => new Set(cells.filter(Boolean)).size / cells.filter(Boolean).length;

function wordsOf(columns: readonly Column[]): Pick<Proposed, 'merchant' | 'reference' | 'categoryCode'> {
  const words = columns.filter((c) => c.kind === 'words');
  const varied = (c: Column) => c.told.filled < 3 || new Set(c.cells).size > 1;
  const merchant =
    words.find((c) => c.said === 'merchant' && varied(c))
    ?? words.find((c) => c.said === 'words' && varied(c))
    ?? mostTelling(words.filter((c) => c.said === null))
    ?? words.find((c) => c.said === 'merchant' || c.said === 'words');
  const reference = columns.find(
    (c) => c !== merchant && c.said === 'reference' && c.told.filled > 0 && ownShare(c) >= MOSTLY_OWN,
  );
  const code = columns.find(
    (c) => c.said === 'categoryCode' && c.cells.every((cell) => cell === '' || /^\d{4}$/.test(cell)),
  );
  return {
    ...(merchant ? { merchant: merchant.at } : {}),
    reference: reference?.at ?? null,
    categoryCode: code?.at ?? null,
  };
}

/** Of columns whose headings say nothing: the one with the most different words; none where two are alike. */
function mostTelling(columns: readonly Column[]): Column | undefined {
  const letters = (c: Column) => c.cells.join('').replace(/\P{L}/gu, '').length / Math.max(c.told.filled, 1);
  const scored = columns
    .filter((c) => c.told.filled >= c.cells.length * 0.5 && letters(c) >= 4)
    .map((c) => ({ c, score: ownShare(c) * letters(c) }))
    .sort((a, b) => b.score - a.score);
  const [best, second] = scored;
  return best && (!second || best.score > second.score * 1.5) ? best.c : undefined;
}
