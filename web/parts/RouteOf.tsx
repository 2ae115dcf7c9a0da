import { useRoute, type Waiting } from '../api/approvals.ts';
import { RouteSteps } from './RouteSteps.tsx';

interface RouteOfProps {
  kind: Waiting['kind'];
  number: string;
  revision: number;
  title: string;
}

/** The route of a record under a heading; nothing while it is not known. */
export function RouteOf({ kind, number, revision, title }: RouteOfProps) {
  const { data: route } = useRoute(kind, number, revision);
  if (!route || (route.levels.length === 0 && route.codes.length === 0)) return null;
  return (
    <section aria-label={title} className="mt-3 rounded-box border border-base-300 bg-base-100 px-4 py-3">
      <h2 className="mb-1.5 font-semibold">{title}</h2>
      <RouteSteps route={route} />
    </section>
  );
}
