import { LoaderCircle } from 'lucide-react';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { useReceipts, type GatheredReceipt } from '../../api/gather.ts';
import { Money } from '../../parts/Money.tsx';
import { Empty, Loading, Trouble } from '../../parts/Notices.tsx';
import { DropZone } from './DropZone.tsx';
import { isReady, titleOf } from './facts.ts';
import { TakePanel } from './TakePanel.tsx';
import { ReceiptDetail } from './ReceiptDetail.tsx';
import { useUploads } from './useUploads.ts';

const ACCEPT = '.jpg,.jpeg,.png,.webp,.heic,.heif,.pdf,.eml,.xml,image/*,application/pdf,message/rfc822,text/xml';

/** Receipts as they come in: add them, look at what was read, confirm, put on a claim. */
export function Receipts() {
  const { id } = useParams();
  const { data, error, mutate } = useReceipts();
  if (error) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Loading shape="rows" />;
  const open = data.receipts.find((r) => r.id === id) ?? null;
  return (
    <div className="grid min-h-0 flex-1 lg:grid-cols-[minmax(0,1fr)_minmax(0,30rem)]">
      <div className={`p-3 sm:p-4 ${open ? 'hidden lg:block' : ''}`}>
        <Gathered receipts={data.receipts} openId={id} onChanged={() => void mutate()} />
      </div>
      {open ? (
        <ReceiptDetail
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

interface GatheredProps {
  receipts: readonly GatheredReceipt[];
  openId: string | undefined;
  onChanged: () => void;
}

/** Where files are added, the receipts that are there, and what is done with those that are chosen. */
function Gathered({ receipts, openId, onChanged }: GatheredProps) {
  const { uploads, add, dismiss } = useUploads(onChanged);
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const free = receipts.filter((r) => r.usedOn.length === 0);
  const chosen = free.filter((r) => picked.has(r.id));
  const pick = (one: string) =>
    setPicked(new Set(picked.has(one) ? [...picked].filter((p) => p !== one) : [...picked, one]));
  const taken = () => {
    setPicked(new Set());
    onChanged();
  };
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
      <Lists receipts={receipts} free={free} openId={openId} picked={picked} onPick={pick} />
      {chosen.length > 0 && (
        <TakePanel wishes={chosen.map(wishOf)} onDone={taken} onClose={() => setPicked(new Set())} />
      )}
    </>
  );
}

interface ListsProps extends Omit<ListProps, 'title'> {
  free: readonly GatheredReceipt[];
}

function Lists({ receipts, free, openId, picked, onPick }: ListsProps) {
  if (receipts.length === 0)
    return (
      <Empty title="No receipts yet">Add the receipts of your trip; each is read, and you confirm what it shows.</Empty>
    );
  const used = receipts.filter((r) => r.usedOn.length > 0);
  return (
    <>
      <List title="Not on a claim yet" receipts={free} openId={openId} picked={picked} onPick={onPick} />
      <List title="On claims" receipts={used} openId={openId} picked={null} onPick={onPick} />
    </>
  );
}

const wishOf = (r: GatheredReceipt) => ({
  key: r.id,
  receipt: r.id,
  name: titleOf(r),
  category: null,
  ready: isReady(r),
});

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
          <ListRow
            key={r.id}
            receipt={r}
            open={r.id === openId}
            picked={picked && picked.has(r.id)}
            onPick={() => onPick(r.id)}
          />
        ))}
      </ul>
    </section>
  );
}

interface ListRowProps {
  receipt: GatheredReceipt;
  open: boolean;
  picked: boolean | null;
  onPick: () => void;
}

function ListRow({ receipt: r, open, picked, onPick }: ListRowProps) {
  return (
    <li
      className={`flex items-center gap-2 border-b border-base-300 pl-3 last:border-b-0 ${open ? 'bg-base-200' : ''}`}
    >
      {picked !== null && (
        <input
          type="checkbox"
          className="checkbox checkbox-sm"
          aria-label={`Choose ${r.name}`}
          checked={picked}
          disabled={r.state === 'waiting'}
          onChange={onPick}
        />
      )}
      <ReceiptLink receipt={r} />
    </li>
  );
}

function ReceiptLink({ receipt: r }: { receipt: GatheredReceipt }) {
  return (
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
  );
}

function standingOf(r: GatheredReceipt): string {
  if (r.state === 'failed') return 'could not be read';
  if (r.confirmed) return 'confirmed';
  return isReady(r) ? 'read with certainty' : 'look and confirm';
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
  const state = standingOf(r);
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
