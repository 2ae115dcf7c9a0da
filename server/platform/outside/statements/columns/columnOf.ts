import { readLocalDate } from '../../../../../core/numbers/readLocalDate.ts';
import { minorUnits } from '../../../../../core/numbers/minorUnits.ts';
import { isBack, isSpent } from '../sideMarks.ts';
import { hasMinus, toldOf, type Told } from './told.ts';
import { CARD_NUMBER } from '../rowsAgainst.ts';
import { saidBy, type Said } from './headings.ts';
import type { Table } from '../csv.ts';

/** What the cells of a column are, whatever its heading says. */
export type Kind = 'nothing' | 'dates' | 'amounts' | 'currencies' | 'sides' | 'codes' | 'cards' | 'words';

/** A column as it is looked at: its cells by row (trimmed), what they are, and what its heading says that fits them. */
export interface Column {
  at: number;
  cells: string[];
  kind: Kind;
  said: Said | null;
  told: Told;
  /** The amounts of an `amounts` column by row, for comparing only; null where there is none. */
  figures: (number | null)[];
}

/** By how many of its rows it is told what a table holds. */
const TOLD_BY = 200;
/** Cells that are of another kind than the rest are faults of the file, as long as they are as few. */
const MOSTLY = 0.9;
const HALF = 0.5;

/** Headings under which even whole numbers are money. */
const MONEY: readonly Said[] = ['amount', 'debit', 'credit', 'originalAmount', 'balance'];

const FITS: Record<Kind, readonly Said[]> = {
  nothing: ['credit', 'debit', 'originalAmount', 'originalCurrency', 'beside', 'balance', 'about'],
  dates: ['date', 'purchased', 'valueDate'],
  amounts: [...MONEY, 'beside', 'about', 'reference', 'categoryCode'],
  currencies: ['currency', 'originalCurrency', 'originalAmount', 'amount', 'about'],
  sides: ['side', 'words', 'about', 'credit', 'debit'],
  cards: ['about'],
  codes: ['reference', 'categoryCode', 'about', 'merchant', 'words', 'side'],
  words: ['merchant', 'words', 'about', 'reference', 'side'],
};

export const columnsOf = ({ columns, rows }: Table): Column[] =>
  columns.map((heading, at) => {
    const cells = rows.slice(0, TOLD_BY).map((r) => (r.cells[at] ?? '').trim());
    const filled = cells.filter(Boolean);
    const told = toldOf(filled);
    const says = saidBy(heading);
    const kind = kindOf(filled, told, says);
    const said = says.find((s) => FITS[kind].includes(s)) ?? null;
    const figures = kind === 'amounts' ? cells.map((cell) => figureOf(cell, told.mark ?? '.')) : [];
    return { at, cells, kind, said, told, figures };
  });

/** How each column of a table is written. */
export const toldBy = (table: Table): Told[] => columnsOf(table).map(({ told }) => told);

/** What nine of ten cells are; or half of them, where the heading says so as well: the rest are faults, and are named as such. */
function kindOf(filled: readonly string[], told: Told, says: readonly Said[]): Kind {
  if (filled.length === 0) return 'nothing';
  const share = (isOne: (cell: string) => boolean) => filled.filter(isOne).length / filled.length;
  const days = told.named ? 1 : Math.max(...Object.values(told.dates)) / filled.length;
  const shares: [Kind, number][] = [
    ['dates', days],
    ['currencies', share(isCurrency)],
    ['sides', share((cell) => isSpent(cell) || isBack(cell))],
    ['cards', share((cell) => CARD_NUMBER.test(cell))],
    ['amounts', share(isAmount)],
  ];
  const [first] = says;
  if (isNumbers(filled) && !says.some((s) => MONEY.includes(s))) return 'codes';
  const found =
    shares.find(([, part]) => part >= MOSTLY)
    ?? shares.find(([kind, part]) => part >= HALF && FITS[kind].includes(first!));
  return found?.[0] ?? (share((cell) => /\d/.test(cell) && !/\p{L}{3}/u.test(cell)) >= MOSTLY ? 'codes' : 'words');
}

const isCurrency = (cell: string): boolean => /^[A-Za-z]{3}$/.test(cell) && minorUnits(cell.toUpperCase()) !== null;

/** An amount has figures, at most one sign, and at most the sign or code of a currency beside it. */
const AMOUNT =
  /^[-−+(]? ?(?:\p{L}{2,3}\.? ?|\p{Sc} ?)?[-−+]?(?:\d[\d.,'’ \u00a0\u202f]*|[.,]\d+)(?: ?(?:\p{L}{2,3}\.?|\p{Sc}|円))?[)-]?$/u;
const LIKE_A_DAY = /^\d{1,4}[./-]\d{1,2}[./-]\d{1,4}$/;
const isAmount = (cell: string): boolean =>
  AMOUNT.test(cell) && !/^0\d{2,}$/.test(cell) && !/^\d{9,}$/.test(cell) && !LIKE_A_DAY.test(cell);

/** Whole numbers of five digits or more, all as long and hardly one twice, are numbers of documents, not amounts. */
const isNumbers = (filled: readonly string[]): boolean =>
  filled.every((cell) => /^\d{5,}$/.test(cell) && cell.length === filled[0]!.length)
  && !filled.every((cell) => readLocalDate(cell, 'ymd') !== null)
  && new Set(filled).size >= filled.length * MOSTLY;

/** About what an amount comes to, to compare columns with each other; nothing is computed from it. */
function figureOf(cell: string, mark: '.' | ','): number | null {
  const digits = (mark === ',' ? cell.replace(/\./g, '').replace(',', '.') : cell.replace(/,/g, '')).replace(
    /[^\d.]/g,
    '',
  );
  if (digits === '') return null;
  return (hasMinus(cell) ? -1 : 1) * Number(digits);
}
