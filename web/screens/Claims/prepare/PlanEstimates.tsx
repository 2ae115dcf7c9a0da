import { useDroppable } from '@dnd-kit/core';
import { Link } from 'react-router';
import { useChart } from '../../../api/chart.ts';
import type { MakerView, SpentEstimate } from '../../../api/claims.ts';
import { categoriesOf } from '../../../parts/CategoryChoice.tsx';
import { Money } from '../../../parts/Money.tsx';
import { groupDigits } from '../../../../core/numbers/groupDigits.ts';
import { proposedEstimates } from './proposedEstimates.ts';
import type { Draft } from './useDraft.ts';

type Plan = NonNullable<MakerView['plan']>;
const SURE = 80;

/**
 * The estimates of the claim's plan, each with what its lines came to; in preparation lines are dropped on them, and those
 * that look like their cost are proposed.
 */
export function PlanEstimates({ view, plan, draft }: { view: MakerView; plan: Plan; draft: Draft | null }) {
  const chart = useChart().data;
  const proposed = draft ? proposedEstimates(view, plan.estimates) : [];
  const sure = proposed.filter((p) => p.score >= SURE);
  const nameOf = (category: string | null) =>
    categoriesOf(chart).find((c) => c.id === category)?.name ?? category ?? 'estimate';
  const take = (those: typeof proposed) => {
    for (const { line, estimate } of those) draft?.editLine(line, { estimate });
  };
  return (
    <section aria-label="Estimates of the plan" className="mt-5">
      <h2 className="font-semibold">
        Plan{' '}
        <Link to={`/plans/${plan.number}`} className="link font-mono text-sm">
          {plan.number}
        </Link>
      </h2>
      <ul className="mt-1 grid gap-2 sm:grid-cols-[repeat(auto-fill,minmax(13rem,1fr))]">
        {plan.estimates.map((estimate) => (
          <Estimate
            key={estimate.id}
            estimate={estimate}
            name={nameOf(estimate.category)}
            currency={view.claim.currency}
          />
        ))}
      </ul>
      {proposed.length > 0 && (
        <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
          <span className="quiet">Looks like:</span>
          {proposed.map((p) => (
            <button key={p.line} type="button" className="link" title={p.reasons.join(', ')} onClick={() => take([p])}>
              line {p.line} is estimate {p.estimate} ({p.score})
            </button>
          ))}
          {sure.length > 1 && (
            <button type="button" className="btn btn-xs" onClick={() => take(sure)}>
              Put all {sure.length} from {SURE} up
            </button>
          )}
        </div>
      )}
    </section>
  );
}

interface EstimateProps {
  estimate: SpentEstimate;
  name: string;
  currency: string;
}

/** One estimate; a line is dropped on it. */
function Estimate({ estimate, name, currency }: EstimateProps) {
  const { id, amount, actual, kept, lines } = estimate;
  const { setNodeRef, isOver } = useDroppable({ id: `estimate ${id}` });
  return (
    <li
      ref={setNodeRef}
      className={`rounded-box border px-3 py-1.5 ${isOver ? 'border-primary bg-base-200' : 'border-base-300 bg-base-100'}`}
    >
      <span className="flex items-baseline gap-2">
        <span className="quiet font-mono text-sm">{id}</span>
        <span className="min-w-0 flex-1 truncate">{name}</span>
        <Money amount={amount} currency={currency} />
      </span>
      <span className={`flex justify-between text-sm ${kept ? 'quiet' : 'text-error'}`}>
        <span>
          {lines.length === 0 ? 'no line yet' : `${lines.length === 1 ? 'line' : 'lines'} ${lines.join(', ')}`}
        </span>
        <span>{actual === null ? 'not known' : `${groupDigits(actual)} spent`}</span>
      </span>
    </li>
  );
}
