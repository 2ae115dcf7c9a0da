import { stringify } from 'csv-stringify/sync';
import type { ClaimInput } from '../../../contract/claims.ts';
import type { Line } from '../../../core/documents/case.schema.ts';
import { guardCell } from '../../platform/http/guardCell.ts';

/** A line with what its columns need besides itself. */
interface Written {
  line: Line;
  claimAmount: string | null;
  claimCurrency: string;
  receipt: boolean;
}
type Columns = Record<string, (of: Written) => string | null>;

/**
 * The columns of each fact of a line, in their order. Facts with none are told where they are: shares and their tax in the files
 * of splits and journals, what was cut in the view. A new fact is asked for here by the compiler.
 */
const COLUMNS_OF: { [Fact in keyof Line]-?: Columns } = {
  id: { line: ({ line }) => line.id },
  date: { date: ({ line }) => line.date },
  merchant: { merchant: ({ line }) => line.merchant ?? null },
  description: { description: ({ line }) => line.description ?? null },
  category: {
    category: ({ line }) => line.category ?? line.items?.map((i) => i.category).join(' + ') ?? null,
  },
  country: { country: ({ line }) => line.country ?? null },
  amount: { amount: ({ line }) => line.amount },
  currency: {
    currency: ({ line }) => line.currency,
    claimAmount: ({ claimAmount }) => claimAmount,
    claimCurrency: ({ claimCurrency }) => claimCurrency,
  },
  paidBy: { paidBy: ({ line }) => line.paidBy },
  card: { card: ({ line }) => line.card ?? null },
  personal: { private: ({ line }) => (line.personal ? 'yes' : 'no') },
  estimate: { estimate: ({ line }) => line.estimate ?? null },
  receipt: { receipt: ({ receipt }) => (receipt ? 'yes' : 'no') },
  quantity: { quantity: ({ line }) => line.quantity?.count ?? null },
  nights: { nights: ({ line }) => line.nights?.toString() ?? null },
  attendees: { attendees: ({ line }) => line.attendees?.count.toString() ?? null },
  fields: { fields: ({ line }) => Object.values(line.fields ?? {}).join('; ') || null },
  journey: {
    distance: ({ line }) => line.journey?.distance ?? null,
    unit: ({ line }) => line.journey?.unit ?? null,
  },
  stay: { days: ({ line }) => line.stay?.length.toString() ?? null },
  rebill: { chargedOnTo: ({ line }) => line.rebill?.to ?? null },
  rate: { ownRate: ({ line }) => (line.rate?.kind === 'own' ? line.rate.value : null) },
  coding: {},
  split: {},
  tax: {},
  items: {},
  cut: {},
};
const COLUMNS = Object.assign({}, ...Object.values(COLUMNS_OF)) as Columns;

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
    const written = {
      line,
      claimAmount: amounts[line.id] ?? null,
      claimCurrency: claim.currency,
      receipt: view.receipts[line.id] !== undefined,
    };
    const cells = Object.values(COLUMNS).map((cell) => cell(written));
    return [...cells, ...dimensions.map((d) => codes[d] ?? null)].map(guardCell);
  });
  return `\uFEFF${stringify([[...Object.keys(COLUMNS), ...dimensions], ...rows], { record_delimiter: 'windows' })}`;
}

function factsOf(view: ClaimInput) {
  if ('amounts' in view) return { claim: view.document, amounts: view.amounts };
  const amounts = view.assessment.lines.map((l) => [l.id, l.claimAmount] as const);
  return { claim: view.document.claim, amounts: Object.fromEntries(amounts) };
}
