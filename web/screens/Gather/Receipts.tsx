import { ArrowLeft, LoaderCircle } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { Field } from '../../../core/evidence/reading/reading.types.ts';
import { gather, useReceipts, type GatheredReceipt } from '../../api/gather.ts';
import { Money } from '../../parts/Money.tsx';
import { Empty, Loading, Trouble } from '../../parts/Notices.tsx';
import { ReceiptViewer } from '../../parts/ReceiptViewer.tsx';
import { spotsOf } from '../../parts/spots.ts';
import { toast } from '../../parts/toast.tsx';
import { DropZone } from './DropZone.tsx';
import { isReady, titleOf } from './facts.ts';
import { failed } from './failed.ts';
import { ReceiptForm } from './ReceiptForm.tsx';
import { TakePanel } from './TakePanel.tsx';
import { useUploads } from './useUploads.ts';

const ACCEPT = '.jpg,.jpeg,.png,.webp,.heic,.heif,.pdf,.eml,.xml,image/*,application/pdf,message/rfc822,text/xml';

/** Receipts as they come in: add them, look at what was read, confirm, put on a claim. */
export function Receipts() {
  const { id } = useParams();
  const { data, error, mutate } = useReceipts();
  const { uploads, add, dismiss } = useUploads(() => void mutate());
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  if (error) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Loading shape="rows" />;
  const free = data.receipts.filter((r) => r.usedOn.length === 0);
  const used = data.receipts.filter((r) => r.usedOn.length > 0);
  const open = data.receipts.find((r) => r.id === id) ?? null;
  const pick = (one: string) =>
    setPicked(new Set(picked.has(one) ? [...picked].filter((p) => p !== one) : [...picked, one]));
  const chosen = free.filter((r) => picked.has(r.id));
  return (
    <div className="grid min-h-0 flex-1 lg:grid-cols-[minmax(0,1fr)_minmax(0,30rem)]">
      <div className={`p-3 sm:p-4 ${open ? 'hidden lg:block' : ''}`}>
        <h1 className="sr-only">Receipts</h1>
        <DropZone
          uploads={uploads}
          onFiles={(files) => void add(files)}
          onDismiss={dismiss}
          accept={ACCEPT}
          hint="or drop or paste them here: pictures, PDFs, saved e-mails, e-invoices"
          camera
        />
        {data.receipts.length === 0 ? (
          <Empty title="No receipts yet">
            Add the receipts of your trip; each is read, and you confirm what it shows.
          </Empty>
        ) : (
          <>
            <List title="Not on a claim yet" receipts={free} openId={id} picked={picked} onPick={pick} />
            <List title="On claims" receipts={used} openId={id} picked={null} onPick={pick} />
          </>
        )}
        {chosen.length > 0 && (
          <TakePanel
            wishes={chosen.map((r) => ({
              key: r.id,
              receipt: r.id,
              name: titleOf(r),
              category: null,
              ready: isReady(r),
            }))}
            onDone={() => {
              setPicked(new Set());
              void mutate();
            }}
            onClose={() => setPicked(new Set())}
          />
        )}
      </div>
      {open ? (
        <Detail
          key={`${open.id} ${open.state} ${open.confirmed ? 'c' : ''}`}
          receipt={open}
          onDone={(answer) => void mutate(answer, false)}
          onReload={() => void mutate()}
        />
      ) : (
        <aside className="quiet hidden border-l border-base-300 bg-base-100 p-6 lg:block">
          Choose a receipt to look at it.
        </aside>
      )}
    </div>
  );
}

interface ListProps {
  title: string;
  receipts: readonly GatheredReceipt[];
  openId: string | undefined;
  picked: ReadonlySet<string> | null;
  onPick: (id: string) => void;
}

function List({ title, receipts, openId, picked, onPick }: ListProps) {
  if (receipts.length === 0) return null;
  return (
    <section className="mt-4">
      <h2 className="mb-1 font-semibold">
        {title} <span className="quiet font-normal">{receipts.length}</span>
      </h2>
      <ul className="rows rounded-box border border-base-300 bg-base-100">
        {receipts.map((r) => (
          <li
            key={r.id}
            className={`flex items-center gap-2 border-b border-base-300 pl-3 last:border-b-0 ${r.id === openId ? 'bg-base-200' : ''}`}
          >
            {picked && (
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                aria-label={`Choose ${r.name}`}
                checked={picked.has(r.id)}
                disabled={r.state === 'waiting'}
                onChange={() => onPick(r.id)}
              />
            )}
            <Link
              to={`/gather/receipts/${r.id}`}
              className="grid min-w-0 flex-1 grid-cols-[minmax(0,1fr)_auto] items-center gap-x-3 py-2 pr-3 hover:bg-base-200"
            >
              <span className="min-w-0">
                <bdi className="block truncate font-medium">{titleOf(r)}</bdi>
                <span className="quiet block truncate text-sm">
                  <Standing receipt={r} />
                </span>
              </span>
              <span className="text-right">
                <Money
                  amount={r.confirmed?.amount ?? r.reading?.amount?.value ?? null}
                  currency={r.confirmed?.currency ?? r.reading?.currency?.value}
                  strong
                />
                <span className="quiet block text-sm">{r.confirmed?.date ?? r.reading?.date?.value ?? ''}</span>
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Standing({ receipt: r }: { receipt: GatheredReceipt }) {
  if (r.state === 'waiting')
    return (
      <>
        <LoaderCircle size={13} className="inline animate-spin" /> being read · <bdi>{r.name}</bdi>
      </>
    );
  if (r.usedOn[0])
    return (
      <>
        claim {r.usedOn[0].claim}, line {r.usedOn[0].line}
      </>
    );
  const alike = r.alike[0];
  const twin = alike ? (alike.exact ? 'same file as another · ' : 'looks like another · ') : '';
  const state =
    r.state === 'failed'
      ? 'could not be read'
      : r.confirmed
        ? 'confirmed'
        : isReady(r)
          ? 'read with certainty'
          : 'look and confirm';
  return (
    <>
      {twin && <strong className="text-error">{twin}</strong>}
      <span className={state === 'look and confirm' || state === 'could not be read' ? 'text-warning' : ''}>
        {state}
      </span>{' '}
      · <bdi>{r.name}</bdi>
      {r.cameIn && <> in {r.cameIn}</>}
    </>
  );
}

interface DetailProps {
  receipt: GatheredReceipt;
  onDone: (answer: { receipts: GatheredReceipt[] }) => void;
  onReload: () => void;
}

function Detail({ receipt, onDone, onReload }: DetailProps) {
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
      <div className="flex items-center gap-2 px-4 pt-3">
        <Link to="/gather/receipts" className="lg:hidden" aria-label="Back to the receipts">
          <ArrowLeft size={18} />
        </Link>
        <h2 className="min-w-0 truncate font-semibold">
          <bdi>{receipt.name}</bdi>
        </h2>
        {receipt.usedOn.length === 0 && (
          <button type="button" className="btn btn-xs ml-auto" onClick={() => void remove()}>
            Take away
          </button>
        )}
      </div>
      <Remarks receipt={receipt} />
      {receipt.state === 'waiting' ? (
        <p className="p-4" role="status">
          It is being read. You can go on; nothing is lost when you leave.
        </p>
      ) : (
        <>
          {receipt.state === 'failed' && (
            <p role="alert" className="px-4 pt-3 text-warning">
              It could not be read: {receipt.problem}. Type what it shows, or{' '}
              <button
                type="button"
                className="link"
                onClick={() => void gather.readAgain(receipt).then(onDone, failed)}
              >
                read it again
              </button>
              .
            </p>
          )}
          <ReceiptForm
            receipt={receipt}
            onFocus={setFocus}
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
      <ReceiptViewer
        id={receipt.id}
        pages={receipt.pages}
        label={receipt.name}
        marks={spotsOf(receipt.reading, focus)}
      />
    </aside>
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
