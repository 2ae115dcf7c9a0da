import { PauseCircle } from 'lucide-react';
import { Link } from 'react-router';
import type { QueueRow } from '../../api/desk.ts';
import { TIE_KINDS } from '../../../core/evidence/comparisons/tie.types.ts';
import { Money } from '../../parts/Money.tsx';
import { TideBar } from '../../parts/TideBar.tsx';
import { TieMark } from '../../parts/TieMark.tsx';

/** The columns of the queue: choice, claim, tide, ties, at risk, to pay. */
export const DESK_GRID = 'grid grid-cols-[1rem_minmax(14rem,1fr)_9rem_13rem_8.5rem_9rem] gap-x-4 px-4';

interface DeskRowProps {
  row: QueueRow;
  current: boolean;
  onFocus: () => void;
  /** Whether the reasons for its place are said. */
  why: boolean;
  chosen: boolean;
  /** Without this it cannot be chosen. */
  onChoose: (() => void) | undefined;
}

/** One claim of the queue: who and what for, its tide, its ties at their worst, the money. */
export function DeskRow({ row, current, onFocus, why, chosen, onChoose }: DeskRowProps) {
  return (
    <li className="relative">
      <Link
        data-row
        data-number={row.number}
        to={row.own ? `/claims/${row.number}` : `/desk/${row.number}`}
        tabIndex={current ? 0 : -1}
        onFocus={onFocus}
        title={row.attention.join(' · ')}
        className={`${DESK_GRID} items-center border-b border-base-300 py-1.5 last:border-b-0 hover:bg-base-200 focus:bg-base-200 ${chosen ? 'bg-primary/8' : ''}`}
      >
        <span />
        <span className="min-w-0">
          <Who row={row} />
          <span className="quiet block truncate text-sm">{row.purpose}</span>
          {why && <Why row={row} />}
        </span>
        <span>
          <TideBar pieces={row.tide} />
        </span>
        {row.own ? <OthersDecide /> : <Proof row={row} />}
        <span className="text-right">
          <Money amount={row.toPay} currency={row.currency} strong />
        </span>
      </Link>
      {onChoose && (
        <input
          type="checkbox"
          className="checkbox checkbox-sm absolute top-1/2 left-3.5 -translate-y-1/2"
          aria-label={`Choose ${row.number}`}
          tabIndex={-1}
          checked={chosen}
          onChange={onChoose}
        />
      )}
    </li>
  );
}

function Why({ row }: { row: QueueRow }) {
  if (row.own) return null;
  return (
    <span className="block text-sm whitespace-normal">
      {row.attention.length > 0 ? row.attention.join(' · ') : <span className="quiet">nothing speaks against it</span>}
    </span>
  );
}

function Who({ row }: { row: QueueRow }) {
  return (
    <span className="flex items-baseline gap-2">
      <span className="font-mono text-[0.85em]">{row.number}</span>
      <span className="truncate font-semibold">{row.claimant}</span>
      <span className="quiet shrink-0 text-xs">{row.entity}</span>
      {row.stops > 0 && (
        <span className="badge badge-error badge-sm shrink-0">
          {row.stops} {row.stops === 1 ? 'stop' : 'stops'}
        </span>
      )}
      {row.waiting > 0 && (
        <span className="quiet shrink-0 text-xs">
          waits for {row.waiting === 1 ? 'an answer' : `${row.waiting} answers`}
        </span>
      )}
      {row.waiting === 0 && row.answered > 0 && row.state === 'in review' && (
        <span className="badge badge-primary badge-sm shrink-0">answered</span>
      )}
      {row.here.length > 0 && <span className="shrink-0 text-xs text-primary">open at {row.here.join(', ')}</span>}
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
      <span className="grid grid-cols-9 justify-items-center">
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
