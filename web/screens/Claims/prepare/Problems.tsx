import type { MakerView } from '../../../api/claims.ts';
import type { Draft } from './useDraft.ts';
import { WordCell } from './WordCell.tsx';

interface ProblemsProps {
  view: MakerView;
  draft: Draft;
  onJump: (line: string) => void;
}

/** Everything that stands against the claim as it is, each with a way to it; what is asked is answered right here. */
export function Problems({ view, draft, onJump }: ProblemsProps) {
  const found = view.findings.filter((f) => f.severity !== 'note');
  if (found.length === 0) return null;
  return (
    <section aria-label="Problems" className="mt-3 rounded-box border border-base-300 bg-base-100 px-4 py-2">
      <h2 className="font-semibold">
        {found.length} {found.length === 1 ? 'thing' : 'things'} to look at
      </h2>
      <ul className="mt-1 text-sm">
        {found.map((f, i) => (
          <li
            key={`${f.line} ${f.code} ${f.says}`}
            className="flex flex-wrap items-baseline gap-x-3 border-t border-base-300 py-1 sm:flex-nowrap"
          >
            <span className="w-16 shrink-0">
              {f.line === null ? (
                <span className="quiet">claim</span>
              ) : (
                <button type="button" className="link" onClick={() => onJump(f.line!)}>
                  line {f.line}
                </button>
              )}
            </span>
            <span className="min-w-0 flex-1">{f.says}</span>
            {f.severity === 'stop' ? (
              <span className="shrink-0 text-error">has to be put right</span>
            ) : (
              <span className="w-full sm:w-80">
                <WordCell {...{ view, draft }} finding={f} row={i} />
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
