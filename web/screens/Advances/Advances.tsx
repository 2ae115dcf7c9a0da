import { useState } from 'react';
import { Link } from 'react-router';
import { FINANCE } from '../../../core/workflow/lifecycle.types.ts';
import { useAdvances, type AdvanceRowAnswer } from '../../api/advances.ts';
import type { Person } from '../../api/session.ts';
import { Money } from '../../parts/Money.tsx';
import { Empty, Loading, Trouble } from '../../parts/Notices.tsx';
import { RecordList, RecordWhat } from '../../parts/OwnRecords.tsx';
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
      {data.own.length > 0 && <Rows rows={data.own} whose={false} />}
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
      <Rows {...rows} />
    </section>
  );
}

const Rows = ({ rows, whose }: RowsProps) => (
  <RecordList
    rows={rows}
    whose={whose}
    pathOf={(row) => `/advances/${row.number}`}
    columns="sm:grid-cols-[minmax(0,1fr)_22rem_9rem]"
    render={(row) => <AdvanceRow row={row} whose={whose} />}
  />
);

function AdvanceRow({ row, whose }: { row: AdvanceRowAnswer; whose: boolean }) {
  return (
    <>
      <RecordWhat {...row} claimant={whose ? row.person : null} />
      <span className="order-last col-span-2 text-sm sm:order-none sm:col-span-1">
        <span className={row.overdue ? 'block font-medium' : 'block'}>{sayNext(row)}</span>
        <span className="quiet block">
          {ADVANCE_KINDS_SAID[row.kind]}
          {row.proofMissing && ' · a proof is missing'}
        </span>
      </span>
      <span className="text-right">
        <Money amount={row.amount} currency={row.currency} strong />
      </span>
    </>
  );
}
