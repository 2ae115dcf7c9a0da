import { PauseCircle } from 'lucide-react';
import { Link } from 'react-router';
import type { QueueRow } from '../../api/desk.ts';
import type { DeskColumn } from '../../../contract/desk.ts';
import { COLUMNS, gridOf } from './columns.tsx';

interface DeskRowProps {
  row: QueueRow;
  current: boolean;
  onFocus: () => void;
  /** Whether the reasons for its place are said. */
  why: boolean;
  chosen: boolean;
  /** Without this it cannot be chosen. */
  onChoose: (() => void) | undefined;
  columns: readonly DeskColumn[];
}

/** One claim of the queue: who and what for, its tide, its ties at their worst, the money. */
export function DeskRow({ row, current, onFocus, why, chosen, onChoose, columns }: DeskRowProps) {
  return (
    <li className="relative border-b border-base-300 last:border-b-0">
      <Link
        data-row
        data-number={row.number}
        to={row.own ? `/claims/${row.number}` : `/desk/${row.number}`}
        tabIndex={current ? 0 : -1}
        onFocus={onFocus}
        title={row.attention.join(' · ')}
        style={{ gridTemplateColumns: gridOf(columns) }}
        className={`grid items-center gap-x-4 px-4 py-1.5 hover:bg-base-200 focus:bg-base-200 ${chosen ? 'bg-primary/8' : ''}`}
      >
        <span />
        <span className="min-w-0">
          <Who row={row} />
          <span className="quiet block truncate text-sm">{row.purpose}</span>
          {why && <Why row={row} />}
        </span>
        {columns.map(({ id }) => (
          <span key={id} className={COLUMNS[id].right ? 'text-right' : 'min-w-0'}>
            {COLUMNS[id].cell(row)}
          </span>
        ))}
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
