import { ArrowLeft } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { Field } from '../../../core/evidence/reading/reading.types.ts';
import { gather, type GatheredReceipt, type ReceiptsView } from '../../api/gather.ts';
import { failed } from '../../parts/failed.ts';
import { ReceiptViewer } from '../../parts/ReceiptViewer.tsx';
import { spotsOf } from '../../parts/spots.ts';
import { toast } from '../../parts/toast.tsx';
import { ReceiptForm } from './ReceiptForm.tsx';

interface DetailProps {
  receipt: GatheredReceipt;
  onDone: (answer: ReceiptsView) => void;
  onReload: () => void;
}

/** One receipt: what is odd about it, what was read, the paper. */
export function ReceiptDetail({ receipt, onDone, onReload }: DetailProps) {
  const [focus, setFocus] = useState<Field | null>(null);
  const navigate = useNavigate();
  const remove = async () => {
    try {
      onDone(await gather.remove(receipt));
      void navigate('/gather/receipts');
      const undo = () => void gather.bringBack(receipt.id).then(onDone, failed);
      toast({ text: `${receipt.name} is taken away`, act: { label: 'Undo', run: undo } });
    } catch (error) {
      failed(error);
    }
  };
  return (
    <aside
      aria-label="Receipt"
      className="flex flex-col overflow-auto border-l border-base-300 bg-base-100 lg:sticky lg:top-0 lg:h-dvh lg:self-start"
    >
      <DetailHead receipt={receipt} onRemove={() => void remove()} />
      <Remarks receipt={receipt} />
      <Body receipt={receipt} onFocus={setFocus} onDone={onDone} onReload={onReload} />
      <ReceiptViewer
        id={receipt.id}
        pages={receipt.pages}
        label={receipt.name}
        marks={spotsOf(receipt.reading, focus)}
      />
    </aside>
  );
}

function DetailHead({ receipt, onRemove }: { receipt: GatheredReceipt; onRemove: () => void }) {
  return (
    <div className="flex items-center gap-2 px-4 pt-3">
      <Link to="/gather/receipts" className="lg:hidden" aria-label="Back to the receipts">
        <ArrowLeft size={18} />
      </Link>
      <h2 className="min-w-0 truncate font-semibold">
        <bdi>{receipt.name}</bdi>
      </h2>
      {receipt.usedOn.length === 0 && (
        <button type="button" className="btn btn-xs ml-auto" onClick={onRemove}>
          Take away
        </button>
      )}
    </div>
  );
}

interface BodyProps {
  receipt: GatheredReceipt;
  onFocus: (field: Field | null) => void;
  onDone: DetailProps['onDone'];
  onReload: () => void;
}

/** What was read, to be confirmed; or that it is still being read. */
function Body({ receipt, onFocus, onDone, onReload }: BodyProps) {
  return (
    <>
      {receipt.state === 'waiting' ? (
        <p className="p-4" role="status">
          It is being read. You can go on; nothing is lost when you leave.
        </p>
      ) : (
        <>
          {receipt.state === 'failed' && (
            <NotRead receipt={receipt} onAgain={() => void gather.readAgain(receipt).then(onDone, failed)} />
          )}
          <ReceiptForm
            receipt={receipt}
            onFocus={onFocus}
            onDone={(answer) => {
              onDone(answer);
              toast({ text: 'Confirmed' });
            }}
            onFail={(error) => {
              failed(error);
              onReload();
            }}
          />
        </>
      )}
    </>
  );
}

function NotRead({ receipt, onAgain }: { receipt: GatheredReceipt; onAgain: () => void }) {
  return (
    <p role="alert" className="px-4 pt-3 text-warning">
      It could not be read: {receipt.problem}. Type what it shows, or{' '}
      <button type="button" className="link" onClick={onAgain}>
        read it again
      </button>
      .
    </p>
  );
}

function Remarks({ receipt }: { receipt: GatheredReceipt }) {
  const alike = receipt.alike.map((a) => {
    const what = a.exact ? 'The same file' : 'A picture that looks almost the same';
    return a.own
      ? `${what} is among your receipts: ${a.name}.`
      : `${what} was added by somebody else on ${a.addedAt.slice(0, 10)}.`;
  });
  const all = [...alike, ...receipt.remarks];
  if (all.length === 0) return null;
  return (
    <ul className="mx-4 mt-2 border-l-4 border-error pl-3 text-sm">
      {all.map((text) => (
        <li key={text}>{text}</li>
      ))}
    </ul>
  );
}
