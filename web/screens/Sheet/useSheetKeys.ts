import { useNavigate } from 'react-router';
import type { ClaimView } from '../../api/claims.ts';
import { toast } from '../../parts/toast.tsx';
import { useKeys } from '../../parts/useKeys.ts';
import { here } from '../../api/desk.ts';
import { failed } from '../../parts/failed.ts';
import { after, before } from '../Desk/queueOrder.ts';
import { matrixRows, nextLoose, shownState, type Cell } from './cells.ts';
import { openedBench, type BenchKind } from './bench.ts';
import { clearOn } from './clear.ts';
import { approveOn } from './Decisions.tsx';
import { sendOn } from './Pending.tsx';
import { sidesOf, type Side } from './Beside.tsx';
import type { Panel } from './SheetHead.tsx';
import type { SheetState } from './useSheet.ts';

interface KeyScope {
  sheet: SheetState;
  view: ClaimView;
  cell: Cell | null;
  setCell: (cell: Cell) => void;
  rows: ReturnType<typeof matrixRows>;
  kinds: Cell['kind'][];
  setPanel: (panel: Panel) => void;
  asking: 'waive' | 'ask' | null;
  setAsking: (asking: 'waive' | 'ask' | null) => void;
  toggleJournal: () => void;
  side: Side;
  setSide: (side: Side) => void;
}

/** Every key of a Sheet: moving in the matrix, what is done with a cell or its line, and the acts on the claim. */
export function useSheetKeys(scope: KeyScope): void {
  const { sheet, view } = scope;
  useKeys({
    approve: () => approveOn({ sheet, view }),
    send: () => sendOn({ sheet, view }),
    ...movingKeys(scope),
    ...cellKeys(scope),
    ...sideKeys(scope),
    ...useClaimKeys(scope),
  });
}

function movingKeys({ view, cell, setCell, rows, kinds }: KeyScope) {
  const move = (down: number, right: number) => () => {
    const row = rows.findIndex((r) => r.line.id === cell?.line);
    if (down > 0 && row === rows.length - 1) document.getElementById('folded')?.focus();
    const next = rows[within(rows.length, row + down)];
    const kind = kinds[within(kinds.length, kinds.indexOf(cell?.kind ?? kinds[0]!) + right)];
    if (next && kind) setCell({ line: next.line.id, kind });
  };
  const toNextLoose = () => {
    const all = matrixRows(view.document.claim.lines, view.ties, view.assessment.findings, view.marks);
    const next = nextLoose(all, kinds, view.marks, cell);
    if (next) setCell(next);
  };
  return {
    down: move(1, 0),
    up: move(-1, 0),
    right: move(0, 1),
    left: move(0, -1),
    open: () => document.getElementById('evidence')?.focus(),
    next: toNextLoose,
  };
}

const within = (length: number, index: number): number => Math.max(0, Math.min(length - 1, index));

/** One key to look something up beside the claim, the same key back. */
function sideKeys({ view, side, setSide }: KeyScope) {
  const toggle = (to: Side) => () => sidesOf(view).includes(to) && setSide(side === to ? 'evidence' : to);
  return { person: toggle('person'), changes: toggle('changes'), budgets: toggle('budgets') };
}

function cellKeys({ sheet, view, cell, asking, setAsking, setPanel, side, setSide }: KeyScope) {
  const mayCorrect = view.may.includes('correct');
  const tick = () => {
    if (cell && mayCorrect) void sheet.mark(cell, isTicked(view, cell) ? 'none' : 'seen');
  };
  const bench = (kind: BenchKind) => () => {
    if (cell && mayCorrect) sheet.setBench(openedBench(view, cell.line, kind));
  };
  const close = () => {
    if (asking) setAsking(null);
    else if (sheet.bench) sheet.setBench(null);
    else if (side !== 'evidence') setSide('evidence');
    else setPanel(null);
  };
  return {
    tick,
    waive: () => mayCorrect && setAsking('waive'),
    ask: () => mayCorrect && setAsking('ask'),
    split: bench('split'),
    coding: bench('coding'),
    tax: bench('tax'),
    items: bench('items'),
    allowed: bench('allowed'),
    facts: bench('facts'),
    choose: () => cell && mayCorrect && sheet.choose(cell.line),
    undo: () => void sheet.undo(),
    close,
  };
}

/** So many of those that follow are offered at once. */
const MOST_NEXT = 200;

/** Whether a comparison carries a tick, though it may be about something that changed since. */
function isTicked({ ties, marks }: ClaimView, { line, kind }: Cell): boolean {
  const here = (of: { line: string; kind: string }) => of.line === line && of.kind === kind;
  return shownState(ties.find(here), marks) === 'seen' || marks.some((m) => here(m) && m.mark === 'seen');
}

function useClaimKeys({ sheet, view, kinds, setCell, setPanel, toggleJournal }: KeyScope) {
  const navigate = useNavigate();
  const may = (act: ClaimView['may'][number]) => view.may.includes(act);
  const end = () => toast({ text: 'The queue, as the Desk last showed it, ends here.' });
  const back = () => {
    const to = before(view.claim.number);
    if (to) void navigate(`/desk/${to}`);
    else end();
  };
  const forth = async () => {
    const [first, ...rest] = after(view.claim.number);
    if (!first) return end();
    const taken = await here.next([first, ...rest].slice(0, MOST_NEXT)).catch(failed);
    if (!taken) return;
    if (taken.number) void navigate(`/desk/${taken.number}`);
    else toast({ text: 'Others have all that follows open. Go to the Desk for more.' });
  };
  return {
    journal: toggleJournal,
    hold: () => may('hold') && setPanel('hold'),
    return: () => may('return') && setPanel('return'),
    post: () => may('post') && setPanel('post'),
    previousClaim: back,
    nextClaim: () => void forth(),
    clear: () => sheet.bench === null && clearOn({ sheet, view, kinds, setCell }),
  };
}
