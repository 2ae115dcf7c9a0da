import { ArrowLeft } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { AGES } from '../../../core/advances/standing.ts';
import { useRegister, type RegisterAnswer } from '../../api/advances.ts';
import { Empty, Loading, Trouble } from '../../parts/Notices.tsx';
import { todayHere } from '../../parts/today.ts';
import { groupDigits } from '../../../core/numbers/groupDigits.ts';
import { Money } from '../../parts/Money.tsx';
import type { Column } from '../../parts/table/columns.tsx';
import { Table } from '../../parts/table/Table.tsx';
import { DayField } from '../../parts/days/DayField.tsx';

/** What is open of advances at the end of a day: by entity and age beside the account of the ledger, then one by one. */
export default function Register() {
  const [on, setOn] = useState(todayHere);
  const { data, error, mutate } = useRegister(on);
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  return (
    <div className="mx-auto w-full max-w-7xl px-4 pb-10">
      <div className="flex flex-wrap items-center gap-3 pt-3 pb-2">
        <h1 className="flex items-center gap-2 text-xl font-semibold">
          <Link to="/advances" aria-label="Back to the advances">
            <ArrowLeft size={16} />
          </Link>
          Register of advances
        </h1>
        <label className="quiet ml-auto flex items-center gap-2 text-sm">
          At the end of
          <DayField className="input input-sm w-40" value={on} onChange={(day) => day && setOn(day)} />
        </label>
      </div>
      <ByEntity entities={data.entities} />
      {data.rows.length === 0 ? (
        <Empty title="Nothing was open on this day">
          Every advance that was paid out was accounted for or given back.
        </Empty>
      ) : (
        <OneByOne rows={data.rows} />
      )}
    </div>
  );
}

const ByEntity = ({ entities }: { entities: RegisterAnswer['entities'] }) => (
  <div className="overflow-x-auto rounded-box border border-base-300 bg-base-100">
    <Table label="By entity and age" rows={entities} columns={BY_ENTITY} keyOf={(e) => `${e.entity} ${e.account}`} />
  </div>
);

type ByEntity = RegisterAnswer['entities'][number];
const RIGHT = { right: true } as const;

const BY_ENTITY: readonly Column<ByEntity>[] = [
  {
    id: 'entity',
    header: 'Entity',
    cell: ({ row: { original: e } }) => (
      <>
        {e.name} <span className="quiet">{e.currency}</span>
      </>
    ),
  },
  ...AGES.map((age): Column<ByEntity> => ({
    id: age,
    header: `${age} days`,
    meta: { right: true, narrow: 'out' },
    cell: ({ row }) => open(row.original.ages.find((a) => a.age === age)!.ledger),
  })),
  {
    id: 'open',
    header: 'Open',
    meta: RIGHT,
    cell: ({ row }) => <span className="font-semibold">{groupDigits(row.original.open)}</span>,
  },
  {
    id: 'account',
    header: 'Account',
    meta: RIGHT,
    cell: ({ row: { original: e } }) => (
      <>
        <span className="quiet">{e.account}</span> {groupDigits(e.balance)}
      </>
    ),
  },
  {
    id: 'agree',
    header: 'Whether they agree',
    meta: { unseen: true },
    cell: ({ row: { original: e } }) =>
      e.open === e.balance ? <span className="quiet">agree</span> : <strong className="text-error">differ</strong>,
  },
];

const open = (amount: string) => (/[1-9]/.test(amount) ? groupDigits(amount) : <span className="quiet">–</span>);

const OneByOne = ({ rows }: { rows: RegisterAnswer['rows'] }) => (
  <div className="mt-4 overflow-x-auto rounded-box border border-base-300 bg-base-100">
    <Table
      label="One by one"
      rows={rows}
      columns={ONE_BY_ONE}
      keyOf={(r) => r.number}
      pathOf={(r) => `/advances/${r.number}`}
    />
  </div>
);

type OpenAdvance = RegisterAnswer['rows'][number];
const ONE_LINE = { className: 'whitespace-nowrap' } as const;

const ONE_BY_ONE: readonly Column<OpenAdvance>[] = [
  {
    id: 'person',
    header: 'Person',
    accessorFn: (r) => r.person,
    meta: ONE_LINE,
    cell: ({ row: { original: r } }) => (
      <>
        {r.person} <span className="quiet">{r.entity}</span>
      </>
    ),
  },
  {
    id: 'advance',
    header: 'Advance',
    accessorFn: (r) => r.number,
    meta: { leads: true, className: 'max-w-80', narrow: 'below' },
    cell: ({ row: { original: r } }) => (
      <span className="block truncate">
        <span className="font-mono">{r.number}</span> {r.purpose}
      </span>
    ),
  },
  { id: 'paid', header: 'Paid out', accessorFn: (r) => r.paidOn, meta: { ...ONE_LINE, narrow: 'out' } },
  { id: 'days', header: 'Days', accessorFn: (r) => r.days, meta: { right: true, narrow: 'out' } },
  {
    id: 'due',
    header: 'To be accounted for by',
    accessorFn: (r) => r.dueBy ?? '',
    meta: { ...ONE_LINE, narrow: 'below' },
    cell: ({ row: { original: r } }) => (
      <>
        {r.dueBy} {r.overdue && <strong>overdue</strong>}
      </>
    ),
  },
  {
    id: 'open',
    header: 'Open',
    meta: RIGHT,
    cell: ({ row: { original: r } }) => <Money amount={r.open!.amount} currency={r.currency} />,
  },
  {
    id: 'ledger',
    header: 'In the ledger',
    meta: { right: true, narrow: 'out' },
    cell: ({ row: { original: r } }) => <Money amount={r.open!.ledger} currency={r.ledgerCurrency} />,
  },
];
