import { Link } from 'react-router';
import { decisions } from '../../api/approvals.ts';
import type { ApprovalsAnswer } from '../../../contract/approvals.ts';
import { failed } from '../../parts/failed.ts';
import { Money } from '../../parts/Money.tsx';
import { toast } from '../../parts/toast.tsx';
import { sayMoment } from '../../words/sayEvent.ts';
import { pathOf } from './WaitingRow.tsx';

type Row = ApprovalsAnswer['decided'][number];

/** What one approved and nobody acted on since: it can still be taken back. */
export function Decided({ rows, reload }: { rows: readonly Row[]; reload: () => Promise<unknown> }) {
  if (rows.length === 0) return null;
  const takeBack = async (row: Row) => {
    const done = await decisions.takeBack(row).then(
      () => true,
      (error: unknown) => void failed(error),
    );
    await reload();
    if (done) toast({ text: `${row.number} waits for you again` });
  };
  return (
    <section aria-labelledby="decided" className="mt-6">
      <h2 id="decided" className="px-4 pb-1 font-semibold">
        Approved by you, nobody acted since
      </h2>
      <ul className="border-y border-base-300 bg-base-100">
        {rows.map((row) => (
          <li
            key={`${row.kind} ${row.number}`}
            className="grid grid-cols-[minmax(0,1fr)_auto_auto] items-center gap-x-4 border-b border-base-300 py-1 pr-4 pl-10 last:border-b-0"
          >
            <Link to={pathOf(row)} className="min-w-0 truncate py-1.5 hover:underline">
              <span className="font-mono text-sm">{row.number}</span> {row.who}
              <span className="quiet ml-2 text-sm">{row.purpose}</span>
              <span className="quiet ml-2 hidden text-sm md:inline">{sayMoment(row.at)}</span>
            </Link>
            <Money amount={row.amount} currency={row.currency} />
            <button
              type="button"
              className="btn btn-sm"
              aria-label={`Take back ${row.number}`}
              onClick={() => void takeBack(row)}
            >
              Take back
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
