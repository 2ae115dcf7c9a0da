import { LoaderCircle } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { GatheredReceipt, ReceiptsView } from '../../api/gather.ts';
import { Money } from '../../parts/Money.tsx';
import { Empty } from '../../parts/Notices.tsx';
import { VirtualRows } from '../../parts/VirtualRows.tsx';
import { titleOf } from './facts.ts';
import {
  amountOf,
  currencyOf,
  dateOf,
  found,
  ORDERS,
  isChoosable,
  sorted,
  standingOf,
  type Order,
} from './receiptRows.ts';

interface ReceiptListsProps {
  view: ReceiptsView;
  openId: string | undefined;
  picked: ReadonlySet<string>;
  setPicked: (picked: ReadonlySet<string>) => void;
}

/** The receipts that are on no claim yet and those that are, found by words, in the order that was chosen. */
export function ReceiptLists({ view: { receipts, more }, openId, picked, setPicked }: ReceiptListsProps) {
  const [words, setWords] = useState('');
  const [order, setOrder] = useState<Order>('added');
  if (receipts.length === 0)
    return (
      <Empty title="No receipts yet">Add the receipts of your trip; each is read, and you confirm what it shows.</Empty>
    );
  const shown = sorted(found(receipts, words), order);
  const free = shown.filter((r) => r.usedOn.length === 0);
  const used = shown.filter((r) => r.usedOn.length > 0);
  const list = { openId, picked, setPicked };
  return (
    <>
      <Tools words={words} setWords={setWords} order={order} setOrder={setOrder} />
      {shown.length === 0 && <p className="quiet mt-4">No receipt has all of these words.</p>}
      <List title="Not on a claim yet" receipts={free} {...list} />
      <List title="On claims" receipts={used} {...list} />
      {more > 0 && <p className="quiet mt-2 text-sm">{more} older receipts are not shown.</p>}
    </>
  );
}

interface ToolsProps {
  words: string;
  setWords: (words: string) => void;
  order: Order;
  setOrder: (order: Order) => void;
}

function Tools({ words, setWords, order, setOrder }: ToolsProps) {
  return (
    <div className="mt-3 flex flex-wrap items-center gap-2">
      <input
        type="search"
        className="input input-sm w-60"
        aria-label="Find receipts"
        placeholder="Merchant, amount, file, claim"
        value={words}
        onChange={(e) => setWords(e.target.value)}
      />
      <label className="flex items-center gap-2 text-sm">
        Order
        <select className="select select-sm w-auto" value={order} onChange={(e) => setOrder(e.target.value as Order)}>
          {Object.entries(ORDERS).map(([key, name]) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
      </label>
    </div>
  );
}

interface ListProps extends Omit<ReceiptListsProps, 'view'> {
  title: string;
  receipts: readonly GatheredReceipt[];
}

function List({ title, receipts, openId, picked, setPicked }: ListProps) {
  if (receipts.length === 0) return null;
  const choosable = receipts.filter(isChoosable);
  const all = choosable.length > 0 && choosable.every((r) => picked.has(r.id));
  const chooseAll = () => {
    const others = [...picked].filter((id) => !choosable.some((r) => r.id === id));
    setPicked(new Set(all ? others : [...others, ...choosable.map((r) => r.id)]));
  };
  const pick = (id: string) =>
    setPicked(new Set(picked.has(id) ? [...picked].filter((p) => p !== id) : [...picked, id]));
  return (
    <section className="mt-4">
      <h2 className="mb-1 flex items-center gap-3 font-semibold">
        <span>
          {title} <span className="quiet font-normal">{receipts.length}</span>
        </span>
        {choosable.length > 1 && (
          <label className="quiet ml-auto flex items-center gap-2 text-sm font-normal">
            <input type="checkbox" className="checkbox checkbox-sm" checked={all} onChange={chooseAll} />
            Choose all {choosable.length}
          </label>
        )}
      </h2>
      <Rows receipts={receipts} openId={openId} picked={picked} onPick={pick} label={title} />
    </section>
  );
}

interface RowsProps {
  receipts: readonly GatheredReceipt[];
  openId: string | undefined;
  picked: ReadonlySet<string>;
  onPick: (id: string) => void;
  label: string;
}
const ROW_HEIGHT = 58;

const Rows = ({ receipts, openId, picked, onPick, label }: RowsProps) => (
  <VirtualRows
    label={label}
    items={receipts}
    keyOf={(r) => r.id}
    height={ROW_HEIGHT}
    classOf={(r) => `flex items-center gap-2 pl-3 ${r.id === openId ? 'bg-base-200' : ''}`}
  >
    {(r) => (
      <>
        <input
          type="checkbox"
          className="checkbox checkbox-sm"
          aria-label={`Choose ${r.name}`}
          checked={picked.has(r.id)}
          disabled={!isChoosable(r)}
          onChange={() => onPick(r.id)}
        />
        <ReceiptLink receipt={r} />
      </>
    )}
  </VirtualRows>
);

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
        <Money amount={amountOf(r)} currency={currencyOf(r) ?? undefined} strong />
        <span className="quiet block text-sm">{dateOf(r) ?? ''}</span>
      </span>
    </Link>
  );
}

function Standing({ receipt: r }: { receipt: GatheredReceipt }) {
  if (r.state === 'waiting' && !r.confirmed)
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
  const state = standingOf(r);
  return (
    <>
      {r.alike[0] && <strong className="text-error">{ALIKE[r.alike[0].how]} · </strong>}
      <span className={state === 'look and confirm' || state === 'could not be read' ? 'text-warning' : ''}>
        {state}
      </span>{' '}
      · <bdi>{r.name}</bdi>
      {r.cameIn && <> in {r.cameIn}</>}
    </>
  );
}

const ALIKE = {
  file: 'same file as another',
  picture: 'looks like another',
  figures: 'shows the same as another',
} as const;
