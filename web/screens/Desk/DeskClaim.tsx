import { PauseCircle } from 'lucide-react';
import type { QueueRow } from '../../api/desk.ts';

/** Whose claim a row of the queue is, what for and what is said of it; on demand the reasons for its place. */
export const DeskClaim = ({ row, why }: { row: QueueRow; why: boolean }) => (
  <span title={row.attention.join(' · ')}>
    <Who row={row} />
    <span className="quiet block truncate text-sm">{row.purpose}</span>
    {why && <Why row={row} />}
  </span>
);

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
    <span className="flex items-baseline gap-2 overflow-hidden">
      <span className="shrink-0 font-mono text-[0.85em]">{row.number}</span>
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
