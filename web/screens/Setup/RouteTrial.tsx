import { useState, type FormEvent } from 'react';
import { tryRoute, type RouteAnswer, type TryRoute } from '../../api/approvals.ts';
import { useChart } from '../../api/chart.ts';
import { DayEntry, Entry } from '../../parts/Entry.tsx';
import { failed } from '../../parts/failed.ts';
import { Empty } from '../../parts/Notices.tsx';
import { RouteSteps } from '../../parts/RouteSteps.tsx';
import { todayHere } from '../../parts/today.ts';
import { ChargedFields, type Charged } from './ChargedFields.tsx';
import { Choice, type Named } from './Choice.tsx';

const KINDS = [
  { id: 'claim', name: 'Claim' },
  { id: 'plan', name: 'Plan' },
  { id: 'advance', name: 'Advance' },
];

/** Tries who would decide about a made-up record, by the routes as they are; nothing is kept. */
export function RouteTrial({ people, entities }: { people: Named[]; entities: Named[] }) {
  const categories = useChart().data?.categories ?? [];
  const [route, setRoute] = useState<RouteAnswer | null>(null);
  const [typed, setTyped] = useState({
    ...{ kind: 'claim', on: todayHere(), entity: entities[0]?.id ?? '', claimant: people[0]?.id ?? '' },
    ...{ preparer: '', total: '', currency: 'EUR', category: '' },
  });
  const [charged, setCharged] = useState<Charged[]>([]);
  const set = (fields: Partial<typeof typed>) => setTyped({ ...typed, ...fields });
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const { category, preparer, ...rest } = typed;
    const wanted = {
      ...rest,
      preparer: preparer || null,
      charged: charged.filter((c) => c.code && c.amount),
      categories: category ? [category] : [],
    };
    setRoute((await tryRoute(wanted as TryRoute).catch(failed)) ?? null);
  };
  return (
    <div className="grid gap-6 lg:grid-cols-[28rem_minmax(0,1fr)]">
      <form onSubmit={(e) => void submit(e)} aria-label="A made-up record">
        <h1 className="pt-3 text-xl font-semibold">Try a route</h1>
        <p className="quiet text-sm">
          Who would decide about a record like this, by the routes of its day. Nothing is kept.
        </p>
        <div className="mt-2 grid grid-cols-2 gap-x-3 gap-y-1">
          <Choice label="What" value={typed.kind} options={KINDS} onChange={(kind) => set({ kind })} />
          <DayEntry label="Submitted on" value={typed.on} onChange={(on) => set({ on })} />
          <Choice label="Entity" value={typed.entity} options={entities} onChange={(entity) => set({ entity })} />
          <Choice label="Claimant" value={typed.claimant} options={people} onChange={(claimant) => set({ claimant })} />
          <Choice
            label="Prepared by"
            value={typed.preparer}
            options={[{ id: '', name: 'the claimant' }, ...people]}
            onChange={(preparer) => set({ preparer })}
          />
          <Choice
            label="Category"
            value={typed.category}
            options={[
              { id: '', name: 'none in particular' },
              ...categories.map(({ id, name }) => ({ id, name: name ?? id })),
            ]}
            onChange={(category) => set({ category })}
          />
          <Entry label="Total" value={typed.total} onChange={(total) => set({ total })} />
          <Entry
            label="Currency"
            value={typed.currency}
            onChange={(currency) => set({ currency: currency.toUpperCase() })}
          />
        </div>
        <ChargedFields charged={charged} onChange={setCharged} />
        <button className="btn btn-primary btn-sm mt-4" disabled={typed.total.trim() === ''}>
          Show the route
        </button>
      </form>
      <section aria-label="The route" className="pt-3">
        {route ? (
          <div className="rounded-box border border-base-300 bg-base-100 p-4">
            <RouteSteps route={route} />
          </div>
        ) : (
          <Empty title="No route yet">
            Say what the record is; the steps of its route appear here, with their reasons.
          </Empty>
        )}
      </section>
    </div>
  );
}
