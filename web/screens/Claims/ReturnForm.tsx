import { useState, type FormEvent } from 'react';
import { useKept } from '../../parts/kept.ts';
import type { MakerView } from '../../api/claims.ts';

interface ReturnFormProps {
  view: MakerView;
  onClose: () => void;
  /** Whether it was returned. */
  onReturn: (reason: string, lines: { line: string; text: string }[]) => Promise<boolean>;
}

/** Why a claim goes back to its claimant: as a whole, and at single lines, where each is answered. */
export function ReturnForm({ view, onClose, onReturn }: ReturnFormProps) {
  const [reason, setReason, dropReason] = useKept('return', '');
  const [said, setSaid, dropSaid] = useKept<Record<string, string>>('return at lines', {});
  const drop = () => {
    dropReason();
    dropSaid();
  };
  const [busy, setBusy] = useState(false);
  const send = async (event: FormEvent) => {
    event.preventDefault();
    if (!reason.trim()) return;
    setBusy(true);
    const lines = view.document.lines.flatMap(({ id }) =>
      said[id]?.trim() ? [{ line: id, text: said[id].trim() }] : [],
    );
    if (await onReturn(reason.trim(), lines)) return drop();
    setBusy(false);
  };
  return (
    <form onSubmit={(e) => void send(e)} className="mt-3 border-t border-base-300 pt-3">
      <input
        className="input input-sm w-full"
        aria-label="Why it goes back to the claimant"
        placeholder="Why it goes back to the claimant"
        autoFocus
        maxLength={2000}
        value={reason}
        onChange={(e) => setReason(e.target.value)}
      />
      <p className="quiet mt-3 mb-1 text-sm">At single lines, if you like; each is answered there.</p>
      <ul className="max-h-72 overflow-auto">
        {view.document.lines.map((line) => (
          <li key={line.id} className="mb-1 grid items-center gap-x-2 sm:grid-cols-[12rem_minmax(0,1fr)]">
            <span className="truncate text-sm">
              {line.id}. {line.merchant ?? line.description ?? line.category} {line.amount}
            </span>
            <input
              className="input input-sm w-full"
              aria-label={`About line ${line.id}`}
              maxLength={2000}
              value={said[line.id] ?? ''}
              onChange={(e) => setSaid({ ...said, [line.id]: e.target.value })}
            />
          </li>
        ))}
      </ul>
      <div className="mt-2 flex gap-2">
        <button className="btn btn-primary btn-sm" disabled={busy || !reason.trim()}>
          Return
        </button>
        <button
          type="button"
          className="btn btn-sm"
          onClick={() => {
            drop();
            onClose();
          }}
        >
          Cancel
        </button>
      </div>
    </form>
  );
}
