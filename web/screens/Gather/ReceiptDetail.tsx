import { ArrowLeft } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { Field } from '../../../core/evidence/reading/reading.types.ts';
import { gather, type GatheredReceipt, type ReceiptsView } from '../../api/gather.ts';
import { failed } from '../../parts/failed.ts';
import { ReceiptViewer } from '../../parts/ReceiptViewer.tsx';
import { spotsOf } from '../../parts/spots.ts';
import { toast } from '../../parts/toast.tsx';
import { CompareReceipts } from './CompareReceipts.tsx';
import { DivideReceipt, isDivisible } from './DivideReceipt.tsx';
import { ReceiptForm } from './ReceiptForm.tsx';

interface DetailProps {
  receipt: GatheredReceipt;
  all: readonly GatheredReceipt[];
  onDone: (answer: ReceiptsView) => void;
  onReload: () => void;
}

/** One receipt: what is odd about it, what was read, the paper. */
export function ReceiptDetail({ receipt, all, onDone, onReload }: DetailProps) {
  const [focus, setFocus] = useState<Field | null>(null);
  const fail = (error: unknown) => {
    failed(error);
    onReload();
  };
  return (
    <aside
      aria-label="Receipt"
      className="flex flex-col overflow-auto border-l border-base-300 bg-base-100 lg:sticky lg:top-0 lg:h-dvh lg:self-start"
    >
      <DetailHead receipt={receipt} onDone={onDone} onReload={onReload} />
      <Remarks receipt={receipt} all={all} />
      <HowItWasRead receipt={receipt} onAgain={() => void gather.readAgain(receipt).then(onDone, failed)} />
      <ReceiptForm
        // what was saved is shown as it was saved
        key={JSON.stringify(receipt.confirmed)}
        receipt={receipt}
        onFocus={setFocus}
        onDone={(answer) => {
          onDone(answer);
          toast({ text: 'Confirmed' });
        }}
        onFail={fail}
      />
      <ReceiptViewer
        id={receipt.id}
        pages={receipt.pages}
        label={receipt.name}
        marks={spotsOf(receipt.reading, focus)}
        onTurn={(page, turns) => void gather.turn(receipt, page, turns).then(onDone, fail)}
      />
    </aside>
  );
}

function DetailHead({ receipt, onDone, onReload }: Omit<DetailProps, 'all'>) {
  const [dividing, setDividing] = useState(false);
  const navigate = useNavigate();
  const leave = () => void navigate('/gather/receipts');
  const remove = async () => {
    try {
      onDone(await gather.remove(receipt));
      leave();
      const undo = () => void gather.bringBack(receipt.id).then(onDone, failed);
      toast({ text: `${receipt.name} is taken away`, act: { label: 'Undo', run: undo } });
    } catch (error) {
      failed(error);
    }
  };
  const apart = () =>
    void gather.bringBack(receipt.madeFrom[0]!).then((answer) => {
      onDone(answer);
      leave();
    }, failed);
  const free = receipt.usedOn.length === 0;
  return (
    <div className="flex flex-wrap items-center gap-2 px-4 pt-3">
      <Link to="/gather/receipts" className="lg:hidden" aria-label="Back to the receipts">
        <ArrowLeft size={18} />
      </Link>
      <h2 className="min-w-0 flex-1 truncate font-semibold">
        <bdi>{receipt.name}</bdi>
      </h2>
      {free && receipt.madeFrom.length > 0 && (
        <button type="button" className="btn btn-xs" onClick={apart}>
          {receipt.madeFrom.length > 1 ? 'Take apart' : 'Make one again'}
        </button>
      )}
      {free && isDivisible(receipt) && (
        <button
          type="button"
          className={`btn btn-xs ${receipt.reading?.apart ? 'btn-primary' : ''}`}
          onClick={() => setDividing(true)}
        >
          Divide…
        </button>
      )}
      {free && (
        <button type="button" className="btn btn-xs" onClick={() => void remove()}>
          Take away
        </button>
      )}
      {dividing && (
        <DivideReceipt
          receipt={receipt}
          onClose={() => setDividing(false)}
          onDivided={() => {
            onReload();
            leave();
          }}
          onDone={onDone}
        />
      )}
    </div>
  );
}

/** That it is still being read, or could not be: the form can be filled in all the same. */
function HowItWasRead({ receipt, onAgain }: { receipt: GatheredReceipt; onAgain: () => void }) {
  if (receipt.state === 'waiting')
    return (
      <p className="quiet px-4 pt-3" role="status">
        It is being read. You can fill it in meanwhile, or go on; nothing is lost when you leave.
      </p>
    );
  if (receipt.state !== 'failed') return null;
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

const ALIKE = {
  file: 'The same file',
  picture: 'A picture that looks almost the same',
  figures: 'A receipt with the same amount, day and merchant',
} as const;

function Remarks({ receipt, all }: { receipt: GatheredReceipt; all: readonly GatheredReceipt[] }) {
  const [beside, setBeside] = useState<GatheredReceipt | null>(null);
  if (receipt.alike.length + receipt.remarks.length === 0) return null;
  return (
    <ul className="mx-4 mt-2 border-l-4 border-error pl-3 text-sm">
      {receipt.alike.map((a, i) => {
        const twin = all.find((r) => r.id === a.id);
        return (
          <li key={i}>
            {a.own ? (
              <>
                {ALIKE[a.how]} is among your receipts: <bdi>{a.name}</bdi>.{' '}
                {twin && (
                  <button type="button" className="link" onClick={() => setBeside(twin)}>
                    Look at both
                  </button>
                )}
              </>
            ) : (
              `${ALIKE[a.how]} was added by somebody else on ${a.addedAt.slice(0, 10)}.`
            )}
          </li>
        );
      })}
      {receipt.remarks.map((text) => (
        <li key={text}>{text}</li>
      ))}
      {beside && <CompareReceipts receipts={[receipt, beside]} onClose={() => setBeside(null)} />}
    </ul>
  );
}
