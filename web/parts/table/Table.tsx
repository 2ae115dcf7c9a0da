import { useTable, type RowData } from '@tanstack/react-table';
import { Fragment, useEffect, useRef, type ReactNode } from 'react';
import type { KeyActs } from '../keys.tsx';
import { useKeys } from '../useKeys.ts';
import { CHOOSE, FEATURES, isSized, USUALLY, type Column } from './columns.tsx';
import { Heading } from './Heading.tsx';
import { TableRow } from './TableRow.tsx';
import { useRovingRows } from './useRovingRows.ts';

interface TableProps<Data extends RowData> {
  label: string;
  rows: readonly Data[];
  columns: readonly Column<Data>[];
  keyOf: (row: Data) => string;
  /** Where a row leads to. The arrow keys go through rows that lead somewhere. */
  pathOf?: (row: Data) => string;
  /** What keys do with the row one is at. */
  keysOf?: (row: Data) => KeyActs;
  /** What stands below a row, over its whole width. */
  below?: (row: Data) => ReactNode;
  choosing?: Choosing<Data>;
  /** Columns can be sized by their edges; told in pixels when one is let go. */
  /** Headings that are only heard stand over rows that say themselves what they are. */
  headings?: 'seen' | 'heard';
  onSized?: (id: string, width: number) => void;
  classOf?: (row: Data) => string;
  className?: string;
}

export interface Choosing<Data> {
  chosen: ReadonlySet<string>;
  onChange: (chosen: ReadonlySet<string>) => void;
  may: (row: Data) => boolean;
}

/**
 * Rows under headings that stay in sight; on a narrow screen each is a block. A column with a value is sorted by its heading, here
 * where all rows are: where the server pages them, it sorts, and no column has a value.
 */
export function Table<Data extends RowData>(props: TableProps<Data>) {
  const { label, columns, pathOf, keysOf, below, classOf, headings = 'seen', className = '' } = props;
  const table = useRows(props);
  const { rows } = table.getRowModel();
  const { list, current, setCurrent } = useRovingRows<HTMLTableElement>(pathOf ? rows.length : 0);
  const now = rows[current]?.original;
  useKeys(keysOf && now !== undefined ? keysOf(now) : {});
  const fixed = columns.some((c) => c.size !== undefined);
  return (
    <table
      ref={list}
      aria-label={label}
      className={`w-full max-sm:block ${fixed ? 'sm:table-fixed' : ''} ${className}`}
    >
      <colgroup>
        {table.getAllLeafColumns().map((column) => (
          <col key={column.id} style={isSized(column) ? { width: column.getSize() } : {}} />
        ))}
      </colgroup>
      <thead className={headings === 'heard' ? 'sr-only' : SEEN}>
        <tr className="align-bottom">
          {table.getLeafHeaders().map((header) => (
            <Heading key={header.id} header={header} />
          ))}
        </tr>
      </thead>
      <tbody className="max-sm:block">
        {rows.map((row, index) => (
          <Fragment key={row.id}>
            <TableRow
              row={row}
              path={pathOf?.(row.original)}
              current={index === current}
              onFocus={() => setCurrent(index)}
              className={classOf?.(row.original)}
            />
            <Below columns={row.getAllCells().length}>{below?.(row.original)}</Below>
          </Fragment>
        ))}
      </tbody>
    </table>
  );
}

const SEEN = 'quiet bg-base-100 text-left text-xs max-sm:sr-only sm:sticky sm:top-0 sm:z-10';

type RowsProps<Data extends RowData> = Pick<TableProps<Data>, 'rows' | 'columns' | 'keyOf' | 'choosing' | 'onSized'>;

function useRows<Data extends RowData>({ rows, columns, keyOf, choosing, onSized }: RowsProps<Data>) {
  const rowSelection = Object.fromEntries([...(choosing?.chosen ?? [])].map((key) => [key, true as const]));
  const table = useTable({
    features: FEATURES,
    data: rows,
    columns: choosing ? [CHOOSE as Column<Data>, ...columns] : columns,
    defaultColumn: USUALLY,
    getRowId: keyOf,
    enableRowSelection: ({ original }) => choosing?.may(original) ?? false,
    state: { rowSelection },
    onRowSelectionChange: (change) =>
      choosing?.onChange(new Set(Object.keys(typeof change === 'function' ? change(rowSelection) : change))),
    enableColumnResizing: onSized !== undefined,
    columnResizeMode: 'onChange',
    // the columns hang on the right edge, so each grows to the left
    columnResizeDirection: 'rtl',
  });
  const dragged = table.state.columnResizing.isResizingColumn;
  const before = useRef<string | false>(false);
  useEffect(() => {
    const ended = dragged === false ? before.current : false;
    before.current = dragged;
    if (ended === false) return;
    onSized?.(ended, table.getColumn(ended)!.getSize());
    table.resetColumnSizing();
  });
  return table;
}

/** What a row is opened to. */
function Below({ columns, children }: { columns: number; children: ReactNode }) {
  if (!children) return null;
  return (
    <tr>
      <td colSpan={columns} className="p-0">
        {children}
      </td>
    </tr>
  );
}
