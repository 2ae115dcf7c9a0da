import { useRef, useState, type KeyboardEvent } from 'react';

interface CellProps {
  label: string;
  value: string;
  /** Where it stands, for going on with Enter. */
  row: number;
  column: string;
  type?: 'text' | 'date';
  align?: 'right';
  placeholder?: string;
  /** Why what was typed cannot be, or null. */
  problemOf?: (typed: string) => string | null;
  /** Sends what was typed; told whether it was saved. */
  onSave: (typed: string, done: (error: Error | null) => void) => void;
}

const place = (row: number, column: string): string => `${row}:${column}`;
/** The cell in the same column of another row, if there is one. */
export function focusCell(row: number, column: string): void {
  document.querySelector<HTMLElement>(`[data-cell="${place(row, column)}"]`)?.focus();
}

/** One cell of the form that is a table: saved when it is left, Enter goes down, Escape takes back what was typed. */
export function Cell({ label, value, row, column, type = 'text', align, placeholder, problemOf, onSave }: CellProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  // Enter saves and goes on, and going on saves too: the same is sent once
  const sent = useRef<string | null>(null);
  const commit = () => {
    if (typed === null || typed === sent.current) return;
    if (typed.trim() === value) return setTyped(null);
    const wrong = problemOf?.(typed) ?? null;
    setProblem(wrong);
    if (wrong !== null) return;
    sent.current = typed;
    onSave(typed, (error) => {
      sent.current = null;
      setProblem(error?.message ?? null);
      if (!error) setTyped((now) => (now === typed ? null : now));
    });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) return commit();
    if (event.key === 'Enter') {
      event.preventDefault();
      commit();
      focusCell(row + (event.shiftKey ? -1 : 1), column);
    }
    if (event.key !== 'Escape' || typed === null) return;
    event.stopPropagation();
    setTyped(null);
    setProblem(null);
  };
  return (
    <>
      <input
        type={type}
        data-cell={place(row, column)}
        aria-label={label}
        aria-invalid={problem !== null}
        className={`cell ${align === 'right' ? 'text-right tabular-nums' : ''} ${problem ? 'cell-wrong' : ''}`}
        placeholder={placeholder}
        value={typed ?? value}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={commit}
        onKeyDown={onKeyDown}
      />
      {problem && (
        <span role="alert" className="block px-1 text-xs text-error">
          {problem}
        </span>
      )}
    </>
  );
}
