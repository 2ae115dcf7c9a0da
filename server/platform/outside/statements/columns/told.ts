import type { Mapping } from '../../../../../contract/statements.ts';
import { namedDate, possibleOrders, readLocalDate } from '../../../../../core/numbers/readLocalDate.ts';

/** What the cells of a column tell of how they are written. */
export interface Told {
  filled: number;
  /** The orders of day, month and year in which every cell is a date. */
  orders: Mapping['order'][];
  /** How many are a date in each order: one that is none in any says nothing. */
  dates: Record<Mapping['order'], number>;
  /** Every cell is a date with the name of its month. */
  named: boolean;
  /** The sign before the decimals, as far as the cells tell. */
  mark: Mapping['mark'] | null;
  /** No cell has a point or a comma: either may stand before the decimals. */
  bare: boolean;
  /** How many are written with a minus. */
  minus: number;
}
export function toldOf(cells: readonly string[]): Told {
  return {
    filled: cells.length,
    // a year of four digits that stands first is one in every order
    orders: cells.length > 0 && cells.every((c) => YEAR_FIRST.test(c)) ? isoOrders(cells) : possibleOrders(cells),
    dates: { dmy: datesIn(cells, 'dmy'), mdy: datesIn(cells, 'mdy'), ymd: datesIn(cells, 'ymd') },
    named: cells.length > 0 && cells.every((cell) => namedDate(cell) !== null),
    mark: markOf(cells),
    bare: cells.every((cell) => !/[.,]/.test(cell)),
    minus: cells.filter(hasMinus).length,
  };
}

/** Whether an amount is written with a minus, before or after it, or in brackets. */
export const hasMinus = (cell: string): boolean => /^\D{0,5}[-−(]|-\D{0,4}$/.test(cell);

const YEAR_FIRST = /^\d{4}[-./ ]?\d{2}/;
const isoOrders = (cells: readonly string[]): Mapping['order'][] =>
  possibleOrders(cells).filter((order) => order === 'ymd');

/** The sign before the decimals: one or two after it, or thousands that are grouped by the other twice or beside it. */
function markOf(cells: readonly string[]): Mapping['mark'] | null {
  const counting = (mark: string, other: string) =>
    cells.filter((cell) =>
      new RegExp(`\\${mark}\\d{1,2}\\D*$|\\${other}\\d{3}\\${mark}\\d|\\d\\${other}\\d{3}\\${other}\\d{3}\\D*$`).test(
        cell,
      ),
    ).length;
  const [commas, points] = [counting(',', '.'), counting('.', ',')];
  return commas === points ? null : commas > points ? ',' : '.';
}

const datesIn = (cells: readonly string[], order: Mapping['order']): number =>
  cells.filter((cell) => readLocalDate(cell, order) !== null).length;
