import type { HistoryEvent } from '../../api/claims.ts';
import { sayEvent } from '../../words/sayEvent.ts';
import type { SheetState } from './useSheet.ts';

const KEPT = 'What you typed is kept below and is now shown on top of the newer claim.';

/** Tells what somebody else changed; what this person typed stays in its bench, to be saved on top or dropped. */
export function StaleNotice({ sheet }: { sheet: SheetState }) {
  const { stale, bench } = sheet;
  const drop = () => {
    sheet.setBench(null);
    sheet.setStale(null);
  };
  return (
    <div role="alert" className="border-l-4 border-warning bg-base-200 px-4 py-2">
      <strong>The claim was changed while you worked.</strong>
      <ul className="list-disc pl-5">
        {stale!.changes.map((change: HistoryEvent) => (
          <li key={change.seq}>
            {change.actor}: {sayEvent(change)}
          </li>
        ))}
      </ul>
      <p className="mt-1">
        {bench ? KEPT : 'You see the newer claim now.'}
        {bench && (
          <button type="button" className="btn btn-primary btn-xs ml-3" onClick={() => void sheet.saveBench()}>
            Save mine
          </button>
        )}
        <button type="button" className="btn btn-xs ml-2" onClick={drop}>
          {bench ? 'Drop mine' : 'Continue'}
        </button>
      </p>
    </div>
  );
}
