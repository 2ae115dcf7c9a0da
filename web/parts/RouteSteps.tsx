import { Check, CircleDashed, Clock } from 'lucide-react';
import type { RouteAnswer, RouteNeed } from '../api/approvals.ts';
import { sayAbout, sayDetour, saySkip } from '../words/sayRoute.ts';
import { sayMoment } from '../words/sayEvent.ts';

/** Who decides about a record, step by step: who has, who is waited for, who comes then, and which levels ask nobody and why. */
export function RouteSteps({ route }: { route: RouteAnswer }) {
  const asking = route.levels.filter((l) => l.needs.length > 0);
  const places = [...new Set(asking.map((l) => l.place))];
  const skipped = route.levels.flatMap((l) => l.skipped.map((s) => `${l.name}: ${saySkip(s, route.ledgerCurrency)}`));
  return (
    <div className="text-sm">
      {route.unfilled && <Unfilled {...route.unfilled} />}
      <ol className="grid gap-1.5">
        {places.map((place, step) => (
          <li key={place} className="grid grid-cols-[1.25rem_minmax(0,1fr)] gap-x-2">
            <span className="quiet text-right">{step + 1}</span>
            <ul className="grid gap-1.5">
              {asking
                .filter((l) => l.place === place)
                .flatMap((l) =>
                  l.needs.map((need, i) => <NeedRow key={`${l.name} ${i}`} {...{ route, need }} level={l.name} />),
                )}
            </ul>
          </li>
        ))}
      </ol>
      {route.codes.length > 0 && (
        <>
          <h3 className="mt-2 font-semibold">Codes that finance gave it</h3>
          <ul className="grid gap-1.5 pl-7">
            {route.codes.map((need, i) => (
              <NeedRow key={i} {...{ route, need }} level="owner" />
            ))}
          </ul>
        </>
      )}
      {skipped.length > 0 && (
        <details className="mt-2">
          <summary className="quiet cursor-pointer">
            {skipped.length === 1 ? 'One level asks' : `${skipped.length} levels ask`} nobody more
          </summary>
          <ul className="mt-1 list-disc pl-9">
            {skipped.map((says) => (
              <li key={says}>{says}</li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}

const Unfilled = ({ level, ask }: { level: string; ask: string[] }) => (
  <p role="alert" className="mb-2 text-error">
    Nobody is left to decide at “{level}”. Ask {ask.join(' or ') || 'an administrator'} to name somebody.
  </p>
);

function NeedRow({ route, need, level }: { route: RouteAnswer; need: RouteNeed; level: string }) {
  const about = sayAbout(need.about, route.ledgerCurrency);
  return (
    <li className="grid grid-cols-[1.1rem_minmax(0,1fr)] items-baseline gap-x-1.5">
      <State need={need} submitted={route.submitted} />
      <span>
        <strong className="font-semibold">{need.people.join(' or ')}</strong>{' '}
        <span className="quiet">
          {level}
          {about && `, about ${about}`}
        </span>
        <Outcome need={need} submitted={route.submitted} />
        {need.detours.map((detour) => (
          <span key={detour.person} className="quiet block">
            {sayDetour(detour)}
          </span>
        ))}
      </span>
    </li>
  );
}

function State({ need, submitted }: { need: RouteNeed; submitted: boolean }) {
  if (need.decidedBy) return <Check size={14} className="translate-y-0.5 text-success" aria-hidden />;
  if (need.waiting) return <Clock size={14} className="translate-y-0.5 text-warning" aria-hidden />;
  return <CircleDashed size={14} className={`translate-y-0.5 ${submitted ? 'opacity-60' : ''}`} aria-hidden />;
}

function Outcome({ need, submitted }: { need: RouteNeed; submitted: boolean }) {
  if (need.decidedBy)
    return (
      <span className="block">
        yes by {need.decidedBy}
        {need.decidedAt && <span className="quiet">, {sayMoment(need.decidedAt)}</span>}
      </span>
    );
  if (need.waiting) return <span className="block">is asked now</span>;
  return submitted ? <span className="quiet block">not asked yet</span> : null;
}
