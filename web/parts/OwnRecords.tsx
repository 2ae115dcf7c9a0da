import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { Empty } from './Notices.tsx';
import { useRovingRows } from './useRovingRows.ts';

interface OwnRecordsProps<Row> {
  title: string;
  begin: { label: string; run: () => void };
  /** One's own, under a title where there are several kinds; and others that are the person's to do something with. */
  sections: readonly { title: string | null; rows: readonly Row[]; whose?: boolean }[];
  /** What is said where there are none of one's own. */
  none: { title: string; says: string };
  pathOf: (row: Row) => string;
  /** How wide the parts of a row are, from a small screen on. */
  columns: string;
  /** A row; `whose` where it is somebody else's. */
  render: (row: Row, whose: boolean) => ReactNode;
}

/** A person's own records of a kind. */
export function OwnRecords<Row extends { number: string }>(props: OwnRecordsProps<Row>) {
  const { title, begin, sections, none } = props;
  const hasOwn = sections.some(({ rows, whose }) => !whose && rows.length > 0);
  return (
    <div>
      <div className="flex items-center gap-3 px-4 pt-3 pb-2">
        <h1 className="text-xl font-semibold">{title}</h1>
        <button type="button" className="btn btn-primary btn-sm" onClick={begin.run}>
          {begin.label}
        </button>
      </div>
      {!hasOwn && <Empty title={none.title}>{none.says}</Empty>}
      {sections.map(({ title: of, rows, whose = false }) =>
        rows.length === 0 ? null : (
          <section key={of ?? ''} aria-label={of ?? title}>
            {of && <h2 className="px-4 pt-4 pb-1 font-semibold">{of}</h2>}
            <RecordList {...props} rows={rows} whose={whose} />
          </section>
        ),
      )}
    </div>
  );
}

interface RecordListProps<Row> extends Pick<OwnRecordsProps<Row>, 'pathOf' | 'columns' | 'render'> {
  rows: readonly Row[];
  whose: boolean;
}

/** Records as rows that the arrow keys go through, each a link to its own page. */
export function RecordList<Row extends { number: string }>({
  rows,
  whose,
  pathOf,
  columns,
  render,
}: RecordListProps<Row>) {
  const { list, current, setCurrent } = useRovingRows<HTMLUListElement>(rows.length);
  return (
    <ul ref={list} className="rows border-y border-base-300 bg-base-100">
      {rows.map((row, index) => (
        <li key={row.number}>
          <Link
            data-row
            tabIndex={index === current ? 0 : -1}
            onFocus={() => setCurrent(index)}
            to={pathOf(row)}
            className={`grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-4 gap-y-1 border-b border-base-300 px-4 py-2 hover:bg-base-200 ${columns}`}
          >
            {render(row, whose)}
          </Link>
        </li>
      ))}
    </ul>
  );
}

interface WhatProps {
  number: string;
  purpose: string;
  claimant: string | null;
}
/** The number of a record, whose it is where that is told, and what it is for. */
export const RecordWhat = ({ number, purpose, claimant }: WhatProps) => (
  <span className="min-w-0">
    <span className="font-mono text-sm">{number}</span>
    {claimant && <span className="ml-2">{claimant}</span>}
    <span className="block truncate font-medium">{purpose}</span>
  </span>
);
