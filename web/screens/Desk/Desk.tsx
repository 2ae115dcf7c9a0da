import { useDeferredValue, useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import type { ClaimState } from '../../../core/workflow/lifecycles/claim.ts';
import { useQueue } from '../../api/claims.ts';
import { Empty, Loading, Trouble } from '../../parts/Notices.tsx';
import { useKeys } from '../../parts/useKeys.ts';
import { DESK_GRID, DeskRow } from './DeskRow.tsx';
import { rememberQueue } from './queueOrder.ts';

const STATES: readonly ClaimState[] = [
  'in review',
  'cleared',
  'posted',
  'with approver',
  'returned',
  'reversed',
  'paid',
  'part paid',
  'payment rejected',
  'declined',
  'withdrawn',
];

type DeskClaim = Parameters<typeof DeskRow>[0]['row'];

/** The queue: one row a claim, what deserves attention first. */
export default function Desk() {
  const [state, setState] = useState('in review');
  const [typed, setTyped] = useState('');
  const q = useDeferredValue(typed.trim());
  const { data, error, mutate, size, setSize, isLoading } = useQueue(state, q);
  const rows = data?.flatMap((page) => page.claims) ?? [];
  const counts = data?.[0]?.counts ?? {};
  // One's own claims are not among those to go through.
  const numbers = rows.flatMap((row) => (row.own ? [] : [row.number])).join(' ');
  useEffect(() => rememberQueue(numbers.split(' ').filter(Boolean)), [numbers]);
  return (
    <div className="flex flex-col">
      <DeskHead state={state} counts={counts} onState={setState} typed={typed} onTyped={setTyped} />
      {error ? <Trouble error={error} retry={() => void mutate()} /> : null}
      {!error && isLoading && !data ? <Loading shape="rows" /> : null}
      {!error && data && <Queue rows={rows} state={state} q={q} />}
      {!error && data?.at(-1)?.next && (
        <button type="button" className="btn btn-sm m-4 self-start" onClick={() => void setSize(size + 1)}>
          Show more
        </button>
      )}
    </div>
  );
}

interface DeskHeadProps {
  state: string;
  counts: Record<string, number>;
  onState: (state: string) => void;
  typed: string;
  onTyped: (typed: string) => void;
}

function DeskHead({ state, counts, onState, typed, onTyped }: DeskHeadProps) {
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-2 px-4 pt-3 pb-2">
      <h1 className="text-xl font-semibold">Desk</h1>
      <StateFilter state={state} counts={counts} onPick={onState} />
      <input
        type="search"
        className="input input-sm ml-auto w-44"
        placeholder="Number, person, purpose"
        aria-label="Find claims"
        value={typed}
        onChange={(e) => onTyped(e.target.value)}
      />
    </div>
  );
}

function Queue({ rows, state, q }: { rows: DeskClaim[]; state: string; q: string }) {
  if (rows.length > 0) return <QueueTable rows={rows} />;
  if (q)
    return (
      <Empty title={`No claim ${state} fits “${q}”`}>
        Try a part of the number, the name or the purpose, or another state.
      </Empty>
    );
  return (
    <Empty title={`No claim is ${state}`}>Claims appear here as they reach this state. Pick another state above.</Empty>
  );
}

function StateFilter({
  state,
  counts,
  onPick,
}: {
  state: string;
  counts: Record<string, number>;
  onPick: (state: string) => void;
}) {
  return (
    <div role="group" aria-label="State" className="flex flex-wrap gap-1">
      {STATES.filter((s) => s === state || (counts[s] ?? 0) > 0).map((s) => (
        <button
          key={s}
          type="button"
          aria-pressed={s === state}
          className={`rounded-field border px-1.5 py-0.5 text-sm ${s === state ? 'border-primary bg-primary text-primary-content' : 'border-base-300 bg-base-100 hover:border-primary'}`}
          onClick={() => onPick(s)}
        >
          {s} <span className="tabular-nums">{counts[s] ?? 0}</span>
        </button>
      ))}
    </div>
  );
}

function QueueTable({ rows }: { rows: DeskClaim[] }) {
  const navigate = useNavigate();
  const list = useRef<HTMLOListElement>(null);
  const [at, setAt] = useState(0);
  const focus = (next: number) => {
    const index = Math.max(0, Math.min(rows.length - 1, next));
    setAt(index);
    list.current?.querySelectorAll<HTMLElement>('[data-row]')[index]?.focus();
  };
  const open = () => rows[at] && navigate(`/desk/${rows[at].number}`);
  useKeys({
    down: () => focus(document.activeElement?.hasAttribute('data-row') ? at + 1 : at),
    up: () => focus(at - 1),
    open,
  });
  return (
    <div className="border-y border-base-300 bg-base-100">
      <Columns />
      <ol ref={list} aria-label="Claims" className="rows">
        {rows.map((row, index) => (
          <DeskRow key={row.number} row={row} onFocus={() => setAt(index)} current={index === at} />
        ))}
      </ol>
    </div>
  );
}

function Columns() {
  return (
    <div aria-hidden className={`${DESK_GRID} quiet border-b border-base-300 py-1 text-xs`}>
      <span>Claim</span>
      <span>Progress and age</span>
      <span>Ties</span>
      <span className="text-right">At risk</span>
      <span className="text-right">To pay</span>
    </div>
  );
}
