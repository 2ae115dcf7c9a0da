import { useState } from 'react';
import { gather, type GatheredReceipt, type ReceiptsView } from '../../api/gather.ts';
import { Dialog } from '../../parts/Dialog.tsx';
import { failed } from '../../parts/failed.ts';
import { toast } from '../../parts/toast.tsx';
import { partsOf } from './partsOf.ts';

interface DivideReceiptProps {
  receipt: GatheredReceipt;
  onClose: () => void;
  onDivided: () => void;
  onDone: (answer: ReceiptsView) => void;
}

/** The pages of a file with several receipts: the person says on which page another one begins. */
export function DivideReceipt({ receipt, onClose, onDivided, onDone }: DivideReceiptProps) {
  const [begins, setBegins] = useState<ReadonlySet<number>>(new Set([1]));
  const [busy, setBusy] = useState(false);
  const parts = partsOf(receipt.pages.length, begins);
  const toggle = (page: number) =>
    setBegins(new Set(begins.has(page) ? [...begins].filter((p) => p !== page) : [...begins, page]));
  const divide = async () => {
    setBusy(true);
    try {
      await gather.divide(receipt, parts);
      const undo = () => void gather.bringBack(receipt.id).then(onDone, failed);
      toast({ text: `${parts.length} receipts were made of it`, act: { label: 'Undo', run: undo } });
      onDivided();
    } catch (error) {
      failed(error);
      setBusy(false);
    }
  };
  return (
    <Dialog title="On which pages does another receipt begin?" onClose={onClose} wide>
      <ol className="grid grid-cols-2 gap-3 sm:grid-cols-3 lg:grid-cols-5">
        {receipt.pages.map((_, i) => (
          <li key={i}>
            <label
              className={`block rounded-box border-2 p-1 ${begins.has(i + 1) ? 'border-primary' : 'border-base-300'}`}
            >
              <img
                src={`/api/receipts/${receipt.id}/pages/${i + 1}`}
                alt={`Page ${i + 1}`}
                className="h-44 w-full bg-white object-contain object-top"
              />
              <span className="mt-1 flex items-center gap-2 text-sm">
                <input
                  type="checkbox"
                  className="checkbox checkbox-sm"
                  checked={begins.has(i + 1)}
                  disabled={i === 0}
                  onChange={() => toggle(i + 1)}
                />
                Page {i + 1} {i > 0 && 'begins one'}
              </span>
            </label>
          </li>
        ))}
      </ol>
      <div className="mt-4 flex items-center gap-3">
        <button
          type="button"
          className="btn btn-primary btn-sm"
          disabled={busy || parts.length < 2}
          onClick={() => void divide()}
        >
          {parts.length < 2 ? 'Divide' : `Make ${parts.length} receipts`}
        </button>
        <span className="quiet text-sm">The file itself is kept, and can be brought back.</span>
      </div>
    </Dialog>
  );
}
