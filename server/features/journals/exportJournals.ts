import { stringify } from 'csv-stringify/sync';
import { guardCell } from '../../platform/http/guardCell.ts';
import { writeLedgerRow } from '../../records/ledger/postJournal.ts';
import type { ExportRow } from './ledger.queries.ts';

const BEFORE = [
  'journal',
  'position',
  'date',
  'purpose',
  'entity',
  'source',
  'account',
  'debit',
  'credit',
  'ledgerCurrency',
  'amount',
  'currency',
];
const AFTER = ['line', 'item', 'share', 'taxCode', 'text'];

/** Journal rows as CSV for a spreadsheet (RFC 4180, with a mark that says UTF-8), a column for each dimension in use. */
export function writeJournalCsv(rows: readonly ExportRow[]): string {
  const dimensions = [...new Set(rows.flatMap((row) => Object.keys(row.coding)))].sort();
  const table = rows.map((row) => guarded(cellsOf(row, dimensions)));
  const columns = [...BEFORE, ...dimensions, ...AFTER];
  return `\uFEFF${stringify(table, { header: true, columns, record_delimiter: 'windows' })}`;
}

function cellsOf(row: ExportRow, dimensions: readonly string[]): Record<string, string | number | null> {
  const { journal, date, purpose, entity, source, ledger_currency: ledgerCurrency, share } = row;
  const { coding, ...cells } = writeLedgerRow(row, ledgerCurrency);
  const codes = Object.fromEntries(dimensions.map((d) => [d, coding[d] ?? '']));
  return { journal, date, purpose, entity, source, ledgerCurrency, share, ...cells, ...codes };
}

const guarded = (row: Record<string, string | number | null>) =>
  Object.fromEntries(Object.entries(row).map(([column, cell]) => [column, guardCell(cell)]));
