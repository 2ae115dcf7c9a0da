import type { MakerView } from '../../../api/claims.ts';
import { ProblemList } from '../../../parts/ProblemList.tsx';
import type { Draft } from './useDraft.ts';
import { WordCell } from './WordCell.tsx';

type Found = MakerView['findings'][number];
const isSaid = ({ severity }: Found): boolean => severity !== 'note';

interface ProblemsProps {
  view: MakerView;
  draft: Draft;
}

/** What stands against the claim as a whole; what is said of a line stands at the line. */
export function Problems({ view, draft }: ProblemsProps) {
  const problems = view.findings
    .filter((f) => isSaid(f) && f.line === null)
    .map((f, i) => ({
      key: `${f.code} ${f.says}`,
      place: 'claim',
      jump: null,
      says: f.says,
      beside: <FindingAside {...{ view, draft }} finding={f} row={i} />,
    }));
  return <ProblemList problems={problems} />;
}

interface FindingAsideProps extends ProblemsProps {
  finding: Found;
  row: number;
}

/** What is done about a finding: put right, or said why. */
export function FindingAside({ finding, ...word }: FindingAsideProps) {
  if (finding.severity === 'stop') return <span className="shrink-0 text-error">has to be put right</span>;
  return (
    <span className="w-full shrink-0 sm:w-80">
      <WordCell {...word} finding={finding} />
    </span>
  );
}

interface CountProps {
  view: MakerView;
  onJump: (line: string) => void;
}

/** How much there is to look at; pressed, it goes to the first line of which something is said, then from one to the next. */
export function ProblemCount({ view, onJump }: CountProps) {
  const said = view.findings.filter(isSaid);
  const lines = [...new Set(said.flatMap((f) => f.line ?? []))];
  if (said.length === 0) return null;
  const next = () => {
    const here = lines.findIndex((line) => document.getElementById(`line-${line}`)?.contains(document.activeElement));
    onJump(lines[(here + 1) % lines.length]!);
  };
  return (
    <button type="button" className="link text-sm" disabled={lines.length === 0} onClick={next}>
      {said.length} {said.length === 1 ? 'thing' : 'things'} to look at
    </button>
  );
}
