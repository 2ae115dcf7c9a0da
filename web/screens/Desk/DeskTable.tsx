import { useNavigate } from 'react-router';
import type { DeskColumn } from '../../../contract/desk.ts';
import type { QueueRow } from '../../api/desk.ts';
import { Table } from '../../parts/table/Table.tsx';
import { sized } from '../../parts/table/arrange.ts';
import { inRem } from '../../parts/table/rem.ts';
import { deskColumns } from './columns.tsx';

interface DeskTableProps {
  rows: QueueRow[];
  why: boolean;
  chosen: ReadonlySet<string>;
  onChoose: (chosen: ReadonlySet<string>) => void;
  columns: readonly DeskColumn[];
  onColumns: (columns: readonly DeskColumn[]) => void;
}

/** The rows of the queue, gone through with the arrow keys. */
export function DeskTable({ rows, why, chosen, onChoose, columns, onColumns }: DeskTableProps) {
  const navigate = useNavigate();
  const keysOf = (row: QueueRow) => ({
    open: () => void navigate(pathOf(row)),
    ...(mayChoose(row) && { choose: () => onChoose(toggled(chosen, row.number)) }),
  });
  return (
    <Table
      label="Claims"
      rows={rows}
      columns={deskColumns(columns, why)}
      keyOf={(row) => row.number}
      pathOf={pathOf}
      keysOf={keysOf}
      choosing={{ chosen, onChange: onChoose, may: mayChoose }}
      onSized={(id, width) => onColumns(sized(columns, id as DeskColumn['id'], inRem(width)))}
      className="border-y border-base-300 bg-base-100"
    />
  );
}

const pathOf = ({ own, number }: QueueRow): string => (own ? `/claims/${number}` : `/desk/${number}`);

/** Claims with nothing off can be cleared together. */
const mayChoose = (row: QueueRow): boolean => row.clean && !row.own;

function toggled(all: ReadonlySet<string>, one: string): ReadonlySet<string> {
  const next = new Set(all);
  if (!next.delete(one)) next.add(one);
  return next;
}
