import type { ReactNode } from 'react';

/** Something that stands against a record: where, what, and what is done about it. */
export interface Problem {
  key: string;
  place: string;
  /** Goes to where it is put right; null where nothing is, or nobody may. */
  jump: (() => void) | null;
  says: string;
  /** What stands beside it: how much it weighs, or where a word is said to it. */
  beside: ReactNode;
}

/** Everything that stands against a record as it is, each with a way to it. */
export function ProblemList({ problems }: { problems: readonly Problem[] }) {
  if (problems.length === 0) return null;
  return (
    <section aria-label="Problems" className="mt-3 rounded-box border border-base-300 bg-base-100 px-4 py-2">
      <h2 className="font-semibold">
        {problems.length} {problems.length === 1 ? 'thing' : 'things'} to look at
      </h2>
      <ul className="mt-1 text-sm">
        {problems.map(({ key, place, jump, says, beside }) => (
          <li key={key} className="flex flex-wrap items-baseline gap-x-3 border-t border-base-300 py-1 sm:flex-nowrap">
            <span className="w-24 shrink-0">
              {jump ? (
                <button type="button" className="link" onClick={jump}>
                  {place}
                </button>
              ) : (
                <span className="quiet">{place}</span>
              )}
            </span>
            <span className="min-w-0 flex-1">{says}</span>
            {beside}
          </li>
        ))}
      </ul>
    </section>
  );
}
