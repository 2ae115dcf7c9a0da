/** Takes one row out of a list that is being edited; `what` names the row for those who do not see it. */
export function RemoveButton({ what, onRemove, disabled = false }: RemoveButtonProps) {
  return (
    <button type="button" className="btn btn-xs" aria-label={`Remove ${what}`} disabled={disabled} onClick={onRemove}>
      ×
    </button>
  );
}

interface RemoveButtonProps {
  what: string;
  onRemove: () => void;
  disabled?: boolean;
}
