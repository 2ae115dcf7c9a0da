import type { MakerView } from '../../../api/claims.ts';
import { Cell } from './Cell.tsx';
import type { Draft } from './useDraft.ts';

function problemOfPurpose(typed: string): string | null {
  if (!typed.trim()) return 'Say what the claim is for.';
  return typed.trim().length > 200 ? 'At most 200 characters.' : null;
}

/** What a claim in preparation says of itself: what it is for, and from when to when; saved as it is typed. */
export function HeaderFields({ view, draft }: { view: MakerView; draft: Draft }) {
  const { purpose, tripFrom, tripTo } = view.claim;
  const day = (typed: string) => typed || null;
  return (
    <div className="cells-open mt-1 grid max-w-3xl gap-x-3 sm:grid-cols-[minmax(0,1fr)_10rem_10rem]">
      <div>
        <span className="quiet px-1 text-xs">What it is for</span>
        <Cell
          label="What the claim is for"
          row={-1}
          column="purpose"
          value={purpose}
          problemOf={problemOfPurpose}
          onSave={(typed, done) => draft.editHeader({ purpose: typed.trim() }, done)}
        />
      </div>
      <div>
        <span className="quiet px-1 text-xs">From</span>
        <Cell
          label="First day"
          row={-1}
          column="from"
          type="date"
          value={tripFrom ?? ''}
          problemOf={(typed) => (typed && tripTo && typed > tripTo ? 'It is after the last day.' : null)}
          onSave={(typed, done) => draft.editHeader({ tripFrom: day(typed) }, done)}
        />
      </div>
      <div>
        <span className="quiet px-1 text-xs">To</span>
        <Cell
          label="Last day"
          row={-1}
          column="to"
          type="date"
          value={tripTo ?? ''}
          problemOf={(typed) => (typed && tripFrom && typed < tripFrom ? 'It is before the first day.' : null)}
          onSave={(typed, done) => draft.editHeader({ tripTo: day(typed) }, done)}
        />
      </div>
    </div>
  );
}
