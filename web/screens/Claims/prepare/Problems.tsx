import type { MakerView } from '../../../api/claims.ts';
import { ProblemList } from '../../../parts/ProblemList.tsx';
import type { Draft } from './useDraft.ts';
import { WordCell } from './WordCell.tsx';

interface ProblemsProps {
  view: MakerView;
  draft: Draft;
  onJump: (line: string) => void;
}

/** What stands against the claim as it is; what is asked is answered right there. */
export function Problems({ view, draft, onJump }: ProblemsProps) {
  const found = view.findings.filter((f) => f.severity !== 'note');
  const problems = found.map((f, i) => ({
    key: `${f.line} ${f.code} ${f.says}`,
    place: f.line === null ? 'claim' : `line ${f.line}`,
    jump: f.line === null ? null : () => onJump(f.line!),
    says: f.says,
    beside:
      f.severity === 'stop' ? (
        <span className="shrink-0 text-error">has to be put right</span>
      ) : (
        <span className="w-full sm:w-80">
          <WordCell {...{ view, draft }} finding={f} row={i} />
        </span>
      ),
  }));
  return <ProblemList problems={problems} />;
}
