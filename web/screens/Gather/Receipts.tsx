import { useState } from 'react';
import { useParams } from 'react-router';
import { useReceipts, type ReceiptsView } from '../../api/gather.ts';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { ChosenReceipts } from './ChosenReceipts.tsx';
import { DropZone } from '../../parts/DropZone.tsx';
import { GoneReceipts } from './GoneReceipts.tsx';
import { ReceiptDetail } from './ReceiptDetail.tsx';
import { isChoosable } from './receiptRows.ts';
import { ReceiptLists } from './ReceiptLists.tsx';
import { useUploads } from '../../parts/useUploads.ts';

const ACCEPT = '.jpg,.jpeg,.png,.webp,.heic,.heif,.pdf,.eml,.xml,image/*,application/pdf,message/rfc822,text/xml';

/** Receipts as they come in: add them, look at what was read, confirm, put on a claim. */
export function Receipts() {
  const { id } = useParams();
  const { data, error, mutate } = useReceipts();
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  const open = data.receipts.find((r) => r.id === id) ?? null;
  const done = (answer: ReceiptsView) => void mutate(answer, false);
  return (
    <div className="grid min-h-0 flex-1 lg:grid-cols-[minmax(0,1fr)_minmax(0,30rem)]">
      <div className={`min-w-0 p-3 sm:p-4 ${open ? 'hidden lg:block' : ''}`}>
        <Gathered view={data} openId={id} onChanged={() => void mutate()} onDone={done} />
      </div>
      {open ? (
        <ReceiptDetail key={open.id} receipt={open} all={data.receipts} onDone={done} onReload={() => void mutate()} />
      ) : (
        <aside className="quiet hidden border-l border-base-300 bg-base-100 p-6 lg:block">
          Choose a receipt to look at it.
        </aside>
      )}
    </div>
  );
}

interface GatheredProps {
  view: ReceiptsView;
  openId: string | undefined;
  onChanged: () => void;
  onDone: (answer: ReceiptsView) => void;
}

/** Where files are added, the receipts that are there, and what is done with those that are chosen. */
function Gathered({ view, openId, onChanged, onDone }: GatheredProps) {
  const { uploads, add, dismiss } = useUploads(onChanged);
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const [gone, setGone] = useState(false);
  const chosen = view.receipts.filter((r) => picked.has(r.id) && isChoosable(r));
  return (
    <>
      <h1 className="sr-only">Receipts</h1>
      <DropZone
        uploads={uploads}
        onFiles={(files) => void add(files)}
        onDismiss={dismiss}
        accept={ACCEPT}
        hint="or drop or paste them here: pictures, PDFs, saved e-mails, e-invoices"
        camera
      />
      <ReceiptLists view={view} openId={openId} picked={picked} setPicked={setPicked} />
      <ChosenReceipts chosen={chosen} onDone={onDone} onChanged={onChanged} onClear={() => setPicked(new Set())} />
      <p className="mt-4">
        <button type="button" className="link text-sm" aria-expanded={gone} onClick={() => setGone(!gone)}>
          {gone ? 'Hide what was taken away' : 'Show what was taken away'}
        </button>
      </p>
      {gone && <GoneReceipts onDone={onDone} />}
    </>
  );
}
