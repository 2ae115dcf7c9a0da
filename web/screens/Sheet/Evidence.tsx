import type { Tie } from '../../../core/evidence/comparisons/tie.types.ts';
import type { ClaimView } from '../../api/claims.ts';
import { TIE_WORDS, TieMark } from '../../parts/TieMark.tsx';
import { AskForm } from './AskForm.tsx';
import { PaperBeside } from './PaperBeside.tsx';
import { Comparisons, Steps } from './Comparisons.tsx';
import { Explained } from './Explained.tsx';
import { isLoose } from '../../../core/evidence/comparisons/stateWithMark.ts';
import { LineDecision } from './Decisions.tsx';
import { shownState, type Cell } from './cells.ts';
import type { SheetState } from './useSheet.ts';
import { LineTools } from './LineTools.tsx';
import { Thread } from './Thread.tsx';
import { KeyHint } from '../../parts/keys.tsx';

interface EvidenceProps {
  sheet: SheetState;
  view: ClaimView;
  ties: Tie[];
  cell: Cell | null;
  onCell: (cell: Cell) => void;
  asking: 'waive' | 'ask' | null;
  setAsking: (asking: 'waive' | 'ask' | null) => void;
}

/** The evidence for the cell in focus: both sides, the difference, how the figure came about, the receipt. */
export function Evidence({ cell, ...rest }: EvidenceProps) {
  if (!cell) return <p className="quiet p-4">This claim has no lines.</p>;
  return <CellEvidence key={`${cell.line} ${cell.kind}`} {...rest} cell={cell} />;
}

function CellEvidence({
  sheet,
  view,
  ties,
  cell,
  onCell,
  asking,
  setAsking,
}: Omit<EvidenceProps, 'cell'> & { cell: Cell }) {
  const tie = ties.find((t) => t.line === cell.line && t.kind === cell.kind);
  const receipt = view.receipts[cell.line];
  const may = view.may.includes('correct');
  return (
    <>
      <div
        className={receipt ? 'shrink-0 overflow-auto lg:max-h-[48%]' : ''}
        {...(receipt ? { tabIndex: 0, role: 'group', 'aria-label': `Line ${cell.line}, ${cell.kind}` } : {})}
      >
        <CellFacts sheet={sheet} view={view} cell={cell} tie={tie} setAsking={setAsking} />
        {asking && may && <AskForm {...{ sheet, view, cell, asking }} onClose={() => setAsking(null)} />}
      </div>
      {receipt && <PaperBeside {...{ view, cell, tie, onCell }} />}
    </>
  );
}

interface CellFactsProps {
  sheet: SheetState;
  view: ClaimView;
  cell: Cell;
  tie: Tie | undefined;
  setAsking: EvidenceProps['setAsking'];
}

/** What is known of a comparison, and the acts on it. */
function CellFacts({ sheet, view, cell, tie, setAsking }: CellFactsProps) {
  const state = shownState(tie, view.marks);
  const mark = view.marks.find((m) => m.line === cell.line && m.kind === cell.kind);
  return (
    <div className="px-4 pt-2 pb-3">
      <h2 className="flex items-center gap-2 font-semibold">
        <TieMark state={state} />
        Line {cell.line}, {cell.kind}
        <span className="quiet font-normal">{TIE_WORDS[state]}</span>
      </h2>
      {mark && (
        <p className="quiet text-sm">
          {mark.mark === 'waived' ? `Waived by ${mark.by}: ${mark.reason}` : `Seen by ${mark.by}`}
        </p>
      )}
      {tie && tie.comparisons.length > 0 && <Comparisons comparisons={tie.comparisons} />}
      <NothingThere cell={cell} tie={tie} state={state} receipt={view.receipts[cell.line] !== undefined} />
      {tie && tie.steps.length > 0 && <Steps tie={tie} />}
      <Explained key={cell.line} document={view.document} line={cell.line} />
      <LineNotes view={view} line={cell.line} />
      <Thread sheet={sheet} view={view} cell={cell} />
      {view.may.includes('correct') && (
        <>
          <CellActs sheet={sheet} cell={cell} state={state} marked={mark !== undefined} setAsking={setAsking} />
          <LineTools sheet={sheet} view={view} line={cell.line} />
        </>
      )}
      <LineDecision key={`decision ${cell.line}`} {...{ sheet, view }} line={lineOf(view, cell.line)} />
    </div>
  );
}

const lineOf = (view: ClaimView, id: string) => view.document.claim.lines.find((l) => l.id === id)!;

interface CellActsProps {
  sheet: SheetState;
  cell: Cell;
  state: ReturnType<typeof shownState>;
  marked: boolean;
  setAsking: EvidenceProps['setAsking'];
}

function CellActs({ sheet, cell, state, marked, setAsking }: CellActsProps) {
  return (
    <div className="mt-3 flex gap-2">
      {state !== 'none' && (
        <button type="button" className="btn btn-xs" onClick={() => void sheet.mark(cell, marked ? 'none' : 'seen')}>
          {marked ? 'Take mark back' : 'Seen'} {!marked && <KeyHint of="tick" />}
        </button>
      )}
      {isLoose(state) && (
        <button type="button" className="btn btn-xs" onClick={() => setAsking('waive')}>
          Waive… <KeyHint of="waive" />
        </button>
      )}
      <button type="button" className="btn btn-xs" onClick={() => setAsking('ask')}>
        Ask… <KeyHint of="ask" />
      </button>
    </div>
  );
}

interface NothingThereProps {
  cell: Cell;
  tie: Tie | undefined;
  state: ReturnType<typeof shownState>;
  receipt: boolean;
}

/** What to do, or what it means, where a comparison has nothing on its other side. */
function NothingThere({ cell, tie, state, receipt }: NothingThereProps) {
  const says =
    cell.kind === 'receipt' && !receipt
      ? 'This line has no receipt. Ask the claimant for it, or waive it with the reason why none is needed.'
      : cell.kind === 'card' && state === 'open'
        ? 'The bank has not sent a charge for this line, or it is on no line yet. Ask the claimant to pair them, or wait for the feed.'
        : cell.kind === 'duplicate' && tie?.state === 'tied'
          ? 'No claim of anybody has the same receipt, a near-identical one, or this amount at this merchant within three days.'
          : null;
  return says && <p className="mt-2">{says}</p>;
}

function LineNotes({ view, line }: { view: ClaimView; line: string }) {
  const notes = view.assessment.findings.filter((f) => f.line === line && f.severity === 'note');
  return (
    <>
      {notes.map((note) => (
        <p key={note.code} className="mt-2 text-sm">
          {note.says}
        </p>
      ))}
    </>
  );
}
