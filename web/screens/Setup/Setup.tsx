import { useRows } from '../../api/setup.ts';
import type { Person } from '../../api/session.ts';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import type { Named } from './Choice.tsx';
import { FailedJobs } from './FailedJobs.tsx';
import { RateCorrections } from './RateCorrections.tsx';
import { RouteTrial } from './RouteTrial.tsx';
import { Substitutes } from './Substitutes.tsx';

/** What whoever keeps the organisation looks after here: how records find who decides, and who stands in for whom. */
export default function Setup({ person }: { person: Person }) {
  const people = useRows('people');
  const entities = useRows('entities');
  const error = people.error ?? entities.error;
  if (!people.data || !entities.data)
    return error ? <Trouble error={error} retry={() => void people.mutate()} /> : <Loading shape="rows" />;
  const named = (rows: typeof people.data.rows): Named[] =>
    rows
      .map(({ row }) => ({ id: String(row.id), name: String(row.name) }))
      .sort((a, b) => a.name.localeCompare(b.name));
  return (
    <div className="mx-auto w-full max-w-6xl px-4 pb-10">
      <RouteTrial people={named(people.data.rows)} entities={named(entities.data.rows)} />
      <Substitutes people={named(people.data.rows)} keeps={person.roles.includes('administrator')} />
      {person.roles.includes('administrator') && <FailedJobs />}
      <RateCorrections keeps={person.roles.includes('administrator')} />
    </div>
  );
}
