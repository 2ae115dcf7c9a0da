import { useRef, useState, type PointerEvent } from 'react';
import { useNavigate } from 'react-router';
import type { DeskColumn } from '../../../contract/desk.ts';
import type { QueueRow } from '../../api/desk.ts';
import { useKeys } from '../../parts/useKeys.ts';
import { COLUMNS, gridOf, sized } from './columns.tsx';
import { DeskRow } from './DeskRow.tsx';

interface DeskTableProps {
  rows: QueueRow[];
  why: boolean;
  chosen: ReadonlySet<string>;
  onChoose: (number: string) => void;
  columns: readonly DeskColumn[];
  onColumns: (columns: readonly DeskColumn[]) => void;
}

/** The rows of the queue, gone through with the arrow keys. */
export function DeskTable({ rows, why, chosen, onChoose, columns: kept, onColumns }: DeskTableProps) {
  const navigate = useNavigate();
  const list = useRef<HTMLOListElement>(null);
  const [at, setAt] = useState(0);
  // columns as they are being dragged; kept when they are let go
  const [dragged, setDragged] = useState<readonly DeskColumn[] | null>(null);
  const columns = dragged ?? kept;
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
      <Columns
        columns={columns}
        onSize={(id, width) => setDragged(sized(columns, id, width))}
        onSized={() => {
          if (dragged) onColumns(dragged);
          setDragged(null);
        }}
      />
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

interface ColumnsProps {
  columns: readonly DeskColumn[];
  onSize: (id: DeskColumn['id'], width: number) => void;
  onSized: () => void;
}

function Columns({ columns, ...size }: ColumnsProps) {
  return (
    <div
      aria-hidden
      style={{ gridTemplateColumns: gridOf(columns) }}
      className="quiet sticky top-0 z-10 grid items-end gap-x-4 border-b border-base-300 bg-base-100 px-4 py-1 text-xs"
    >
      <span />
      <span>Claim</span>
      {columns.map((column) => (
        <span key={column.id} className={`relative ${COLUMNS[column.id].right ? 'text-right' : ''}`}>
          <Edge column={column} {...size} />
          {COLUMNS[column.id].head ?? COLUMNS[column.id].name}
        </span>
      ))}
    </div>
  );
}

/** The left edge of a column, which the mouse makes wider or narrower; by keys that is done in the dialog of the columns. */
function Edge({ column: { id, width }, onSize, onSized }: Omit<ColumnsProps, 'columns'> & { column: DeskColumn }) {
  const begin = useRef<{ x: number; width: number } | null>(null);
  const down = (event: PointerEvent) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    begin.current = { x: event.clientX, width };
  };
  const move = (event: PointerEvent) => {
    if (!begin.current || event.buttons !== 1) return;
    const rem = Number.parseFloat(getComputedStyle(document.documentElement).fontSize);
    onSize(id, Math.round((2 * (begin.current.x - event.clientX)) / rem) / 2 + begin.current.width);
  };
  const up = () => {
    begin.current = null;
    onSized();
  };
  return (
    <span
      data-edge={id}
      title={`Drag to size ${COLUMNS[id].name}`}
      className="absolute top-0 bottom-0 -left-3 w-2 cursor-col-resize touch-none border-r border-base-300 hover:border-primary"
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={up}
    />
  );
}
