import type { Mapping } from '../../../../contract/statements.ts';
import { addDays } from '../../../../core/numbers/isoDate.ts';
import type { StatementEntry } from '../../../../core/evidence/statements/statement.types.ts';
import type { Table } from './csv.ts';

/** A day further ahead than this is a year that was mistyped: 2199 for 2019. */
const AHEAD_DAYS = 3660;
/** A column in which so much of what is filled looks like card numbers is one of them. */
const MOSTLY = 0.8;

/** A number of a card as statements write it: whole, or with its middle hidden. */
export const CARD_NUMBER = /^(?=.*(?:[xX*•…]|\.\.))[\dxX*•.… -]{4,30}\d{4}$|^\d{4}(?:[ -]?\d{4}){2}[ -]?\d{1,7}$/;
const CARD_HEADING = /card|karte|kort|carte|tarjeta|cart[aã]o|kaart|kártya/i;

/** Words of a status that say that nothing was booked (common practice; from memory). */
const NOT_BOOKED =
  /^(?:pending|processing|reserved|reservation|authori[sz](?:ed|ation)|on hold|hold|declined|rejected|cancell?ed|void(?:ed)?|failed|vorgemerkt|ausstehend|reserviert|abgelehnt|storniert|reservert|avvist|reserveret|afvist|reserverad|väntande|nekad|en attente|refusée?|pendiente|rechazad[oa]|pendente|recusad[oa]|in sospeso|rifiutat[oa]|gereserveerd|geweigerd|függőben|oczekując[ae]|保留中)$/i;

type Against = (cells: readonly string[], entry: StatementEntry) => string | null;

/** Why a row of a table is no charge of the card it is said to be of, or null: by columns that no field is read from. */
export function rowsAgainst(
  table: Table,
  mapping: Mapping,
  { digits, today }: { digits?: string; today?: string },
): Against {
  const used = new Set(Object.values(mapping).filter((at) => typeof at === 'number'));
  const free = table.columns.flatMap((_, at) => (used.has(at) ? [] : [at]));
  const cards = free.filter((at) => isOfCards(table, at));
  const latest = today ? addDays(today, AHEAD_DAYS) : null;
  return (cells, { bookedOn }) => {
    const other = digits
      ? cards.map((at) => endOf(cells[at])).find((end) => end && end !== digits.slice(-4))
      : undefined;
    if (other) return `it is of a card that ends in ${other}, not in ${digits!.slice(-4)}`;
    const status = free.map((at) => (cells[at] ?? '').trim()).find((cell) => NOT_BOOKED.test(cell));
    if (status) return `it is not booked: “${status}”`;
    return latest && bookedOn > latest ? `${bookedOn} has not come yet` : null;
  };
}

function isOfCards({ columns, rows }: Table, at: number): boolean {
  const filled = rows.map((r) => (r.cells[at] ?? '').trim()).filter(Boolean);
  const named = CARD_HEADING.test(columns[at]!);
  const alike = filled.filter((cell) => CARD_NUMBER.test(cell) || (named && /^\d{4}$/.test(cell)));
  return filled.length > 0 && alike.length >= filled.length * MOSTLY;
}

const endOf = (cell: string | undefined): string | undefined => /\d{4}$/.exec((cell ?? '').trim())?.[0];
