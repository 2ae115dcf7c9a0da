import { useState } from 'react';
import { Link } from 'react-router';
import { FINANCE } from '../../../core/workflow/lifecycle.types.ts';
import { useAdvances, type AdvanceRowAnswer } from '../../api/advances.ts';
import type { Person } from '../../api/session.ts';
import { Money } from '../../parts/Money.tsx';
import { Empty, Loading, Trouble } from '../../parts/Notices.tsx';
import { RecordTable, whatColumn } from '../../parts/OwnRecords.tsx';
import type { Column } from '../../parts/table/columns.tsx';
import { ADVANCE_KINDS_SAID, sayNext } from '../../words/sayAdvance.ts';
import { BeginAdvance } from './BeginAdvance.tsx';

/** A person's advances, and for finance those of others that wait for them or are overdue. */
export default function Advances({ person }: { person: Person }) {
  const { data, error, mutate } = useAdvances();
  const [beginning, setBeginning] = useState(false);
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  const finance = FINANCE.some((role) => person.roles.includes(role));
  return (
    <div className="mx-auto w-full max-w-7xl pb-10">
      <div className="flex flex-wrap items-center gap-3 px-4 pt-3 pb-2">
        <h1 className="text-xl font-semibold">Advances</h1>
        {data.mayBegin && (
          <button type="button" className="btn btn-primary btn-sm" onClick={() => setBeginning(true)}>
            New advance
          </button>
        )}
        {finance && (
          <Link to="/advances/register" className="btn btn-sm ml-auto">
            Register of what is open
          </Link>
        )}
      </div>
      <Section title="To grant" rows={data.toGrant} whose />
      <Section title="To pay out" rows={data.toPay} whose />
      <Section title="Overdue" rows={data.overdue} whose />
      {finance && data.own.length > 0 && <h2 className="px-4 pt-5 pb-2 font-semibold">Your own</h2>}
      {data.own.length > 0 && <Rows label="Your advances" rows={data.own} whose={false} />}
      {data.own.length === 0 && !finance && <None mayBegin={data.mayBegin} />}
      {beginning && <BeginAdvance currency={data.currency} onClose={() => setBeginning(false)} />}
    </div>
  );
}

const None = ({ mayBegin }: { mayBegin: boolean }) => (
  <Empty title="You have no advances">
    {mayBegin
      ? 'An advance is money you get before you spend it. What you spend of it goes on claims, and what is left you give back.'
      : 'Contractors are paid as suppliers and have no advances.'}
  </Empty>
);

interface RowsProps {
  rows: readonly AdvanceRowAnswer[];
  /** Whether they are somebody else's. */
  whose: boolean;
}

function Section({ title, ...rows }: RowsProps & { title: string }) {
  if (rows.rows.length === 0) return null;
  return (
    <section aria-label={title}>
      <h2 className="px-4 pt-5 pb-2 font-semibold">
        {title} <span className="quiet font-normal">{rows.rows.length}</span>
      </h2>
      <Rows label={title} {...rows} />
    </section>
  );
}

const Rows = ({ label, rows, whose }: RowsProps & { label: string }) => (
  <RecordTable label={label} rows={rows} pathOf={(row) => `/advances/${row.number}`} columns={columnsOf(whose)} />
);

const columnsOf = (whose: boolean): readonly Column<AdvanceRowAnswer>[] => [
  whatColumn<AdvanceRowAnswer>((advance) => (whose ? advance.person : null)),
  {
    id: 'next',
    header: 'What comes next',
    size: 340,
    meta: { narrow: 'below', className: 'text-sm' },
    cell: ({ row: { original: advance } }) => (
      <>
        <span className={advance.overdue ? 'block font-medium' : 'block'}>{sayNext(advance)}</span>
        <span className="quiet block">
          {ADVANCE_KINDS_SAID[advance.kind]}
          {advance.proofMissing && ' · a proof is missing'}
        </span>
      </>
    ),
  },
  {
    id: 'amount',
    header: 'Amount',
    size: 140,
    meta: { right: true },
    cell: ({ row: { original: advance } }) => <Money amount={advance.amount} currency={advance.currency} strong />,
  },
];
