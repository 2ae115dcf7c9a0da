import { stringify } from 'csv-stringify/sync';
import type { ClaimInput } from '../../../contract/claims.ts';
import type { Line } from '../../../core/documents/case.schema.ts';
import { guardCell } from '../../platform/http/guardCell.ts';

const COLUMNS = [
  'line',
  'date',
  'merchant',
  'description',
  'category',
  'country',
  'amount',
  'currency',
  'claimAmount',
  'claimCurrency',
  'paidBy',
  'card',
  'private',
  'estimate',
  'receipt',
];

/**
 * The lines of a claim, as whoever looks at it sees them, as CSV for a spreadsheet (RFC 4180, with a mark that says UTF-8):
 * amounts with the decimals of their currency, a column for each dimension in use, what a line has of the claim's coding too.
 */
export function writeLinesCsv(view: ClaimInput): string {
  const { claim, amounts } = factsOf(view);
  const usual = claim.coding ?? {};
  const dimensions = [...new Set(claim.lines.flatMap((l) => Object.keys({ ...usual, ...l.coding })))].sort();
  const rows = claim.lines.map((line) => {
    const codes = line.personal ? {} : { ...usual, ...line.coding };
    const cells = cellsOf(line, amounts[line.id] ?? null, claim.currency, view.receipts[line.id] !== undefined);
    return [...cells, ...dimensions.map((d) => codes[d] ?? null)].map(guardCell);
  });
  return `\uFEFF${stringify([[...COLUMNS, ...dimensions], ...rows], { record_delimiter: 'windows' })}`;
}

function factsOf(view: ClaimInput) {
  if ('amounts' in view) return { claim: view.document, amounts: view.amounts };
  const amounts = view.assessment.lines.map((l) => [l.id, l.claimAmount] as const);
  return { claim: view.document.claim, amounts: Object.fromEntries(amounts) };
}

const cellsOf = (line: Line, claimAmount: string | null, claimCurrency: string, receipt: boolean) => [
  line.id,
  line.date,
  line.merchant ?? null,
  line.description ?? null,
  line.category ?? line.items?.map((i) => i.category).join(' + ') ?? null,
  line.country ?? null,
  line.amount,
  line.currency,
  claimAmount,
  claimCurrency,
  line.paidBy,
  line.card ?? null,
  line.personal ? 'yes' : 'no',
  line.estimate ?? null,
  receipt ? 'yes' : 'no',
];
