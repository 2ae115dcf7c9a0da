import type { MakerView } from '../../../api/claims.ts';
import { Cell } from '../../../parts/Cell.tsx';
import type { Draft } from './useDraft.ts';

function problemOfPurpose(typed: string): string | null {
  if (!typed.trim()) return 'Say what the claim is for.';
  return typed.trim().length > 200 ? 'At most 200 characters.' : null;
}

/** What a claim in preparation says of itself: what it is for, and from when to when; saved as it is typed. */
export function HeaderFields({ view, draft }: { view: MakerView; draft: Draft }) {
  const { purpose, tripFrom, tripTo } = view.claim;
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
      <Day
        head="From"
        label="First day"
        value={tripFrom}
        problemOf={(typed) => (typed && tripTo && typed > tripTo ? 'It is after the last day.' : null)}
        onSave={(day, done) => draft.editHeader({ tripFrom: day }, done)}
      />
      <Day
        head="To"
        label="Last day"
        value={tripTo}
        problemOf={(typed) => (typed && tripFrom && typed < tripFrom ? 'It is before the first day.' : null)}
        onSave={(day, done) => draft.editHeader({ tripTo: day }, done)}
      />
    </div>
  );
}

interface DayProps {
  head: string;
  label: string;
  value: string | null;
  problemOf: (typed: string) => string | null;
  onSave: (day: string | null, done: (error: Error | null) => void) => void;
}
const Day = ({ head, label, value, problemOf, onSave }: DayProps) => (
  <div>
    <span className="quiet px-1 text-xs">{head}</span>
    <Cell
      {...{ label, problemOf }}
      row={-1}
      column={head}
      type="date"
      value={value ?? ''}
      onSave={(typed, done) => onSave(typed || null, done)}
    />
  </div>
);
