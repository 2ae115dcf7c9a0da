import { flexRender, type RowData } from '@tanstack/react-table';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { Row } from './columns.tsx';

interface TableRowProps<Data extends RowData> {
  row: Row<Data>;
  path: string | undefined;
  current: boolean;
  onFocus: () => void;
  className: string | undefined;
}

const NARROW = { below: 'max-sm:order-last max-sm:col-span-full', out: 'max-sm:hidden' } as const;

/** A row; where it leads somewhere, the link in it reaches over all of it. */
export function TableRow<Data extends RowData>({ row, path, current, onFocus, className = '' }: TableRowProps<Data>) {
  const cells = row.getAllCells();
  const hasChoice = cells[0]?.column.id === 'choose';
  const narrow = hasChoice ? 'max-sm:grid-cols-[2rem_minmax(0,1fr)_auto]' : 'max-sm:grid-cols-[minmax(0,1fr)_auto]';
  const leads = path === undefined ? '' : 'relative hover:bg-base-200 focus-within:bg-base-200';
  const chosen = row.getIsSelected() ? 'bg-primary/8' : '';
  return (
    <tr
      className={`border-b border-base-300 max-sm:grid max-sm:gap-x-3 max-sm:px-4 max-sm:py-1.5 ${narrow} ${leads} ${chosen} ${className}`}
    >
      {cells.map((cell) => {
        const { meta } = cell.column.columnDef;
        const shown = flexRender(cell.column.columnDef.cell, cell.getContext()) as ReactNode;
        const places = `${meta?.narrow ? NARROW[meta.narrow] : ''} ${meta?.className ?? ''}`;
        return (
          <td
            key={cell.id}
            className={`min-w-0 px-2 py-1.5 first:pl-4 last:pr-4 max-sm:p-0 max-sm:first:pl-0 max-sm:last:pr-0 ${meta?.right ? 'money' : ''} ${places}`}
          >
            {meta?.leads && path !== undefined ? (
              <Link
                data-row
                to={path}
                tabIndex={current ? 0 : -1}
                onFocus={onFocus}
                className="block after:absolute after:inset-0"
              >
                {shown}
              </Link>
            ) : (
              shown
            )}
          </td>
        );
      })}
    </tr>
  );
}
