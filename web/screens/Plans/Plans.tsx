import { useState } from 'react';
import { usePlans, type PlanListRow } from '../../api/plans.ts';
import { Money } from '../../parts/Money.tsx';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { OwnRecords, whatColumn } from '../../parts/OwnRecords.tsx';
import type { Column } from '../../parts/table/columns.tsx';
import { TideBar } from '../../parts/TideBar.tsx';
import { BeginPlan } from './BeginPlan.tsx';

const NONE = {
  title: 'You have no plans',
  says: 'A plan says what a trip will cost before the money is spent. Once it is approved, it becomes a claim whose lines are compared with it.',
};

/** A person's plans, newest first. */
export default function Plans() {
  const { data, error, mutate } = usePlans();
  const [beginning, setBeginning] = useState(false);
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  return (
    <>
      <OwnRecords
        title="Your plans"
        begin={{ label: 'New plan', run: () => setBeginning(true) }}
        sections={[
          { title: null, rows: data.plans },
          { title: 'Approved, to book for', rows: data.toBook, whose: true },
        ]}
        none={NONE}
        pathOf={(plan) => `/plans/${plan.number}`}
        columnsOf={columnsOf}
      />
      {beginning && <BeginPlan onClose={() => setBeginning(false)} />}
    </>
  );
}

const columnsOf = (whose: boolean): readonly Column<PlanListRow>[] => [
  whatColumn<PlanListRow>((plan) => (whose ? plan.claimant : null)),
  {
    id: 'trip',
    header: 'Trip',
    size: 210,
    meta: { narrow: 'below', className: 'quiet text-sm' },
    cell: ({ row }) =>
      sayTrip(row.original).map((says) => (
        <span key={says} className="block truncate">
          {says}
        </span>
      )),
  },
  {
    id: 'where',
    header: 'Where it is',
    size: 180,
    meta: { narrow: 'below' },
    cell: ({ row }) => <TideBar pieces={row.original.tide} />,
  },
  {
    id: 'total',
    header: 'Estimate',
    size: 140,
    meta: { right: true },
    cell: ({ row: { original: plan } }) => <Money amount={plan.total} currency={plan.currency} strong />,
  },
];

/** Where and when, as far as it is said. */
const sayTrip = ({ country, place, from, to }: PlanListRow): string[] =>
  [[place, country].filter(Boolean).join(', '), from ? (to && to !== from ? `${from} to ${to}` : from) : ''].filter(
    Boolean,
  );
