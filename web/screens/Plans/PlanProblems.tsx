import type { PlanAnswer } from '../../api/plans.ts';
import { ProblemList } from '../../parts/ProblemList.tsx';

const WEIGHT = { stop: 'has to be put right', ask: 'will be asked about', note: '' } as const;
const LABELS: Record<string, string> = {
  country: 'Country of the trip',
  from: 'First day',
  to: 'Last day',
  count: 'Count of estimate',
  price: 'Price of estimate',
};

/** What a plan wants before it can be decided about. */
export function PlanProblems({ view }: { view: PlanAnswer }) {
  const found = view.problems.filter((p) => p.severity !== 'note');
  const written = view.may.includes('edit');
  const problems = found.map((p, i) => ({
    key: `${i} ${p.says}`,
    place: placeOf(p),
    jump: written ? () => jumpTo(p) : null,
    says: p.says,
    beside: <span className={`shrink-0 ${p.severity === 'stop' ? 'text-error' : 'quiet'}`}>{WEIGHT[p.severity]}</span>,
  }));
  return <ProblemList problems={problems} />;
}

type Problem = PlanAnswer['problems'][number];
const placeOf = ({ estimate }: Problem): string => (estimate === null ? 'the trip' : `estimate ${estimate}`);

/** Puts the focus where the problem is put right. */
function jumpTo({ estimate, field }: Problem): void {
  const label = LABELS[field ?? ''];
  const exact = label && `[aria-label="${label}${estimate === null ? '' : ` ${estimate}`}"]`;
  const around = estimate === null ? `#field-${field}` : `#estimate-${estimate}`;
  const target =
    (exact && document.querySelector<HTMLElement>(exact))
    || document.querySelector<HTMLElement>(`${around} :is(input, button, [role=combobox])`);
  target?.scrollIntoView({ block: 'center' });
  target?.focus();
}
