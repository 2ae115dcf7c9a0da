import type { Mapping } from '../../../../../contract/statements.ts';
import { isSpent } from '../sideMarks.ts';
import type { Column } from './columnOf.ts';
import type { Said } from './headings.ts';
import { hasMinus } from './told.ts';

type Amounts = Pick<
  Partial<Mapping>,
  'amount' | 'credit' | 'side' | 'currency' | 'originalAmount' | 'originalCurrency'
>;
const NO_ORIGINAL = { originalAmount: null, originalCurrency: null };

/** So many rows have to agree before two columns are said to belong together: the rest are faults of the file. */
const MOSTLY = 0.9;
const HALF = 0.5;
/** Of two columns of which one is filled, that of what was spent is filled far more often. */
const FAR_MORE = 0.7;

/** Which columns hold what was spent and came back, its mark, its currency, and what the merchant charged. */
export function amountsOf(columns: readonly Column[]): Amounts {
  const amounts = columns.filter((c) => c.kind === 'amounts' && !NOT_CHARGED.includes(c.said));
  const moved = amounts.filter((c) => !amounts.some((x) => x !== c && runsWith(c, x)));
  const original = moved.find((c) => c.said === 'originalAmount') ?? byCurrencies(columns, moved);
  const own = moved.filter((c) => c !== original);
  const apart = twoColumns(columns, own);
  const single = apart ? undefined : singleOf(own);
  return {
    ...(apart ?? { ...(single ? { amount: single.at } : {}), credit: null }),
    side: single ? sideOf(columns, single) : null,
    ...currenciesOf(columns, single, original),
  };
}
const NOT_CHARGED: readonly (Said | null)[] = ['balance', 'beside', 'about', 'reference', 'categoryCode'];

/** Whether the first is a balance that runs by the second: each row is the one before, or after, and what moved. */
function runsWith(balance: Column, moved: Column): boolean {
  const rows = balance.figures.flatMap((figure, i) =>
    figure === null || moved.figures[i] === null ? [] : [{ figure, moved: moved.figures[i]! }],
  );
  if (rows.length < 3) return false;
  const steps = rows.slice(1).map((row, i) => Math.abs(Math.abs(row.figure - rows[i]!.figure)));
  const same = (a: number, b: number) => Math.abs(a - Math.abs(b)) < 0.005;
  const down = steps.filter((step, i) => same(step, rows[i + 1]!.moved)).length;
  const up = steps.filter((step, i) => same(step, rows[i]!.moved)).length;
  return Math.max(down, up) >= steps.length * MOSTLY;
}

/** Two columns of amounts of which each row fills one: by what their headings say, else by which is filled far more often. */
function twoColumns(columns: readonly Column[], moved: readonly Column[]): Pick<Amounts, 'amount' | 'credit'> | null {
  const may = [...moved, ...columns.filter((c) => c.kind === 'nothing')];
  const credit = may.find((c) => c.said === 'credit');
  const debit = may.find((c) => c.said === 'debit') ?? moved.find((c) => c !== credit && c.said === 'amount');
  if (credit && debit && turns(debit, credit) >= HALF) return { amount: debit.at, credit: credit.at };
  for (const a of moved) {
    const b = moved.find((c) => c.at > a.at && turns(a, c) >= MOSTLY && turnsBothWays(a, c));
    if (b) return filledFarMore(a, b) ?? {};
  }
  return null;
}

function filledFarMore(a: Column, b: Column): Pick<Amounts, 'amount' | 'credit'> | null {
  const share = filledIn(a) / (filledIn(a) + filledIn(b));
  if (share >= FAR_MORE) return { amount: a.at, credit: b.at };
  return 1 - share >= FAR_MORE ? { amount: b.at, credit: a.at } : null;
}

const isSome = (figure: number | null | undefined): boolean => figure !== null && figure !== undefined && figure !== 0;
const filledIn = (c: Column): number => c.figures.filter(isSome).length;

/** In which part of the rows one of the two has an amount and the other none. */
function turns(a: Column, b: Column): number {
  const one = a.cells.filter((_, i) => isSome(a.figures[i]) !== isSome(b.figures[i]));
  return one.length / Math.max(a.cells.length, 1);
}

/** A fee is filled beside the amount, never instead of it. */
const turnsBothWays = (a: Column, b: Column): boolean =>
  a.cells.some((_, i) => isSome(a.figures[i]) && !isSome(b.figures[i]))
  && a.cells.some((_, i) => isSome(b.figures[i]) && !isSome(a.figures[i]));

/** The one column of what moved, by its heading or because there is no other; none where several may be it. */
function singleOf(moved: readonly Column[]): Column | undefined {
  const named = moved.filter((c) => c.said === 'amount' || c.said === 'debit');
  const may = named.length > 0 ? named : moved;
  return may.length === 1 ? may[0] : undefined;
}

/** Of two columns of amounts that no heading tells apart, the one that is filled where a foreign currency is, and nowhere else. */
function byCurrencies(columns: readonly Column[], moved: readonly Column[]): Column | undefined {
  const foreign = columns.filter((c) => c.kind === 'currencies' && c.cells.includes('') && c.told.filled > 0);
  const same = (a: Column) => foreign.some((c) => c.cells.every((cell, i) => (cell === '') === (a.cells[i] === '')));
  const may = moved.filter((c) => c.said !== 'credit' && c.said !== 'debit' && same(c));
  return moved.length > 1 && may.length === 1 ? may[0] : undefined;
}
const kindsIn = (c: Column): number => new Set(c.cells.filter(Boolean).map((cell) => cell.toUpperCase())).size;

/** The currencies of the amount and of what the merchant charged; one column of them beside an original amount tells that one's. */
function currenciesOf(
  columns: readonly Column[],
  amount: Column | undefined,
  original: Column | undefined,
): Pick<Amounts, 'currency' | 'originalAmount' | 'originalCurrency'> {
  const currencies = columns.filter((c) => c.kind === 'currencies' && c.said !== 'about');
  const foreign = original && foreignOf(currencies, original);
  const own = currencies.filter((c) => c !== foreign && c.said !== 'originalCurrency');
  const currency = own.find((c) => c.said === 'currency') ?? (own.length === 1 ? own[0] : undefined);
  if (!original || !foreign) return { currency: currency?.at ?? null, ...NO_ORIGINAL };
  const isOwn = foreign.said !== 'originalCurrency' && kindsIn(foreign) === 1;
  if (isOwn && amount && sameThroughout(amount, original)) return { currency: foreign.at, ...NO_ORIGINAL };
  return { currency: currency?.at ?? null, originalAmount: original.at, originalCurrency: foreign.at };
}

function foreignOf(currencies: readonly Column[], original: Column): Column | undefined {
  const named = currencies.find((c) => c.said === 'originalCurrency');
  if (named) return named;
  const changing = currencies.filter((c) => kindsIn(c) > 1);
  if (changing.length === 1) return changing[0];
  if (currencies.length === 1) return currencies[0];
  return [1, -1].map((step) => currencies.find((c) => c.at === original.at + step)).find(Boolean);
}
const sameThroughout = (a: Column, b: Column): boolean =>
  a.figures.every((figure, i) => {
    const other = b.figures[i] ?? null;
    return figure === null || other === null || Math.abs(figure) === Math.abs(other);
  });

/** A column of marks, unless the signs of the amounts say the same in each row: then they are enough. */
function sideOf(columns: readonly Column[], amount: Column): number | null {
  const sides = columns.filter((c) => c.kind === 'sides');
  const side = sides.find((c) => c.said === 'side') ?? sides[0];
  return !side || signsSay(amount, side) ? null : side.at;
}

function signsSay(amount: Column, side: Column): boolean {
  const rows = amount.cells.map((cell, i) => ({ minus: hasMinus(cell), spent: isSpent(side.cells[i]!) }));
  return rows.some((r) => r.minus) && new Set(rows.map((r) => r.minus === r.spent)).size === 1;
}
