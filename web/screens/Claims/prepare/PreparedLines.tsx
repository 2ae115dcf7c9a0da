import { DndContext, type DragEndEvent } from '@dnd-kit/core';
import { useRef, useState } from 'react';
import type { ClaimAnswer, MakerView } from '../../../api/claims.ts';
import { failed } from '../../../parts/failed.ts';
import { filterLines, NO_FILTER, type LineFilter } from './lineFilter.ts';
import { DueLines } from './DueLines.tsx';
import { LineGrid, type LineGridHandle } from './LineGrid.tsx';
import { PlanEstimates } from './PlanEstimates.tsx';
import { ProblemCount, Problems } from './Problems.tsx';
import { SavedOrNot } from '../../../parts/SavedOrNot.tsx';
import type { Draft } from './useDraft.ts';

interface PreparedLinesProps {
  view: MakerView;
  draft: Draft;
  onChanged: (next: ClaimAnswer) => void;
  reload: () => void;
}

/** The lines of a claim in preparation with what stands against it. */
export function PreparedLines({ view, draft, onChanged, reload }: PreparedLinesProps) {
  const [filter, setFilter] = useState(NO_FILTER);
  const grid = useRef<LineGridHandle>(null);
  const jump = (line: string) => {
    setFilter(NO_FILTER);
    requestAnimationFrame(() => grid.current?.show(line));
  };
  const fail = (error: unknown) => {
    if (error) failed(error);
    reload();
  };
  const drop = ({ active, over }: DragEndEvent) => {
    const [line, estimate] = [active.id, over?.id].map((id) => String(id ?? '').split(' ')[1]);
    if (line && estimate) draft.editLine(line, { estimate });
  };
  return (
    <DndContext onDragEnd={drop}>
      {view.plan && <PlanEstimates view={view} plan={view.plan} draft={draft} />}
      <DueLines {...{ view, draft }} />
      <Problems {...{ view, draft }} />
      <div className="mt-3 mb-1 flex flex-wrap items-center gap-3">
        <h2 className="font-semibold">Lines</h2>
        <ProblemCount view={view} onJump={jump} />
        <Filter view={view} filter={filter} onChange={setFilter} />
        <SavedOrNot state={draft.state} />
      </div>
      <LineGrid ref={grid} {...{ view, draft, filter, onChanged }} onFail={fail} />
      <p className="quiet mt-2 text-sm">
        Type in the last row, or paste rows of a spreadsheet anywhere in the table. Enter goes down, Tab to the right. A
        file dropped on a line is its receipt.
      </p>
    </DndContext>
  );
}

function Filter({
  view,
  filter,
  onChange,
}: {
  view: MakerView;
  filter: LineFilter;
  onChange: (f: LineFilter) => void;
}) {
  const shown = filterLines(view, filter).length;
  const all = view.document.lines.length;
  if (all < 2) return null;
  return (
    <>
      <input
        className="input input-xs w-44"
        aria-label="Find lines"
        placeholder="Find lines"
        value={filter.words}
        onChange={(e) => onChange({ ...filter, words: e.target.value })}
      />
      <select
        className="select select-xs w-auto"
        aria-label="Which lines"
        value={filter.only}
        onChange={(e) => onChange({ ...filter, only: e.target.value as LineFilter['only'] })}
      >
        <option value="all">all lines</option>
        <option value="problems">with a problem</option>
        <option value="no receipt">without a receipt</option>
      </select>
      {shown < all && (
        <span className="quiet text-sm">
          {shown} of {all}
        </span>
      )}
    </>
  );
}
