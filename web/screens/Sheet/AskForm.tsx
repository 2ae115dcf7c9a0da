import { useState } from 'react';
import type { ClaimView } from '../../api/claims.ts';
import { ReasonForm } from '../../parts/ReasonForm.tsx';
import { undoAsk } from './bench.ts';
import type { Cell } from './cells.ts';
import type { SheetState } from './useSheet.ts';

interface AskFormProps {
  sheet: SheetState;
  view: ClaimView;
  cell: Cell;
  asking: 'waive' | 'ask';
  onClose: () => void;
}

/** Why a difference is accepted, or a question about it that is pinned to the line. */
export function AskForm({ sheet, view, cell, asking, onClose }: AskFormProps) {
  const [asks, setAsks] = useState<'claimant' | 'approver'>('claimant');
  if (asking === 'waive')
    return (
      <ReasonForm
        label="Why this difference is accepted"
        act="Waive"
        onSubmit={(text) => sheet.mark(cell, 'waived', text, onClose)}
        onClose={onClose}
      />
    );
  const ask = (text: string) =>
    sheet.run(
      'The question is pinned to the line',
      (revision) => sheet.acts.ask({ revision, line: cell.line, kind: cell.kind, text, asks }),
      { undo: undoAsk, then: onClose },
    );
  return (
    <ReasonForm label={`Question about line ${cell.line}`} act="Pin" onSubmit={ask} onClose={onClose}>
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
