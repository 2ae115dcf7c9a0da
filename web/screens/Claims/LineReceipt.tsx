import type { Line } from '../../../core/documents/case.schema.ts';
import type { MakerView } from '../../api/claims.ts';
import { ReceiptViewer } from '../../parts/ReceiptViewer.tsx';
import { spotsOf } from '../../parts/spots.ts';

/** The receipt of a line that has one, with the spot of its amount. */
export function LineReceipt({ view, line }: { view: MakerView; line: Line }) {
  const { id, pages, reading } = view.receipts[line.id]!;
  return (
    <ReceiptViewer id={id} pages={pages} marks={spotsOf(reading, 'amount')} label={`Receipt of line ${line.id}`} />
  );
}
