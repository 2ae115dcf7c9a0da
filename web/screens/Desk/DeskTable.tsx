import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { TIE_KINDS } from '../../../core/evidence/comparisons/tie.types.ts';
import type { QueueRow } from '../../api/desk.ts';
import { useKeys } from '../../parts/useKeys.ts';
import { DESK_GRID, DeskRow } from './DeskRow.tsx';

interface DeskTableProps {
  rows: QueueRow[];
  why: boolean;
  chosen: ReadonlySet<string>;
  onChoose: (number: string) => void;
}

/** The rows of the queue, gone through with the arrow keys. */
export function DeskTable({ rows, why, chosen, onChoose }: DeskTableProps) {
  const navigate = useNavigate();
  const list = useRef<HTMLOListElement>(null);
  const [at, setAt] = useState(0);
  const focus = (next: number) => {
    const index = Math.max(0, Math.min(rows.length - 1, next));
    setAt(index);
    list.current?.querySelectorAll<HTMLElement>('[data-row]')[index]?.focus();
  };
  const row = rows[at];
  useKeys({
    down: () => focus(document.activeElement?.hasAttribute('data-row') ? at + 1 : at),
    up: () => focus(at - 1),
    open: () => row && navigate(`/desk/${row.number}`),
    choose: () => row && mayChoose(row) && onChoose(row.number),
  });
  return (
    <div className="border-y border-base-300 bg-base-100">
      <Columns />
      <ol ref={list} aria-label="Claims" className="rows">
        {rows.map((one, index) => (
          <DeskRow
            key={one.number}
            row={one}
            why={why}
            onFocus={() => setAt(index)}
            current={index === at}
            chosen={chosen.has(one.number)}
            onChoose={mayChoose(one) ? () => onChoose(one.number) : undefined}
          />
        ))}
      </ol>
    </div>
  );
}

/** Claims with nothing off can be cleared together. */
const mayChoose = (row: QueueRow): boolean => row.clean && !row.own;

function Columns() {
  return (
    <div aria-hidden className={`${DESK_GRID} quiet items-end border-b border-base-300 py-1 text-xs`}>
      <span />
      <span>Claim</span>
      <span>Progress and age</span>
      <span className="grid grid-cols-9 items-end justify-items-center">
        {TIE_KINDS.map((kind) => (
          <span key={kind} className="rotate-180 text-[0.7rem] leading-none [writing-mode:vertical-rl]">
            {kind}
          </span>
        ))}
      </span>
      <span className="text-right">At risk</span>
      <span className="text-right">To pay</span>
    </div>
  );
}
