import { useState } from 'react';
import type { Box } from '../../../core/evidence/reading/reading.types.ts';
import { gather, type Division, type GatheredReceipt, type ReceiptsView } from '../../api/gather.ts';
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

/** What can be divided: a PDF of several pages, or a picture on which several papers were seen. */
export const isDivisible = ({ kind, pages, reading }: GatheredReceipt): boolean =>
  kind === 'pdf' ? pages.length > 1 : kind === 'picture' && placesOf(reading).length > 1;

export const DivideReceipt = (props: DivideReceiptProps) =>
  props.receipt.kind === 'picture' ? <ByPlaces {...props} /> : <ByPages {...props} />;

/** Divides, and offers to make it one again. */
function useDivide({ receipt, onDivided, onDone }: DivideReceiptProps) {
  const [busy, setBusy] = useState(false);
  const divide = async (division: Division, into: number) => {
    setBusy(true);
    try {
      await gather.divide(receipt, division);
      const undo = () => void gather.bringBack(receipt.id).then(onDone, failed);
      toast({ text: `${into} receipts were made of it`, act: { label: 'Undo', run: undo } });
      onDivided();
    } catch (error) {
      failed(error);
      setBusy(false);
    }
  };
  return { busy, divide };
}

/** Where the reader saw papers; those that are not one are left out by the person, and are on none of the new receipts. */
function ByPlaces(props: DivideReceiptProps) {
  const { receipt, onClose } = props;
  const { busy, divide } = useDivide(props);
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const places = placesOf(receipt.reading);
  const chosen = places.filter((_, i) => !left.has(i));
  const toggle = (i: number) =>
    setLeft(left.has(i) ? new Set([...left].filter((x) => x !== i)) : new Set([...left, i]));
  return (
    <Dialog title="Is each of these a receipt of its own?" onClose={onClose} wide>
      <ol className={`grid grid-cols-2 gap-3 ${places.length > 2 ? 'lg:grid-cols-3' : ''}`}>
        {places.map((place, i) => (
          <li key={i}>
            <label className={`block rounded-box border-2 p-1 ${left.has(i) ? 'border-base-300' : 'border-primary'}`}>
              <Cutting receipt={receipt} place={place} label={`Paper ${i + 1}`} />
              <span className="mt-1 flex items-center gap-2 text-sm">
                <input
                  type="checkbox"
                  className="checkbox checkbox-sm"
                  checked={!left.has(i)}
                  onChange={() => toggle(i)}
                />
                Paper {i + 1}
              </span>
            </label>
          </li>
        ))}
      </ol>
      <Divide
        into={chosen.length}
        busy={busy}
        onDivide={() => void divide({ by: 'places', places: chosen }, chosen.length)}
      />
    </Dialog>
  );
}

/** A part of the picture as it stands upright. */
function Cutting({ receipt, place, label }: { receipt: GatheredReceipt; place: Box; label: string }) {
  const { width, height, turns } = receipt.pages[0]!;
  const view = [place.x * width, place.y * height, place.width * width, place.height * height].join(' ');
  return (
    <svg
      viewBox={view}
      role="img"
      aria-label={label}
      className="h-80 w-full bg-white"
      style={{ transform: `rotate(${turns * 90}deg)` }}
    >
      <image href={`/api/receipts/${receipt.id}/pages/1`} width={width} height={height} />
    </svg>
  );
}

const placesOf = (reading: GatheredReceipt['reading']): Box[] => (reading?.apart ?? []).map(({ box }) => box);

function Divide({ into, busy, onDivide }: { into: number; busy: boolean; onDivide: () => void }) {
  return (
    <div className="mt-4 flex items-center gap-3">
      <button type="button" className="btn btn-primary btn-sm" disabled={busy || into < 2} onClick={onDivide}>
        {into < 2 ? 'Divide' : `Make ${into} receipts`}
      </button>
      <span className="quiet text-sm">The file itself is kept, and can be brought back.</span>
    </div>
  );
}

/** The pages of a file with several receipts: the person says on which page another one begins. */
function ByPages(props: DivideReceiptProps) {
  const { receipt, onClose } = props;
  const { busy, divide } = useDivide(props);
  const [begins, setBegins] = useState<ReadonlySet<number>>(new Set([1]));
  const parts = partsOf(receipt.pages.length, begins);
  const toggle = (page: number) =>
    setBegins(new Set(begins.has(page) ? [...begins].filter((p) => p !== page) : [...begins, page]));
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
      <Divide into={parts.length} busy={busy} onDivide={() => void divide({ by: 'pages', parts }, parts.length)} />
    </Dialog>
  );
}
