import { Check } from 'lucide-react';
import { memo, type RefObject } from 'react';
import type { Undivided } from '../../../core/assess/undivided.ts';
import type { Assessment } from '../../../core/documents/assessment.schema.ts';
import type { Line } from '../../../core/documents/case.schema.ts';
import { fromMinor, toMinor } from '../../../core/numbers/amount.ts';
import type { Tie, TieKind } from '../../../core/evidence/comparisons/tie.types.ts';
import { sayCoding, useChart, type Chart } from '../../api/chart.ts';
import type { ClaimView } from '../../api/claims.ts';
import { Money } from '../../parts/Money.tsx';
import { groupDigits } from '../../../core/numbers/groupDigits.ts';
import { allowedOf } from '../../words/sayCut.ts';
import { wordTo } from '../../../core/workflow/wordsWanted.ts';
import { ChargedOn } from '../../parts/ChargedOn.tsx';
import { ClaimantsWord } from '../../parts/ClaimantsWord.tsx';
import { TieMark } from '../../parts/TieMark.tsx';
import { LineBench } from './LineBench.tsx';
import { useDrawnRows } from './useDrawnRows.ts';
import { shownState, wordOf, type Cell, type MatrixRow } from './cells.ts';
import type { SheetState } from './useSheet.ts';

interface MatrixProps {
  view: ClaimView;
  rows: MatrixRow[];
  folded: MatrixRow[];
  kinds: TieKind[];
  cell: Cell | null;
  onCell: (cell: Cell) => void;
  onUnfold: () => void;
  sheet: SheetState;
  assessment: Assessment;
  problem: string | null;
  undivided: readonly Undivided[];
  /** What scrolls around the matrix. */
  scroller: RefObject<HTMLElement | null>;
}

/**
 * The tie matrix: a row a line, a column a kind of comparison; quiet rows fold into one counted row. Of a long claim only the rows
 * near what is looked at are drawn.
 */
export function Matrix(props: MatrixProps) {
  const { view, rows, folded, kinds, cell, onCell, onUnfold, sheet, assessment, problem, undivided, scroller } = props;
  const { data: chart } = useChart();
  const sharing = cell ? view.receipts[cell.line]?.id : undefined;
  const isLit = ({ line }: MatrixRow) => sharing !== undefined && view.receipts[line.id]?.id === sharing;
  const columns = 4 + kinds.length;
  const { drawn, above, below, measure } = useDrawnRows(rows, cell, scroller);
  return (
    <table className="w-full border-collapse" aria-rowcount={rows.length + 1}>
      <Head kinds={kinds} />
      <Gap height={above} columns={columns} />
      {drawn.map(({ index, row }) => (
        <tbody key={row.line.id} ref={measure} data-index={index} className="bg-base-100">
          <LineRow
            {...{ row, view, kinds, cell, onCell, chart }}
            lit={isLit(row)}
            chosen={sheet.chosen.includes(row.line.id)}
          />
          {sheet.bench?.line === row.line.id ? (
            <tr>
              <td colSpan={columns} className="border-b border-base-300 p-0">
                <LineBench {...{ sheet, view, bench: sheet.bench, assessment, problem, chart, undivided }} />
              </td>
            </tr>
          ) : (
            <FindingRows view={view} row={row} columns={columns} />
          )}
        </tbody>
      ))}
      <Gap height={below} columns={columns} />
      {folded.length > 0 && (
        <tbody className="bg-base-100">
          <tr className="border-b border-base-300">
            <td colSpan={columns} className="p-0">
              <FoldedRow folded={folded} onUnfold={onUnfold} />
            </td>
          </tr>
        </tbody>
      )}
    </table>
  );
}

/** The room of rows that are not drawn. */
function Gap({ height, columns }: { height: number; columns: number }) {
  if (height <= 0) return null;
  return (
    <tbody aria-hidden>
      <tr style={{ height }}>
        <td colSpan={columns} />
      </tr>
    </tbody>
  );
}

function Head({ kinds }: { kinds: TieKind[] }) {
  return (
    <thead className="quiet sticky top-0 z-10 bg-base-200 text-left text-xs">
      <tr>
        <th scope="col" className="py-1 pl-4 font-normal">
          Line
        </th>
        <th scope="col" className="px-2 font-normal">
          What
        </th>
        <th scope="col" className="px-2 text-right font-normal">
          Amount
        </th>
        {kinds.map((kind) => (
          <th key={kind} scope="col" className="w-[4.4rem] px-1.5 font-normal">
            {kind}
          </th>
        ))}
        <th scope="col" className="px-2 pr-4 font-normal">
          Codes
        </th>
      </tr>
    </thead>
  );
}

function FoldedRow({ folded, onUnfold }: { folded: MatrixRow[]; onUnfold: () => void }) {
  return (
    <button
      id="folded"
      type="button"
      className="flex w-full items-center gap-3 px-4 py-2 text-left hover:bg-base-200"
      onClick={onUnfold}
    >
      <TieMark state="tied" />
      <span>
        {folded.length} {folded.length === 1 ? 'line is' : 'lines are'} tied throughout
      </span>
      <span className="quiet text-sm">{sums(folded.map((r) => r.line))}</span>
      <span className="ml-auto underline">Show</span>
    </button>
  );
}

function FindingRows({ row, columns, view }: { row: MatrixRow; columns: number; view: ClaimView }) {
  return row.findings
    .filter((f) => f.severity !== 'note')
    .map((f, i) => (
      <tr key={i} className="border-b border-base-300">
        <td />
        <td
          colSpan={columns - 1}
          className={`px-2 pb-1.5 text-sm ${f.severity === 'stop' ? 'text-error' : row.loose ? 'text-warning' : 'quiet'}`}
        >
          <strong className="mr-1">{f.severity === 'stop' || row.loose ? f.severity : 'dealt with'}</strong>
          {f.item && <span className="font-mono">{f.item} </span>}
          {f.says} <ClaimantsWord word={wordTo(f, view.document.claim.explanations)} />
        </td>
      </tr>
    ));
}

/** The sum of the folded lines, one figure a currency. */
function sums(lines: Line[]): string {
  const byCurrency = new Map<string, bigint>();
  for (const line of lines)
    byCurrency.set(line.currency, (byCurrency.get(line.currency) ?? 0n) + toMinor(line.amount, line.currency));
  return [...byCurrency]
    .map(([currency, minor]) => `${groupDigits(fromMinor(minor, currency))} ${currency}`)
    .join(', ');
}

interface LineRowProps {
  row: MatrixRow;
  view: ClaimView;
  kinds: TieKind[];
  cell: Cell | null;
  onCell: (cell: Cell) => void;
  chart: Chart | undefined;
  lit: boolean;
  chosen: boolean;
}

/** What of a line counts, where that is not all of it. */
function Counted({ line, declined }: { line: Line; declined: boolean }) {
  const allowed = allowedOf(line);
  if (!declined && allowed === null) return null;
  return <span className="block text-sm text-error">{declined ? 'declined' : `${groupDigits(allowed!)} allowed`}</span>;
}

/** One line; drawn again only when something of it changes, since every key in a bench comes by here. */
const LineRow = memo(function LineRow({ row, view, kinds, cell, onCell, chart, lit, chosen }: LineRowProps) {
  const { line, ties } = row;
  const here = cell?.line === line.id;
  return (
    <tr
      aria-current={here || undefined}
      className={`border-b border-base-300 ${here ? 'bg-primary/8' : lit ? 'bg-base-200' : ''}`}
    >
      <td
        className={`py-1.5 pl-4 align-top font-mono text-sm ${here || lit ? 'shadow-[inset_3px_0_0_var(--color-primary)]' : ''}`}
      >
        {line.id}
        {chosen && <Check size={14} aria-label="chosen" className="text-primary" />}
      </td>
      <WhatCell line={line} chart={chart} view={view} />
      <td className="px-2 py-1.5 text-right align-top">
        <Money amount={line.amount} currency={line.currency} strong />
        <Counted line={line} declined={view.declined.some((d) => d.line === line.id)} />
      </td>
      {kinds.map((kind) => (
        <TieCell
          key={kind}
          tie={ties.get(kind)}
          state={shownState(ties.get(kind), view.marks)}
          name={`line ${line.id} ${kind}`}
          focused={here && cell?.kind === kind}
          onFocus={() => onCell({ line: line.id, kind })}
        />
      ))}
      <td className="quiet px-2 py-1.5 pr-4 align-top text-sm">
        {line.personal ? '' : <CodingWords line={line} view={view} chart={chart} />}
      </td>
    </tr>
  );
});

interface TieCellProps {
  tie: Tie | undefined;
  state: ReturnType<typeof shownState>;
  name: string;
  focused: boolean;
  onFocus: () => void;
}

function TieCell({ tie, state, name, focused, onFocus }: TieCellProps) {
  return (
    <td className="p-0.5 align-top">
      <button
        type="button"
        tabIndex={focused ? 0 : -1}
        aria-pressed={focused}
        onClick={onFocus}
        className={`flex h-9 w-full items-center gap-1.5 rounded-field px-1.5 ${focused ? 'outline-2 outline-primary' : 'hover:bg-base-200'}`}
      >
        <TieMark state={state} label={name} />
        <span className="truncate text-xs">{wordOf(tie, state)}</span>
      </button>
    </td>
  );
}

function categoryOf(line: Line, chart: Chart | undefined): string {
  if (line.items?.length) return `${line.items.length} items`;
  if (line.personal) return 'Private';
  return chart?.categories.find((c) => c.id === line.category)?.name ?? line.category ?? '';
}

function WhatCell({ line, chart, view }: { line: Line; chart: Chart | undefined; view: ClaimView }) {
  const rebilled = view.assessment.lines.find((l) => l.id === line.id)?.rebilled;
  return (
    <td className="max-w-0 w-[44%] px-2 py-1.5 align-top">
      <span className="block truncate font-medium" title={line.merchant ?? ''}>
        {line.merchant}
      </span>
      <span className="quiet block truncate text-sm">
        {line.date} · {categoryOf(line, chart)}
        {line.paidBy === 'own'
          ? ''
          : ` · ${line.paidBy === 'card' ? `card ${line.card ?? ''}` : 'paid centrally'}`} · {line.description}
      </span>
      <ChargedOn rebill={line.rebill} amount={rebilled} currency={view.claim.currency} />
    </td>
  );
}

function CodingWords({ line, view, chart }: { line: Line; view: ClaimView; chart: Chart | undefined }) {
  const split = line.split?.shares.length;
  const codes = sayCoding({ ...view.document.claim.coding, ...line.coding }, chart);
  return (
    <span className="block max-w-28 truncate" title={codes}>
      {split ? `split in ${split}` : codes}
    </span>
  );
}
