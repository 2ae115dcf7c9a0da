import type { RowData } from '@tanstack/react-table';
import type { ReactNode } from 'react';
import type { Column } from './table/columns.tsx';
import { Table } from './table/Table.tsx';
import { Empty } from './Notices.tsx';

/** Records under a title; `whose` where they are somebody else's that are the person's to do something with. */
interface Section<Row> {
  title: string | null;
  rows: readonly Row[];
  whose?: boolean;
}

interface OwnRecordsProps<Row extends RowData> {
  title: string;
  begin: { label: string; run: () => void };
  /** What narrows the list, beside its title. */
  tools?: ReactNode;
  sections: readonly Section<Row>[];
  /** What is said where there are none of one's own. */
  none: { title: string; says: string };
  pathOf: (row: Row) => string;
  columnsOf: (whose: boolean) => readonly Column<Row>[];
}

/** A person's own records of a kind. */
export function OwnRecords<Row extends { number: string }>(props: OwnRecordsProps<Row>) {
  const { title, begin, tools, sections, none, pathOf, columnsOf } = props;
  const hasOwn = sections.some(({ rows, whose }) => !whose && rows.length > 0);
  return (
    <div>
      <div className="flex flex-wrap items-center gap-3 px-4 pt-3 pb-2">
        <h1 className="text-xl font-semibold">{title}</h1>
        <button type="button" className="btn btn-primary btn-sm" onClick={begin.run}>
          {begin.label}
        </button>
        {tools}
      </div>
      {!hasOwn && <Empty title={none.title}>{none.says}</Empty>}
      {sections.map(({ title: of, rows, whose = false }) =>
        rows.length === 0 ? null : (
          <section key={of ?? ''} aria-label={of ?? title}>
            {of && (
              <h2 className="px-4 pt-4 pb-1 font-semibold">
                {of} <span className="quiet font-normal">{rows.length}</span>
              </h2>
            )}
            <RecordTable label={of ?? title} rows={rows} pathOf={pathOf} columns={columnsOf(whose)} />
          </section>
        ),
      )}
    </div>
  );
}

interface RecordTableProps<Row extends RowData> {
  label: string;
  rows: readonly Row[];
  pathOf: (row: Row) => string;
  columns: readonly Column<Row>[];
}

/** Records as rows that the arrow keys go through, each leading to its own page; what they tell needs no headings to be seen. */
export const RecordTable = <Row extends { number: string }>(props: RecordTableProps<Row>) => (
  <Table {...props} keyOf={(row) => row.number} headings="heard" className="border-t border-base-300 bg-base-100" />
);

interface Named {
  number: string;
  purpose: string;
}
/** The number of a record, whose it is where that is told, and what it is for. */
export const whatColumn = <Row extends Named>(whoseOf: (row: Row) => string | null): Column<Row> => ({
  id: 'what',
  header: 'Number and purpose',
  meta: { leads: true },
  cell: ({ row: { original: row } }) => (
    <>
      <span className="font-mono text-sm whitespace-nowrap">{row.number}</span>
      {whoseOf(row) && <span className="ml-2">{whoseOf(row)}</span>}
      <span className="block truncate font-medium">{row.purpose}</span>
    </>
  ),
});
