import { useCallback, useMemo, useRef, useState } from 'react';
import { Navigate, useParams } from 'react-router';
import type { Assessment } from '../../../core/documents/assessment.schema.ts';
import type { Tie } from '../../../core/evidence/comparisons/tie.types.ts';
import type { ClaimView } from '../../api/claims.ts';
import { ClaimFindings } from '../../parts/ClaimFindings.tsx';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { usePreview } from '../../worker/usePreview.ts';
import { kindsShown, matrixRows, nextLoose, type Cell, type MatrixRow, type RowMemory } from './cells.ts';
import { Beside, type Side } from './Beside.tsx';
import { Matrix } from './Matrix.tsx';
import { PostingStrip } from './PostingStrip.tsx';
import { SheetHead, type Panel } from './SheetHead.tsx';
import { linesWith } from './bench.ts';
import { useSheet, type SheetState } from './useSheet.ts';
import { useHere } from './useHere.ts';
import { useSheetKeys } from './useSheetKeys.ts';

/** One claim on one page: its lines against their evidence, what it will post, and the acts on it. */
export default function Sheet() {
  const { number = '' } = useParams();
  const sheet = useSheet(number);
  if (sheet.error && !sheet.view) return <Trouble error={sheet.error} retry={() => void sheet.reload()} />;
  if (sheet.elsewhere) return <Navigate to={`/claims/${number}`} replace />;
  if (!sheet.view) return <Loading shape="sheet" />;
  return <OpenSheet key={number} sheet={sheet} view={sheet.view} />;
}

function OpenSheet({ sheet, view }: { sheet: SheetState; view: ClaimView }) {
  const { preview, ...shown } = useShown(sheet, view);
  const { kinds, cell, setCell, visible, folded, unfold } = useCells(view, shown, sheet.bench?.line ?? null);
  const [panel, showPanel] = useState<Panel>(null);
  const setPanel = (next: Panel) => {
    showPanel(next);
    sheet.setPostingDate(next === 'post' ? view.proposedDate : null);
  };
  const [asking, setAsking] = useState<Asking>(null);
  const [journalOpen, setJournalOpen] = useState(view.may.includes('post'));
  const scroller = useRef<HTMLElement>(null);
  const toggleJournal = useCallback(() => setJournalOpen((open) => !open), []);
  const focus = { cell, onCell: setCell };
  const [side, setSide] = useState<Side>('evidence');
  const here = useHere({
    number: view.claim.number,
    revision: view.claim.revision,
    on: view.audience === 'finance',
    onNewer: () => void sheet.reload(),
  });
  useSheetKeys({
    ...{ sheet, view, cell, setCell, rows: visible, kinds, setPanel, setAsking, asking, toggleJournal, side, setSide },
  });

  return (
    <div className="flex min-h-0 flex-1 flex-col lg:h-[calc(100dvh-2.75rem)] lg:flex-none">
      <SheetHead
        {...{ sheet, view, panel, setPanel, kinds, setCell, setSide }}
        others={here.others}
        assessment={shown.assessment}
      />
      <div className="grid min-h-0 flex-1 grid-cols-1 lg:grid-rows-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_25rem] xl:grid-cols-[minmax(0,1fr)_28rem]">
        <div className="flex min-h-0 min-w-0 flex-col border-r border-base-300">
          <section ref={scroller} aria-label="Lines" className="min-h-0 flex-1 overflow-auto">
            <ClaimFindings findings={shown.assessment.findings} explanations={view.document.claim.explanations} />
            <Matrix
              {...{ view, kinds, sheet, scroller, ...focus }}
              rows={visible}
              folded={folded}
              onUnfold={unfold}
              assessment={shown.assessment}
              problem={preview && !preview.ok ? preview.problem.message : null}
              undivided={preview?.ok ? preview.undivided : []}
            />
          </section>
          <PostingStrip
            view={view}
            assessment={shown.assessment}
            changed={preview !== null}
            date={sheet.posting?.date ?? view.document.postingDate}
            open={journalOpen}
            onToggle={toggleJournal}
          />
        </div>
        <Beside
          {...{ sheet, view, asking, setAsking, side, setSide, ...focus }}
          ties={shown.ties}
          before={here.before}
        />
      </div>
    </div>
  );
}

type Asking = 'waive' | 'ask' | null;

type Shown = { ties: Tie[]; assessment: Assessment };

/** The figures that are shown: as typed in a bench, as they would be posted on another date, or as they are stored. */
function useShown({ bench, posting }: SheetState, view: ClaimView) {
  const typed = useMemo(() => (bench ? linesWith(view, bench) : null), [view, bench]);
  const preview = usePreview(view, typed);
  const { assessment, ties } = preview?.ok
    ? preview
    : { assessment: posting?.assessment ?? view.assessment, ties: view.ties };
  return { preview, assessment, ties };
}

/** The rows of the matrix, those that are folded, and the cell in focus: at first the first one that is not tied, or a line that has a stop. */
function useCells(view: ClaimView, { ties, assessment }: Shown, benchLine: string | null) {
  const kinds = useMemo(() => kindsShown(view.ties), [view]);
  const [memory] = useState<RowMemory>(() => new Map());
  const rows = useMemo(
    () => matrixRows(view.document.claim.lines, ties, assessment.findings, view.marks, memory),
    [view, ties, assessment, memory],
  );
  const [cell, setCell] = useState<Cell | null>(
    () => nextLoose(rows, kinds, view.marks, null) ?? firstCell((rows.find(hasStop) ?? rows[0])?.line.id, kinds),
  );
  const [unfolded, setUnfolded] = useState(false);
  const inUse = (line: string) => line === cell?.line || line === benchLine;
  const isFolded = (row: MatrixRow) => !unfolded && row.quiet && !inUse(row.line.id);
  const [visible, folded] = [rows.filter((row) => !isFolded(row)), rows.filter(isFolded)];
  return { kinds, cell, setCell, visible, folded, unfold: () => setUnfolded(true) };
}

const hasStop = (row: MatrixRow) => row.findings.some((f) => f.severity === 'stop');
const firstCell = (line: string | undefined, kinds: Cell['kind'][]): Cell | null =>
  line && kinds[0] ? { line, kind: kinds[0] } : null;
