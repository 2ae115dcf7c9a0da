import { flexRender, type RowData } from '@tanstack/react-table';
import { ArrowDown, ArrowUp } from 'lucide-react';
import type { ReactNode } from 'react';
import { isSized, type Header } from './columns.tsx';

const SORTED = { asc: 'ascending', desc: 'descending' } as const;

/** The heading of a column: sorts by it where it has a value, sizes it by its left edge where columns can be sized. */
export function Heading<Row extends RowData>({ header }: { header: Header<Row> }) {
  const { column } = header;
  const { meta } = column.columnDef;
  const sorted = column.getIsSorted();
  const words = flexRender(column.columnDef.header, header.getContext()) as ReactNode;
  return (
    <th
      scope="col"
      aria-sort={sorted ? SORTED[sorted] : undefined}
      className={`relative border-b border-base-300 px-2 py-1 font-normal first:pl-4 last:pr-4 ${meta?.right ? 'text-right' : ''}`}
    >
      {isSized(column) && column.getCanResize() && <Edge header={header} />}
      {column.getCanSort() ? (
        <button type="button" className="link link-hover" onClick={column.getToggleSortingHandler()}>
          {words}
          {sorted === 'asc' && <ArrowUp aria-hidden size={12} className="ml-0.5 inline" />}
          {sorted === 'desc' && <ArrowDown aria-hidden size={12} className="ml-0.5 inline" />}
        </button>
      ) : (
        <span className={meta?.unseen ? 'sr-only' : ''}>{words}</span>
      )}
    </th>
  );
}

/** The left edge of a column, which the mouse makes wider or narrower; by keys that is done in the dialog of the columns. */
const Edge = <Row extends RowData>({ header }: { header: Header<Row> }) => (
  <span
    aria-hidden
    data-edge={header.column.id}
    title="Drag to size the column"
    className="absolute top-0 bottom-0 -left-1 w-2 cursor-col-resize touch-none border-r border-base-300 hover:border-primary"
    onMouseDown={header.getResizeHandler()}
    onTouchStart={header.getResizeHandler()}
  />
);
