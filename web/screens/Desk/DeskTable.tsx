import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import type { DeskColumn } from '../../../contract/desk.ts';
import type { QueueRow } from '../../api/desk.ts';
import { useKeys } from '../../parts/useKeys.ts';
import { COLUMNS, gridOf } from './columns.tsx';
import { DeskRow } from './DeskRow.tsx';

interface DeskTableProps {
  rows: QueueRow[];
  why: boolean;
  chosen: ReadonlySet<string>;
  onChoose: (number: string) => void;
  columns: readonly DeskColumn[];
}

/** The rows of the queue, gone through with the arrow keys. */
export function DeskTable({ rows, why, chosen, onChoose, columns }: DeskTableProps) {
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
      <Columns columns={columns} />
      <ol ref={list} aria-label="Claims" className="rows">
        {rows.map((one, index) => (
          <DeskRow
            key={one.number}
            row={one}
            columns={columns}
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

function Columns({ columns }: { columns: readonly DeskColumn[] }) {
  return (
    <div
      aria-hidden
      style={{ gridTemplateColumns: gridOf(columns) }}
      className="quiet grid items-end gap-x-4 border-b border-base-300 px-4 py-1 text-xs"
    >
      <span />
      <span>Claim</span>
      {columns.map(({ id }) => (
        <span key={id} className={COLUMNS[id].right ? 'text-right' : ''}>
          {COLUMNS[id].head ?? COLUMNS[id].name}
        </span>
      ))}
    </div>
  );
}
