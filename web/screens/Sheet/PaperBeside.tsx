import { leftOnReceipt, paperParts } from '../../../core/evidence/comparisons/paperParts.ts';
import type { Tie, TieKind } from '../../../core/evidence/comparisons/tie.types.ts';
import type { ClaimView } from '../../api/claims.ts';
import { ReceiptViewer } from '../../parts/ReceiptViewer.tsx';
import { partSpots, spotsOf, type Looked } from '../../parts/spots.ts';
import { groupDigits } from '../../../core/numbers/groupDigits.ts';
import { CompareReceipts } from './CompareReceipts.tsx';
import type { Cell } from './cells.ts';

/** Which figure of the receipt a comparison is about. */
const FOCUS: Record<TieKind, Looked> = {
  receipt: 'amount',
  tax: 'taxes',
  rate: 'currency',
  duplicate: 'merchant',
  card: 'amount',
  plan: 'amount',
  limit: 'amount',
  coding: 'amount',
  budget: 'amount',
};

/** Where on the paper the facts of a receipt stand. */
const FACTS: Record<string, Looked> = {
  currency: 'currency',
  date: 'date',
  merchant: 'merchant',
  'tax number': 'taxNumber',
  'proof of payment': 'paid',
};

/** What is looked at of a comparison: of a receipt the first fact that is not tied, and its amount where all are. */
function lookedAt({ kind }: Cell, tie: Tie | undefined): Looked {
  const loose = tie?.comparisons.find((c) => c.state === 'off') ?? tie?.comparisons.find((c) => c.state === 'open');
  return (kind === 'receipt' && loose && FACTS[loose.fact]) || FOCUS[kind];
}

interface PaperBesideProps {
  view: ClaimView;
  cell: Cell;
  tie: Tie | undefined;
  onCell: (cell: Cell) => void;
}

/** The receipt of the line in focus: where its figures were read, and which rows are on other lines or on none. */
export function PaperBeside({ view, cell, tie, onCell }: PaperBesideProps) {
  const { id, pages, reading } = view.receipts[cell.line]!;
  const evidence = view.evidence.receipts[cell.line];
  const lines = view.document.claim.lines.filter((l) => view.receipts[l.id]?.id === id);
  const currency = evidence?.currency ?? null;
  const left = evidence ? leftOnReceipt(evidence, lines) : null;
  const parts = currency === null ? [] : paperParts(reading?.bought ?? [], lines, currency);
  const rows = partSpots(parts, cell.line, left);
  return (
    <div className="flex min-h-80 flex-1 flex-col lg:min-h-0">
      {evidence?.amount && currency && (
        <div className="quiet flex flex-wrap gap-x-3 border-t border-base-300 px-4 py-1 text-sm">
          <span>
            Receipt over {groupDigits(evidence.amount)} {currency}, on{' '}
            <OnLines lines={lines.map((l) => l.id)} onCell={onCell} />
            {left && `; ${sayLeft(left)} ${currency}`}
          </span>
          {rows.length > 0 && <PartsKey />}
          <CompareReceipts view={view} line={cell.line} />
        </div>
      )}
      <ReceiptViewer
        id={id}
        pages={pages}
        marks={[...spotsOf(reading, lookedAt(cell, tie)), ...rows]}
        label={`Receipt of line ${cell.line}`}
      />
    </div>
  );
}

const sayLeft = (left: string): string =>
  left.startsWith('-') ? `claimed beyond it: ${groupDigits(left.slice(1))}` : `on no line: ${groupDigits(left)}`;

function OnLines({ lines, onCell }: { lines: string[]; onCell: (cell: Cell) => void }) {
  if (lines.length === 1) return 'this line alone';
  return (
    <>
      lines{' '}
      {lines.map((line) => (
        <button key={line} type="button" className="link mr-1" onClick={() => onCell({ line, kind: 'receipt' })}>
          {line}
        </button>
      ))}
    </>
  );
}

/** What the frames around rows mean. */
function PartsKey() {
  return (
    <span className="flex gap-3">
      {[
        ['own', 'this line'],
        ['other', 'other lines'],
        ['none', 'no line'],
      ].map(([part, name]) => (
        <span key={part} className="flex items-center gap-1">
          <svg width="18" height="12" aria-hidden>
            <rect x="2" y="2" width="14" height="8" className={`spot spot-${part}`} />
          </svg>
          {name}
        </span>
      ))}
    </span>
  );
}
