import type { PlanAnswer } from '../../api/plans.ts';

const WEIGHT = { stop: 'has to be put right', ask: 'will be asked about', note: '' } as const;
const LABELS: Record<string, string> = {
  country: 'Country of the trip',
  from: 'First day',
  to: 'Last day',
  count: 'Count of estimate',
  price: 'Price of estimate',
};

/** What a plan wants before it can be decided about, each with a way to its field. */
export function PlanProblems({ view }: { view: PlanAnswer }) {
  const found = view.problems.filter((p) => p.severity !== 'note');
  if (found.length === 0) return null;
  return (
    <section aria-label="Problems" className="mt-3 rounded-box border border-base-300 bg-base-100 px-4 py-2">
      <h2 className="font-semibold">
        {found.length} {found.length === 1 ? 'thing' : 'things'} to look at
      </h2>
      <ul className="mt-1 text-sm">
        {found.map((p, i) => (
          <li key={i} className="flex gap-3 border-t border-base-300 py-1">
            <span className="w-24 shrink-0">
              {view.may.includes('edit') ? (
                <button type="button" className="link" onClick={() => jumpTo(p)}>
                  {placeOf(p)}
                </button>
              ) : (
                <span className="quiet">{placeOf(p)}</span>
              )}
            </span>
            <span className="min-w-0 flex-1">{p.says}</span>
            <span className={`shrink-0 ${p.severity === 'stop' ? 'text-error' : 'quiet'}`}>{WEIGHT[p.severity]}</span>
          </li>
        ))}
      </ul>
    </section>
  );
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
