import { useState } from 'react';
import { Link } from 'react-router';
import { usePlans, type PlanListRow } from '../../api/plans.ts';
import { Money } from '../../parts/Money.tsx';
import { Empty, Loading, Trouble } from '../../parts/Notices.tsx';
import { TideBar } from '../../parts/TideBar.tsx';
import { useRovingRows } from '../../parts/useRovingRows.ts';
import { BeginPlan } from './BeginPlan.tsx';

/** A person's plans, newest first, and those that wait for their decision. */
export default function Plans() {
  const { data, error, mutate } = usePlans();
  const [beginning, setBeginning] = useState(false);
  if (error) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Loading shape="rows" />;
  return (
    <div>
      {data.toDecide.length > 0 && (
        <section aria-labelledby="to-decide">
          <h2 id="to-decide" className="px-4 pt-3 pb-2 text-xl font-semibold">
            Waiting for your decision
          </h2>
          <PlanList plans={data.toDecide} whose />
        </section>
      )}
      <div className="flex items-center gap-3 px-4 pt-3 pb-2">
        <h1 className="text-xl font-semibold">Your plans</h1>
        <button type="button" className="btn btn-primary btn-sm" onClick={() => setBeginning(true)}>
          New plan
        </button>
      </div>
      {beginning && <BeginPlan onClose={() => setBeginning(false)} />}
      {data.plans.length === 0 ? (
        <Empty title="You have no plans">
          A plan says what a trip will cost before the money is spent. Once it is approved, it becomes a claim whose
          lines are compared with it.
        </Empty>
      ) : (
        <PlanList plans={data.plans} whose={false} />
      )}
    </div>
  );
}

function PlanList({ plans, whose }: { plans: readonly PlanListRow[]; whose: boolean }) {
  const { list, current, setCurrent } = useRovingRows<HTMLUListElement>(plans.length);
  return (
    <ul ref={list} className="rows border-y border-base-300 bg-base-100">
      {plans.map((plan, i) => (
        <li key={plan.number}>
          <Link
            data-row
            tabIndex={i === current ? 0 : -1}
            onFocus={() => setCurrent(i)}
            to={`/plans/${plan.number}`}
            className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-4 gap-y-1 border-b border-base-300 px-4 py-2 hover:bg-base-200 sm:grid-cols-[minmax(0,1fr)_13rem_11rem_9rem]"
          >
            <span className="min-w-0">
              <span className="font-mono text-sm">{plan.number}</span>
              {whose && <span className="ml-2">{plan.claimant}</span>}
              <span className="block truncate font-medium">{plan.purpose}</span>
            </span>
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
          </Link>
        </li>
      ))}
    </ul>
  );
}

/** Where and when, as far as it is said. */
const sayTrip = ({ country, place, from, to }: PlanListRow): string[] =>
  [[place, country].filter(Boolean).join(', '), from ? (to && to !== from ? `${from} to ${to}` : from) : ''].filter(
    Boolean,
  );
