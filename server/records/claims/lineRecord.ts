import type { Line } from '../../../core/documents/case.schema.ts';
import { minorOf } from './minorOf.ts';
import type { LineRecord, LineRow } from './lines.queries.ts';

/**
 * The rows a line of a document is stored as: what finance and the claimant may change of it, with its parts. An amount
 * without the decimals of the line's currency is refused.
 */
export function lineRecord(line: Line) {
  const minor = (amount: string | null | undefined, path: string) =>
    amount == null ? null : minorOf(amount, line.currency, path);
  const partsOf = (part: Pick<Line, 'tax' | 'split'>, item_id: string | null) => ({
    taxEntries: (part.tax ?? []).map((t) => ({
      item_id,
      code: t.code,
      gross: minor(t.gross, 'tax'),
      tax: minor(t.tax, 'tax'),
    })),
    shares: (part.split?.shares ?? []).map((s) => ({ item_id, coding: s.coding, value: s.value ?? null })),
  });
  const all = [partsOf(line, null), ...(line.items ?? []).map((item) => partsOf(item, item.id))];
  return {
    line: {
      id: line.id,
      category: line.category ?? null,
      coding: line.coding ?? {},
      split_by: line.split?.by ?? null,
      split_unit: line.split?.unit ?? null,
      quantity: line.quantity ?? null,
      estimate: line.estimate ?? null,
      nights: line.nights ?? null,
      attendees: line.attendees ?? null,
      fields: line.fields ?? {},
      journey: line.journey ?? null,
      stay: line.stay ?? null,
      rebill: line.rebill ?? null,
    },
    items: (line.items ?? []).map((item) => ({
      id: item.id,
      category: item.category ?? null,
      amount: minor(item.amount, 'items')!,
      description: item.description ?? null,
      personal: item.personal ?? false,
      coding: item.coding ?? {},
      split_by: item.split?.by ?? null,
      split_unit: item.split?.unit ?? null,
      quantity: item.quantity ?? null,
    })),
    taxEntries: all.flatMap((p) => p.taxEntries),
    shares: all.flatMap((p) => p.shares),
  };
}

/** The columns of a line's own row that people write. */
export const columnsOf = (line: Line) => ({
  date: line.date,
  merchant: line.merchant ?? null,
  description: line.description ?? null,
  country: line.country ?? null,
  paid_by: line.paidBy,
  ...rateColumns(line),
  amount: minorOf(line.amount, line.currency, 'amount'),
});

/** From where the line's rate comes; what a card was settled with is the bank's and stays. */
const rateColumns = ({ rate }: Line) =>
  rate?.kind === 'card'
    ? {}
    : { rate_kind: rate?.kind ?? 'reference', rate_value: rate?.kind === 'own' ? rate.value : null };

/** The rows of a line that is not there yet. */
export function wholeRecord(line: Line): LineRecord {
  const record = lineRecord(line);
  const row: WholeRow = { ...record.line, ...columnsOf(line), currency: line.currency };
  return { ...record, line: row };
}

/** A line's own row without what is the bank's, the paper's or the table's: one that is added is missed here by the compiler. */
type NotWritten = 'position' | 'card' | 'personal' | 'settled_amount' | 'settled_currency' | 'receipt_id' | 'charge_id';
type WholeRow = Omit<LineRow, NotWritten | 'rate_kind' | 'rate_value'>
  & Partial<Pick<LineRow, 'rate_kind' | 'rate_value'>>;
