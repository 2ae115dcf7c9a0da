import { gather, useGoneReceipts, type GatheredReceipt, type ReceiptsView } from '../../api/gather.ts';
import { failed } from '../../parts/failed.ts';
import { Money } from '../../parts/Money.tsx';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { amountOf, currencyOf, dateOf } from './receiptRows.ts';
import { titleOf } from './facts.ts';

/** Receipts that were taken away, and those that others were made of; each comes back. */
export function GoneReceipts({ onDone }: { onDone: (answer: ReceiptsView) => void }) {
  const { data, error, mutate } = useGoneReceipts();
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  if (data.receipts.length === 0) return <p className="quiet mt-2">Nothing was taken away.</p>;
  const bringBack = (r: GatheredReceipt) =>
    gather.bringBack(r.id).then((answer) => {
      onDone(answer);
      void mutate();
    }, failed);
  return (
    <ul aria-label="Taken away" className="mt-2 rounded-box border border-base-300 bg-base-100">
      {data.receipts.map((r) => (
        <li key={r.id} className="flex items-center gap-3 border-b border-base-300 px-3 py-2 last:border-b-0">
          <span className="min-w-0 flex-1">
            <bdi className="block truncate">{titleOf(r)}</bdi>
            <span className="quiet block truncate text-sm">
              {r.standing === 'replaced' ? 'others were made of it' : 'taken away'} · <bdi>{r.name}</bdi> ·{' '}
              {dateOf(r) ?? 'no date'}
            </span>
          </span>
          <Money amount={amountOf(r)} currency={currencyOf(r) ?? undefined} />
          <button type="button" className="btn btn-sm" onClick={() => void bringBack(r)}>
            Bring back
          </button>
        </li>
      ))}
      {data.more > 0 && <li className="quiet px-3 py-2 text-sm">{data.more} older ones are not shown.</li>}
    </ul>
  );
}
