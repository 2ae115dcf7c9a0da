import { useImperativeHandle, useRef, useState, type ClipboardEvent, type Ref } from 'react';
import { useLocation } from 'react-router';
import type { Line } from '../../../../core/documents/case.schema.ts';
import type { ClaimAnswer, MakerView } from '../../../api/claims.ts';
import { useChart } from '../../../api/chart.ts';
import { VirtualBodies, type VirtualBodiesHandle } from '../../../parts/VirtualBodies.tsx';
import { keptNames } from '../../../parts/kept.ts';
import { useAllUnsaved } from '../../../parts/unsaved.ts';
import { toast } from '../../../parts/toast.tsx';
import { LineRow } from './LineRow.tsx';
import { filterLines, type LineFilter } from './lineFilter.ts';
import { NewRow } from './NewRow.tsx';
import { PasteReview } from './PasteReview.tsx';
import { SeveralLines } from './SeveralLines.tsx';
import { isCopyWhole, newLineOf } from '../../../../contract/newLineOf.ts';
import type { Draft } from './useDraft.ts';

interface LineGridProps {
  view: MakerView;
  draft: Draft;
  filter: LineFilter;
  onChanged: (next: ClaimAnswer) => void;
  onFail: (error: unknown) => void;
  ref: Ref<LineGridHandle>;
}
/** Brings a line into sight and goes to its first field. */
export interface LineGridHandle {
  show(line: string): void;
}

/** About how high a line is, in pixels, before it is drawn. */
const ROW_HEIGHT = 37;
const HEADS = ['Line', 'Date', 'Merchant', 'What', 'Category', 'Amount', 'Who paid', 'More'];

/**
 * The lines of a claim in preparation as one table that is the form: cells are typed in place, a row is opened for the rest, a
 * new one waits at the end, and a block of a spreadsheet is pasted anywhere.
 */
export function LineGrid({ view, draft, filter, onChanged, onFail, ref }: LineGridProps) {
  const { data: chart } = useChart();
  const [open, setOpen] = useState<string | null>(null);
  const [chosen, setChosen] = useState<string[]>([]);
  const [pasted, setPasted] = useState<string | null>(null);
  const lines = filterLines(view, filter);
  const typed = useTypedLines();
  const bodies = useRef<VirtualBodiesHandle>(null);
  useImperativeHandle(ref, () => ({
    show(line) {
      bodies.current?.show(lines.findIndex((l) => l.id === line));
    },
  }));
  const there = chosen.filter((id) => lines.some((l) => l.id === id));
  const choose = (id: string) => setChosen(there.includes(id) ? there.filter((other) => other !== id) : [...there, id]);
  const paste = (event: ClipboardEvent) => {
    const text = event.clipboardData.getData('text/plain');
    if (!/[\t\n]/.test(text.trim())) return;
    event.preventDefault();
    setPasted(text);
  };
  const removed = (line: Line) =>
    draft.remove(line.id, (error) => {
      if (error) return onFail(error);
      const act = { label: 'Undo', run: () => draft.write([newLineOf(line)]) };
      toast({ text: `Line ${line.id} is taken off`, ...(isTyped(view, line) ? { act } : {}) });
    });
  return (
    <div onPaste={paste}>
      {there.length > 0 && <SeveralLines {...{ view, draft, onFail }} ids={there} onClose={() => setChosen([])} />}
      <div className="overflow-x-auto rounded-box border border-base-300 bg-base-100">
        <table aria-label="Lines" className="lines w-full table-fixed text-left sm:min-w-[56rem]">
          <Heads />
          <VirtualBodies
            ref={bodies}
            count={lines.length}
            keyOf={(row) => lines[row]!.id}
            height={ROW_HEIGHT}
            kept={lines.flatMap((l, row) => (l.id === open || typed.has(l.id) ? [row] : []))}
          >
            {(row) => {
              const line = lines[row]!;
              return (
                <LineRow
                  {...{ view, line, row, draft, chart, onChanged, onFail }}
                  open={open === line.id}
                  onToggle={() => setOpen(open === line.id ? null : line.id)}
                  chosen={there.includes(line.id)}
                  onChoose={() => choose(line.id)}
                  onRemove={() => removed(line)}
                />
              );
            }}
          </VirtualBodies>
          <tbody>
            <NewRow key={view.claim.number} view={view} row={lines.length} chart={chart} draft={draft} />
          </tbody>
        </table>
      </div>
      {pasted !== null && (
        <PasteReview text={pasted} view={view} chart={chart} draft={draft} onClose={() => setPasted(null)} />
      )}
    </div>
  );
}

/** Lines in which something is typed and not saved, now or before the page was loaded: they stay drawn, or nobody would see it. */
function useTypedLines(): ReadonlySet<string> {
  const { pathname } = useLocation();
  const [before] = useState(() => keptNames(`${pathname} cell `));
  const names = [...before, ...useAllUnsaved().map((what) => what.says)];
  return new Set(names.flatMap((name) => / line (\S+)(?: was for)?$/.exec(name)?.[1] ?? []));
}

/** Whether nothing but typing made the line, so that typing it again brings it back. */
const isTyped = (view: MakerView, line: Line): boolean => !view.receipts[line.id] && isCopyWhole(line);

const WIDTHS = ['w-20', 'w-36', '', '', 'w-40', 'w-36', 'w-28', 'w-20'];
function Heads() {
  return (
    <thead className="quiet text-sm">
      <tr>
        {HEADS.map((head, i) => (
          <th key={head} className={`px-2 py-1 font-normal ${WIDTHS[i]} ${head === 'Amount' ? 'text-right' : ''}`}>
            {head === 'More' ? <span className="sr-only">{head}</span> : head}
          </th>
        ))}
      </tr>
    </thead>
  );
}
