import { useState, type FormEvent, type ReactNode } from 'react';

interface ReasonFormProps {
  label: string;
  act: string;
  note?: string | null;
  onSubmit: (reason: string) => Promise<void> | void;
  onClose: () => void;
  children?: ReactNode;
}

/** Asks for a reason in place, without a dialog. Enter sends it, Escape closes it. */
export function ReasonForm({ label, act, note, onSubmit, onClose, children }: ReasonFormProps) {
  const [reason, setReason] = useState('');
  const [busy, setBusy] = useState(false);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (reason.trim() === '') return;
    setBusy(true);
    await onSubmit(reason.trim());
    setBusy(false);
  };
  return (
    <form
      onSubmit={(e) => void submit(e)}
      className="flex flex-wrap items-center gap-2 border-t border-base-300 bg-base-200 px-4 py-2"
    >
      <ReasonField label={label} reason={reason} onChange={setReason} />
      {children}
      {note && <span className="quiet text-sm">{note}</span>}
      <button className="btn btn-primary btn-sm" disabled={busy || reason.trim() === ''}>
        {act}
      </button>
      <button type="button" className="btn btn-sm" onClick={onClose}>
        Cancel
      </button>
    </form>
  );
}

interface ReasonFieldProps {
  label: string;
  reason: string;
  onChange: (reason: string) => void;
}

function ReasonField({ label, reason, onChange }: ReasonFieldProps) {
  return (
    <input
      className="input input-sm min-w-60 flex-1"
      aria-label={label}
      placeholder={label}
      autoFocus
      required
      maxLength={2000}
      value={reason}
      onChange={(e) => onChange(e.target.value)}
    />
  );
}
