import type { GatheredReceipt } from '../../api/gather.ts';
import { Dialog } from '../../parts/Dialog.tsx';
import { Money } from '../../parts/Money.tsx';
import { ReceiptViewer } from '../../parts/ReceiptViewer.tsx';
import { spotsOf } from '../../parts/spots.ts';
import { titleOf } from './facts.ts';
import { amountOf, currencyOf, dateOf } from './receiptRows.ts';

/** Two receipts that look like one paper, side by side. */
export function CompareReceipts({ receipts, onClose }: { receipts: GatheredReceipt[]; onClose: () => void }) {
  return (
    <Dialog title="Are these the same paper?" onClose={onClose} wide>
      <div className="grid gap-4 md:grid-cols-2">
        {receipts.map((r) => (
          <section key={r.id} aria-label={r.name} className="flex min-w-0 flex-col">
            <p className="flex items-baseline gap-3">
              <bdi className="min-w-0 flex-1 truncate font-semibold">{titleOf(r)}</bdi>
              <Money amount={amountOf(r)} currency={currencyOf(r) ?? undefined} strong />
            </p>
            <p className="quiet mb-2 truncate text-sm">
              {dateOf(r) ?? 'no date'} · added {r.addedAt.slice(0, 10)}
              {r.usedOn[0] && ` · on claim ${r.usedOn[0].claim}`}
            </p>
            <div className="flex h-[60dvh]">
              <ReceiptViewer id={r.id} pages={r.pages} label={r.name} marks={spotsOf(r.reading, 'amount')} />
            </div>
          </section>
        ))}
      </div>
    </Dialog>
  );
}
