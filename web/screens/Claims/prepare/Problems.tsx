import type { MakerView } from '../../../api/claims.ts';

const WEIGHT = { stop: 'has to be put right', ask: 'will be asked about', note: '' } as const;

/** Everything that stands against the claim as it is, each with a way to it. */
export function Problems({ view, onJump }: { view: MakerView; onJump: (line: string) => void }) {
  const found = view.findings.filter((f) => f.severity !== 'note');
  if (found.length === 0) return null;
  return (
    <section aria-label="Problems" className="mt-3 rounded-box border border-base-300 bg-base-100 px-4 py-2">
      <h2 className="font-semibold">
        {found.length} {found.length === 1 ? 'thing' : 'things'} to look at
      </h2>
      <ul className="mt-1 text-sm">
        {found.map((f, i) => (
          <li key={i} className="flex gap-3 border-t border-base-300 py-1">
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
            <span className={`shrink-0 ${f.severity === 'stop' ? 'text-error' : 'quiet'}`}>{WEIGHT[f.severity]}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
