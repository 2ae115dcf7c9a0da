import { useState } from 'react';
import { usePlans, type PlanListRow } from '../../api/plans.ts';
import { Money } from '../../parts/Money.tsx';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { OwnRecords, RecordWhat } from '../../parts/OwnRecords.tsx';
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
        columns="sm:grid-cols-[minmax(0,1fr)_13rem_11rem_9rem]"
        render={(plan, whose) => <PlanRow plan={plan} whose={whose} />}
      />
      {beginning && <BeginPlan onClose={() => setBeginning(false)} />}
    </>
  );
}

const PlanRow = ({ plan, whose }: { plan: PlanListRow; whose: boolean }) => (
  <>
    <RecordWhat {...plan} claimant={whose ? plan.claimant : null} />
    <span className="quiet order-last col-span-2 text-sm sm:order-none sm:col-span-1">
      {sayTrip(plan).map((says) => (
        <span key={says} className="block truncate">
          {says}
        </span>
      ))}
    </span>
    <span className="order-last col-span-2 sm:order-none sm:col-span-1">
      <TideBar pieces={plan.tide} />
    </span>
    <span className="text-right">
      <Money amount={plan.total} currency={plan.currency} strong />
    </span>
  </>
);

/** Where and when, as far as it is said. */
const sayTrip = ({ country, place, from, to }: PlanListRow): string[] =>
  [[place, country].filter(Boolean).join(', '), from ? (to && to !== from ? `${from} to ${to}` : from) : ''].filter(
    Boolean,
  );
