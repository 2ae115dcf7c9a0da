import type { MakerView } from '../../../api/claims.ts';
import { longerThan } from '../../../parts/cellProblems.ts';
import { Cell } from '../../../parts/Cell.tsx';
import { wordTo } from '../../../../core/workflow/wordsWanted.ts';
import type { Draft } from './useDraft.ts';

interface WordCellProps {
  view: MakerView;
  finding: MakerView['findings'][number];
  row: number;
  draft: Draft;
}

/** What the claimant says to a finding; it stands beside it for whoever decides. */
export function WordCell({ view, finding, row, draft }: WordCellProps) {
  const { line, code, says } = finding;
  return (
    <span className="cells-open block">
      <Cell
        label={`Why, to: ${line === null ? '' : `line ${line}, `}${says}`}
        row={row}
        column="why"
        value={wordTo(finding, view.document.explanations) ?? ''}
        placeholder="Say why in a few words"
        problemOf={longerThan(1000)}
        onSave={(typed, done) => draft.explain({ line, code, about: says, text: typed.trim() }, done)}
      />
    </span>
  );
}
