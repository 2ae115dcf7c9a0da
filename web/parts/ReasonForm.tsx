import { useState, type FormEvent, type ReactNode } from 'react';
import { useKept, useSending } from './kept.ts';

interface ReasonFormProps {
  label: string;
  act: string;
  note?: string | null;
  /** Whether it can be sent without a word. */
  optional?: boolean;
  /** What of the page it is about, where there are several: what is typed is kept for it. */
  of?: string;
  onSubmit: (reason: string) => Promise<unknown> | void;
  onClose: () => void;
  children?: ReactNode;
}

/** Asks for a reason, or a comment, in place, without a dialog. Enter sends it. */
export function ReasonForm({
  label,
  act,
  note,
  optional = false,
  of = '',
  onSubmit,
  onClose,
  children,
}: ReasonFormProps) {
  const [reason, setReason, drop] = useKept(`${act}: ${label} ${of}`, '');
  const sending = useSending(drop);
  const [busy, setBusy] = useState(false);
  const wanting = !optional && reason.trim() === '';
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (wanting) return;
    setBusy(true);
    await sending(onSubmit(reason.trim()));
    setBusy(false);
  };
  return (
    <form
      onSubmit={(e) => void submit(e)}
      className="flex flex-wrap items-center gap-2 border-t border-base-300 bg-base-200 px-4 py-2"
    >
      <ReasonField {...{ label, reason, optional }} onChange={setReason} />
      {children}
      {note && <span className="quiet text-sm">{note}</span>}
      <button className="btn btn-primary btn-sm" disabled={busy || wanting}>
        {act}
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
    </form>
  );
}

interface ReasonFieldProps {
  label: string;
  reason: string;
  optional: boolean;
  onChange: (reason: string) => void;
}

function ReasonField({ label, reason, optional, onChange }: ReasonFieldProps) {
  return (
    <input
      className="input input-sm min-w-60 flex-1"
      aria-label={label}
      placeholder={label}
      autoFocus
      required={!optional}
      maxLength={2000}
      value={reason}
      onChange={(e) => onChange(e.target.value)}
    />
  );
}
