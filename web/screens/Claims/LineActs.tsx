import { useState } from 'react';
import type { Line } from '../../../core/documents/case.schema.ts';
import { claimActs, type ClaimAnswer, type MakerView } from '../../api/claims.ts';
import { failed } from '../../parts/failed.ts';
import { ReasonForm } from '../../parts/ReasonForm.tsx';
import { toast } from '../../parts/toast.tsx';

interface LineActsProps {
  view: MakerView;
  line: Line;
  onDone: (next: ClaimAnswer) => void;
  onFail: () => void;
}

/** Declining one line, and taking it as it was again, for whoever decides about the claim. */
export function LineActs({ view, line, onDone, onFail }: LineActsProps) {
  const [asking, setAsking] = useState(false);
  const { number, revision } = view.claim;
  const acts = claimActs(number);
  const declined = view.declined.some((d) => d.line === line.id);
  if (!view.may.includes('declineLine') || line.personal || line.paidBy === 'central') return null;
  const run = async (work: Promise<ClaimAnswer>, done: string) => {
    const next = await work.catch(failed);
    if (!next) return onFail();
    setAsking(false);
    toast({ text: `Line ${line.id} ${done}` });
    onDone(next);
  };
  if (declined)
    return (
      <button
        type="button"
        className="link py-1"
        onClick={() => void run(acts.restoreLine(line.id, revision), 'counts again')}
      >
        Count it again
      </button>
    );
  return (
    <>
      <button type="button" className="link py-1" aria-expanded={asking} onClick={() => setAsking(!asking)}>
        Decline line {line.id}…
      </button>
      {asking && (
        <div className="w-full">
          <ReasonForm
            label={`Why line ${line.id} is declined`}
            act="Decline the line"
            onClose={() => setAsking(false)}
            onSubmit={(reason) => run(acts.declineLine(line.id, revision, reason), 'is declined')}
          />
        </div>
      )}
    </>
  );
}
