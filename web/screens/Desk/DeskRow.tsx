import { PauseCircle } from 'lucide-react';
import { Link } from 'react-router';
import type { QueueRow } from '../../api/claims.ts';
import { TIE_KINDS } from '../../../core/evidence/comparisons/tie.types.ts';
import { Money } from '../../parts/Money.tsx';
import { TideBar } from '../../parts/TideBar.tsx';
import { TieMark } from '../../parts/TieMark.tsx';

/** The columns of the queue: claim, tide, ties, at risk, to pay. */
export const DESK_GRID = 'grid grid-cols-[minmax(14rem,1fr)_9rem_9rem_8.5rem_9rem] gap-x-4 px-4';

/** One claim of the queue: who and what for, its tide, its ties at their worst, the money. */
export function DeskRow({ row, current, onFocus }: { row: QueueRow; current: boolean; onFocus: () => void }) {
  return (
    <li>
      <Link
        data-row
        to={row.own ? `/claims/${row.number}` : `/desk/${row.number}`}
        tabIndex={current ? 0 : -1}
        onFocus={onFocus}
        className={`${DESK_GRID} items-center border-b border-base-300 py-1.5 last:border-b-0 hover:bg-base-200 focus:bg-base-200`}
      >
        <span className="min-w-0">
          <Who row={row} />
          <span className="quiet block truncate text-sm">{row.purpose}</span>
        </span>
        <span>
          <TideBar pieces={row.tide} />
        </span>
        {row.own ? <OthersDecide /> : <Proof row={row} />}
        <span className="text-right">
          <Money amount={row.toPay} currency={row.currency} strong />
        </span>
      </Link>
    </li>
  );
}

function Who({ row }: { row: QueueRow }) {
  return (
    <span className="flex items-baseline gap-2">
      <span className="font-mono text-[0.85em]">{row.number}</span>
      <span className="truncate font-semibold">{row.claimant}</span>
      <span className="quiet shrink-0 text-xs">{row.entity}</span>
      {row.stops > 0 && <span className="badge badge-error badge-sm shrink-0">{row.stops} stop</span>}
      {row.holdUntil && (
        <span className="quiet flex shrink-0 items-center gap-1 text-xs">
          <PauseCircle size={13} /> on hold to {row.holdUntil}
        </span>
      )}
    </span>
  );
}

/** In the place of what finance thinks of a claim, when it is the reader's own. */
function OthersDecide() {
  return <span className="quiet col-span-2 text-sm">your own: somebody else decides</span>;
}

/** The ties at their worst, and what is at risk. */
function Proof({ row }: { row: QueueRow }) {
  return (
    <>
      <span className="flex gap-1.5">
        {TIE_KINDS.map((kind) => (
          <TieMark key={kind} state={row.ties[kind] ?? 'none'} label={kind} />
        ))}
      </span>
      <span className="text-right">
        {row.atRisk !== null && /[1-9]/.test(row.atRisk) ? (
          <Money amount={row.atRisk} currency={row.ledgerCurrency} />
        ) : (
          <span className="quiet">none</span>
        )}
      </span>
    </>
  );
}
