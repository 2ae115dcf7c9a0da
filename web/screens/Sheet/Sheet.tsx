import { useMemo, useState } from 'react';
import { Navigate, useNavigate, useParams } from 'react-router';
import type { ClaimView } from '../../api/claims.ts';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { toast } from '../../parts/toast.tsx';
import { useKeys } from '../../parts/useKeys.ts';
import { usePreview } from '../../worker/usePreview.ts';
import { neighbour } from '../Desk/queueOrder.ts';
import { kindsShown, matrixRows, nextLoose, shownState, type Cell } from './cells.ts';
import { Evidence } from './Evidence.tsx';
import { Matrix } from './Matrix.tsx';
import { PostingStrip } from './PostingStrip.tsx';
import { SheetHead, type Panel } from './SheetHead.tsx';
import { lineWith, partOf, undoClear, type BenchKind } from './bench.ts';
import { useSheet, type SheetState } from './useSheet.ts';

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
  const { bench, setBench } = sheet;
  const typed = useMemo(() => (bench ? lineWith(view, bench) : null), [view, bench]);
  const preview = usePreview(view, typed);
  const shown = preview?.ok ? preview : { assessment: sheet.posting?.assessment ?? view.assessment, ties: view.ties };
  const kinds = kindsShown(view.ties);
  const rows = matrixRows(view.document.claim.lines, shown.ties, shown.assessment.findings, view.marks);
  const [cell, setCell] = useState<Cell | null>(
    () => nextLoose(rows, kinds, view.marks, null) ?? firstCell(rows[0]?.line.id, kinds),
  );
  const [unfolded, setUnfolded] = useState(false);
  const [panel, showPanel] = useState<Panel>(null);
  const setPanel = (next: Panel) => {
    showPanel(next);
    sheet.setPostingDate(next === 'post' ? view.document.postingDate : null);
  };
  const [asking, setAsking] = useState<'waive' | 'ask' | null>(null);
  const [journalOpen, setJournalOpen] = useState(view.may.includes('post'));
  const visible = unfolded
    ? rows
    : rows.filter((row) => !row.quiet || row.line.id === cell?.line || row.line.id === bench?.line);

  const openBench = (kind: BenchKind) => {
    if (!cell || !view.may.includes('correct')) return;
    const line = view.document.claim.lines.find((l) => l.id === cell.line)!;
    const first = line.items?.find((item) => !item.personal);
    const item = kind === 'items' ? null : (first?.id ?? null);
    setBench({ line: cell.line, item, kind, set: startingSet(view, cell.line, item, kind) });
  };
  useSheetKeys({
    sheet,
    view,
    cell,
    setCell,
    rows: visible,
    kinds,
    openBench,
    setPanel,
    setAsking,
    panel,
    asking,
    toggleJournal: () => setJournalOpen((o) => !o),
  });

  return (
    <div className="flex min-h-0 flex-1 flex-col lg:h-[calc(100dvh-2.75rem)] lg:flex-none">
      <SheetHead sheet={sheet} view={view} assessment={shown.assessment} panel={panel} setPanel={setPanel} />
      <div className="grid min-h-0 flex-1 grid-cols-1 lg:grid-rows-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_25rem] xl:grid-cols-[minmax(0,1fr)_28rem]">
        <section aria-label="Lines" className="min-h-0 overflow-auto border-r border-base-300">
          <Matrix
            view={view}
            rows={visible}
            folded={rows.filter((row) => !visible.includes(row))}
            kinds={kinds}
            cell={cell}
            onCell={setCell}
            onUnfold={() => setUnfolded(true)}
            sheet={sheet}
            assessment={shown.assessment}
            problem={preview && !preview.ok ? preview.problem.message : null}
          />
        </section>
        <Evidence
          sheet={sheet}
          view={view}
          ties={shown.ties}
          cell={cell}
          onCell={setCell}
          asking={asking}
          setAsking={setAsking}
        />
      </div>
      <PostingStrip
        view={view}
        assessment={shown.assessment}
        changed={preview !== null}
        date={sheet.posting?.date ?? view.document.postingDate}
        open={journalOpen}
        onToggle={() => setJournalOpen((o) => !o)}
      />
    </div>
  );
}

const firstCell = (line: string | undefined, kinds: Cell['kind'][]): Cell | null =>
  line && kinds[0] ? { line, kind: kinds[0] } : null;

/** What a bench begins with: the part's own values, so that saving without a change changes nothing. */
function startingSet(view: ClaimView, line: string, item: string | null, kind: BenchKind) {
  const part = partOf(view, { line, item });
  switch (kind) {
    case 'split':
      return {
        split: part.split ?? {
          by: 'percent' as const,
          shares: [
            { coding: {}, value: '50' },
            { coding: {}, value: 'rest' },
          ],
        },
      };
    case 'coding':
      return { coding: part.coding ?? {}, ...(part.category ? { category: part.category } : {}) };
    case 'tax':
      return { tax: part.tax ?? [] };
    case 'items':
      return {};
    default:
      return kind satisfies never;
  }
}

interface KeyScope {
  sheet: SheetState;
  view: ClaimView;
  cell: Cell | null;
  setCell: (cell: Cell) => void;
  rows: ReturnType<typeof matrixRows>;
  kinds: Cell['kind'][];
  openBench: (kind: BenchKind) => void;
  panel: Panel;
  setPanel: (panel: Panel) => void;
  asking: 'waive' | 'ask' | null;
  setAsking: (asking: 'waive' | 'ask' | null) => void;
  toggleJournal: () => void;
}

function useSheetKeys(scope: KeyScope): void {
  const { sheet, view, cell, setCell, rows, kinds, openBench, setPanel, setAsking, toggleJournal } = scope;
  const navigate = useNavigate();
  const may = (act: ClaimView['may'][number]) => view.may.includes(act);
  const move = (down: number, right: number) => {
    const row = rows.findIndex((r) => r.line.id === cell?.line);
    if (down > 0 && row === rows.length - 1) document.getElementById('folded')?.focus();
    const next = rows[Math.max(0, Math.min(rows.length - 1, row + down))];
    const kind = kinds[Math.max(0, Math.min(kinds.length - 1, kinds.indexOf(cell?.kind ?? kinds[0]!) + right))];
    if (next && kind) setCell({ line: next.line.id, kind });
  };
  const go = (step: -1 | 1) => {
    const to = neighbour(view.claim.number, step);
    if (to) void navigate(`/desk/${to}`);
    else toast({ text: 'The queue, as the Desk last showed it, ends here.' });
  };
  const goToNextLoose = () => {
    const all = matrixRows(view.document.claim.lines, view.ties, view.assessment.findings, view.marks);
    const next = nextLoose(all, kinds, view.marks, cell);
    if (next) setCell(next);
  };
  const tick = () => {
    if (!cell || !may('correct')) return;
    const tie = view.ties.find((t) => t.line === cell.line && t.kind === cell.kind);
    void sheet.mark(
      cell,
      shownState(tie, view.marks) === 'seen'
        || view.marks.some((m) => m.line === cell.line && m.kind === cell.kind && m.mark === 'seen')
        ? 'none'
        : 'seen',
    );
  };
  const close = () => {
    if (scope.asking) setAsking(null);
    else if (sheet.bench) sheet.setBench(null);
    else setPanel(null);
  };
  useKeys({
    ArrowDown: () => move(1, 0),
    ArrowUp: () => move(-1, 0),
    ArrowRight: () => move(0, 1),
    ArrowLeft: () => move(0, -1),
    Enter: () => document.getElementById('evidence')?.focus(),
    n: goToNextLoose,
    ' ': tick,
    w: () => may('correct') && setAsking('waive'),
    a: () => may('correct') && setAsking('ask'),
    s: () => openBench('split'),
    c: () => openBench('coding'),
    t: () => openBench('tax'),
    i: () => openBench('items'),
    j: toggleJournal,
    h: () => may('hold') && setPanel('hold'),
    r: () => may('return') && setPanel('return'),
    p: () => may('post') && setPanel('post'),
    u: () => void sheet.undo(),
    ',': () => go(-1),
    '.': () => go(1),
    'Ctrl+Enter': () =>
      may('clear')
      && !sheet.bench
      && void sheet.run(`${view.claim.number} is cleared`, (revision) => sheet.acts.plain('clear', revision), {
        undo: undoClear(view),
      }),
    Escape: close,
  });
}
