import { KeyHint, type KeyAct } from './keys.tsx';

interface ActButtonProps {
  label: string;
  /** The next step of whoever looks. */
  leads?: boolean;
  disabled?: boolean;
  hint?: KeyAct;
  run: () => void;
}

/** An act on a record as a whole. */
export const ActButton = ({ label, leads = false, disabled = false, hint, run }: ActButtonProps) => (
  <button type="button" className={`btn btn-sm ${leads ? 'btn-primary' : ''}`} disabled={disabled} onClick={run}>
    {label} {hint && <KeyHint of={hint} />}
  </button>
);
