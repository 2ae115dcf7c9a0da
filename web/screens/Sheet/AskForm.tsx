import { useState } from 'react';
import type { ClaimView } from '../../api/claims.ts';
import { ReasonForm } from '../../parts/ReasonForm.tsx';
import { undoAsk } from './bench.ts';
import { sameLoose, type Cell } from './cells.ts';
import type { SheetState } from './useSheet.ts';

interface AskFormProps {
  sheet: SheetState;
  view: ClaimView;
  cell: Cell;
  asking: 'waive' | 'ask';
  onClose: () => void;
}

/** A word about a comparison: why its difference is accepted, or a question that is pinned to the line. */
export function AskForm({ sheet, view, cell, asking, onClose }: AskFormProps) {
  const [asks, setAsks] = useState<'claimant' | 'approver'>('claimant');
  if (asking === 'waive') return <WaiveForm {...{ sheet, view, cell, onClose }} />;
  const ask = (text: string) =>
    sheet.run(
      'The question is pinned to the line',
      (revision) => sheet.acts.ask({ revision, line: cell.line, kind: cell.kind, text, asks }),
      { undo: undoAsk, then: onClose },
    );
  return (
    <ReasonForm label={`Question about line ${cell.line}`} act="Pin" of={cell.kind} onSubmit={ask} onClose={onClose}>
      {view.claim.approvedBy.length > 0 && (
        <select
          className="select select-sm w-44"
          aria-label="Whom to ask"
          value={asks}
          onChange={(e) => setAsks(e.target.value as typeof asks)}
        >
          <option value="claimant">{view.claim.claimant}</option>
          <option value="approver">{view.claim.approvedBy.join(', ')}</option>
        </select>
      )}
    </ReasonForm>
  );
}

/** Why a difference is accepted, here alone or at every line where the same is off. */
function WaiveForm({ sheet, view, cell, onClose }: Omit<AskFormProps, 'asking'>) {
  const [all, setAll] = useState(false);
  const same = sameLoose(view.ties, view.marks, cell);
  const sayLine = (line: string) => {
    const difference = view.ties.find((t) => t.line === line && t.kind === cell.kind)?.difference;
    return difference ? `${line} (${difference})` : line;
  };
  return (
    <ReasonForm
      label="Why this difference is accepted"
      act="Waive"
      of={`${cell.line} ${cell.kind}`}
      onSubmit={(text) => sheet.mark({ ...cell, also: all ? same : [] }, 'waived', text, onClose)}
      onClose={onClose}
    >
      {same.length > 0 && (
        <label className="flex items-center gap-1.5 text-sm">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={all}
            onChange={(e) => setAll(e.target.checked)}
          />
          the same at {same.length === 1 ? 'line' : 'lines'} {same.map(sayLine).join(', ')}
        </label>
      )}
    </ReasonForm>
  );
}
