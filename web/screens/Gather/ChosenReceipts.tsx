import { useState } from 'react';
import { gather, type GatheredReceipt, type ReceiptsView } from '../../api/gather.ts';
import { failed } from '../../parts/failed.ts';
import { toast } from '../../parts/toast.tsx';
import { todayHere } from '../../parts/today.ts';
import { confirmationOf, isConfirmable, isReady, titleOf, typedOf } from './facts.ts';
import { TakePanel } from './TakePanel.tsx';

interface ChosenReceiptsProps {
  chosen: readonly GatheredReceipt[];
  onDone: (answer: ReceiptsView) => void;
  onChanged: () => void;
  onClear: () => void;
}

/** What can be done with the receipts that are chosen: confirm, put together, take away, put on a claim. */
export function ChosenReceipts({ chosen, onDone, onChanged, onClear }: ChosenReceiptsProps) {
  const [taking, setTaking] = useState(false);
  const { busy, run } = useMany(onDone, onChanged, onClear);
  if (chosen.length === 0) return null;
  const today = todayHere();
  const confirmable = chosen.filter((r) => isConfirmable(r, today));
  const free = chosen.filter((r) => r.usedOn.length === 0);
  const wishes = free.filter((r) => r.state !== 'waiting' || r.confirmed);
  const leave = () => {
    setTaking(false);
    onClear();
  };
  if (taking)
    return (
      <TakePanel
        wishes={wishes.map(wishOf)}
        onDone={() => {
          leave();
          onChanged();
        }}
        onClose={() => setTaking(false)}
      />
    );
  return (
    <section
      aria-label="What to do with the chosen receipts"
      className="sticky bottom-2 mt-3 flex flex-wrap items-center gap-2 rounded-box border border-base-300 bg-base-100 p-3 shadow-lg"
    >
      <span className="mr-auto font-semibold">
        {chosen.length} {chosen.length === 1 ? 'receipt' : 'receipts'} chosen
      </span>
      <button
        type="button"
        className="btn btn-primary btn-sm"
        disabled={busy || wishes.length === 0}
        onClick={() => setTaking(true)}
      >
        Put on a claim…
      </button>
      <button
        type="button"
        className="btn btn-sm"
        disabled={busy || confirmable.length === 0}
        title="Those that were read whole; look at the others one by one."
        onClick={() => void run(() => confirmAll(confirmable))}
      >
        Confirm {confirmable.length}
      </button>
      <button
        type="button"
        className="btn btn-sm"
        disabled={busy || chosen.length < 2}
        onClick={() => void run(() => putTogether(chosen, onDone))}
      >
        Put together as one
      </button>
      <button
        type="button"
        className="btn btn-sm"
        disabled={busy || free.length === 0}
        onClick={() => void run(() => takeAway(free, onDone))}
      >
        Take {free.length} away
      </button>
      <button type="button" className="btn btn-sm" onClick={leave}>
        Choose none
      </button>
    </section>
  );
}

/** Acts on many receipts one after the other; what was done before one failed stays done, and the list shows it. */
function useMany(onDone: (answer: ReceiptsView) => void, onChanged: () => void, onClear: () => void) {
  const [busy, setBusy] = useState(false);
  const run = async (act: () => Promise<ReceiptsView | null>): Promise<void> => {
    setBusy(true);
    try {
      const answer = await act();
      if (answer) onDone(answer);
      else onChanged();
      onClear();
    } catch (error) {
      failed(error);
      onChanged();
    }
    setBusy(false);
  };
  return { busy, run };
}

async function confirmAll(receipts: readonly GatheredReceipt[]): Promise<ReceiptsView | null> {
  let last: ReceiptsView | null = null;
  for (const r of receipts) last = await gather.confirm(r.id, confirmationOf(r, typedOf(r)));
  toast({ text: `${receipts.length} ${receipts.length === 1 ? 'receipt is' : 'receipts are'} confirmed` });
  return last;
}

async function takeAway(
  receipts: readonly GatheredReceipt[],
  onDone: (answer: ReceiptsView) => void,
): Promise<ReceiptsView | null> {
  let last: ReceiptsView | null = null;
  for (const r of receipts) last = await gather.remove(r);
  const back = async () => {
    for (const r of receipts) onDone(await gather.bringBack(r.id));
  };
  const what = receipts.length === 1 ? receipts[0]!.name : `${receipts.length} receipts`;
  toast({ text: `Taken away: ${what}`, act: { label: 'Undo', run: () => void back().catch(failed) } });
  return last;
}

async function putTogether(
  receipts: readonly GatheredReceipt[],
  onDone: (answer: ReceiptsView) => void,
): Promise<null> {
  await gather.combine(receipts);
  const apart = () => void gather.bringBack(receipts[0]!.id).then(onDone, failed);
  toast({ text: `${receipts.length} are one receipt now`, act: { label: 'Undo', run: apart } });
  return null;
}

const wishOf = (r: GatheredReceipt) => ({
  key: r.id,
  receipt: r.id,
  name: titleOf(r),
  category: null,
  ready: isReady(r),
});
