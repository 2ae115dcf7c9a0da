import { proposeTaxes } from '../../../../core/evidence/matching/proposeTaxes.ts';
import type { TaxEntry } from '../../../../core/documents/case.schema.ts';
import type { LineRowProps } from './lineRow.types.ts';

type ProposedTaxesProps = Pick<LineRowProps, 'view' | 'line' | 'chart'> & { onTake: (tax: TaxEntry[]) => void };

/** Offers the taxes that the receipt of a line shows, where the book has codes for them. */
export function ProposedTaxes({ view, line, chart, onTake }: ProposedTaxesProps) {
  const { amount, currency, date, country = null } = line;
  const shown = view.receipts[line.id]?.taxes ?? [];
  const proposed = proposeTaxes(shown, chart?.taxCodes ?? [], { amount, currency, date, country });
  if (proposed.length === 0) return null;
  const said = proposed.map((t) => `${t.code} ${t.tax}`).join(', ');
  return (
    <button type="button" className="btn btn-xs" onClick={() => onTake(proposed)}>
      As on the receipt: {said}
    </button>
  );
}
