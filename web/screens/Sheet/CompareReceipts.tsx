import { useState } from 'react';
import type { ClaimView } from '../../api/claims.ts';
import { Dialog } from '../../parts/Dialog.tsx';
import { ReceiptViewer } from '../../parts/ReceiptViewer.tsx';
import { spotsOf } from '../../parts/spots.ts';

/** Two receipts of a claim side by side, each turned, enlarged and paged by itself. */
export function CompareReceipts({ view, line }: { view: ClaimView; line: string }) {
  const [open, setOpen] = useState(false);
  const here = view.receipts[line];
  const others = [...new Map(Object.entries(view.receipts).map(([id, receipt]) => [receipt.id, id])).values()].filter(
    (id) => view.receipts[id]!.id !== here?.id,
  );
  if (!here || others.length === 0) return null;
  return (
    <>
      <button type="button" className="link min-h-6" onClick={() => setOpen(true)}>
        Beside another receipt…
      </button>
      {open && (
        <Dialog title="Two receipts" onClose={() => setOpen(false)} wide>
          <div className="grid h-[74dvh] gap-3 sm:grid-cols-2">
            <OneReceipt view={view} lines={[line]} />
            <OneReceipt view={view} lines={others} />
          </div>
        </Dialog>
      )}
    </>
  );
}

function OneReceipt({ view, lines }: { view: ClaimView; lines: readonly string[] }) {
  const [line, setLine] = useState(lines[0]!);
  const receipt = view.receipts[line]!;
  const nameOf = (id: string) => {
    const { merchant, amount, currency } = view.document.claim.lines.find((l) => l.id === id)!;
    return `Line ${id}: ${merchant ?? ''} ${amount} ${currency}`;
  };
  return (
    <div className="flex min-h-0 flex-col">
      {lines.length > 1 ? (
        <select
          className="select select-sm mb-1 w-full"
          aria-label="The other receipt"
          value={line}
          onChange={(e) => setLine(e.target.value)}
        >
          {lines.map((id) => (
            <option key={id} value={id}>
              {nameOf(id)}
            </option>
          ))}
        </select>
      ) : (
        <p className="mb-1 py-1 font-medium">{nameOf(line)}</p>
      )}
      <ReceiptViewer
        key={receipt.id}
        id={receipt.id}
        pages={receipt.pages}
        marks={spotsOf(receipt.reading, 'amount')}
        label={`Receipt of line ${line}`}
      />
    </div>
  );
}
