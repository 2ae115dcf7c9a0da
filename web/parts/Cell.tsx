import { useEffect, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { ChangedMeanwhile } from './saver.ts';
import { useKept } from './kept.ts';
import { useUnsaved } from './unsaved.ts';

export interface CellProps {
  label: string;
  value: string;
  /** Where it stands, for going on with Enter. */
  row: number;
  column: string;
  align?: 'right';
  placeholder?: string;
  /** What stands in the cell behind what is typed, and is opened by Alt and the arrow down. */
  beside?: ReactNode;
  onOpen?: () => void;
  /** Why what was typed cannot be, or null. */
  problemOf?: (typed: string) => string | null;
  /** Sends what was typed; told whether it was saved. */
  onSave: (typed: string, done: (error: Error | null) => void) => void;
}

/** What was typed, and over what. Once the person was told that somebody else changed that, Enter alone sends it. */
interface Typing {
  typed: string;
  over: string;
  told?: boolean;
}
const sayMeanwhile = (over: string, now: string): string =>
  `It said “${over || 'nothing'}” when you typed this and says “${now || 'nothing'}” now. Enter saves yours, Escape leaves it.`;

/** Whether a value is what was typed, which may be written out: "5" is 5.00 EUR. */
const isWritten = (typed: string, value: string): boolean =>
  typed.trim() === '' ? value === '' : value.toLowerCase().startsWith(typed.trim().toLowerCase());

const place = (row: number, column: string): string => `${row}:${column}`;
/** The cell in the same column of another row, if there is one. */
export function focusCell(row: number, column: string): void {
  document.querySelector<HTMLElement>(`[data-cell="${place(row, column)}"]`)?.focus();
}

/** One cell of the form that is a table: saved when it is left, Enter goes down, Escape takes back what was typed. */
export function Cell(props: CellProps) {
  const { label, value, row, column, align, placeholder, beside, onOpen, problemOf, onSave } = props;
  const [typing, setTyping, dropTyping] = useKept<Typing | null>(`cell ${label}`, null);
  const typed = typing?.typed ?? null;
  const setTyped = (next: string | null) =>
    next === null ? dropTyping() : setTyping({ ...typing, typed: next, over: typing?.over ?? value });
  const [problem, setProblem] = useState<string | null>(() =>
    typing && (typing.told || typing.over !== value) ? sayMeanwhile(typing.over, value) : null,
  );
  // Enter saves and goes on, and going on saves too: the same is sent once
  const sent = useRef<string | null>(null);
  const tell = (says: string) => {
    setProblem(says);
    setTyping({ typed: typed!, over: typing!.over, told: true });
  };
  const commit = (own = false) => {
    if (typed === null || typed === sent.current) return;
    if (typed.trim() === value) return setTyped(null);
    if (typing!.told && !own) return;
    if (!typing!.told && typing!.over !== value) return tell(sayMeanwhile(typing!.over, value));
    const wrong = problemOf?.(typed) ?? null;
    setProblem(wrong);
    if (wrong !== null) return;
    sent.current = typed;
    onSave(typed, (error) => {
      sent.current = null;
      if (error instanceof ChangedMeanwhile) return latest.current.tell(error.message);
      setProblem(error?.message ?? null);
      if (!error) latest.current.saved(typed);
    });
  };
  /** What this cell itself saved while more was typed, until it is shown. */
  const own = useRef<string | null>(null);
  const saved = (was: string) => {
    if (typed === null || typed === was) return setTyped(null);
    if (typing!.told) return;
    if (typing!.over === value) own.current = was;
    else if (isWritten(was, value)) setTyping({ typed, over: value });
  };
  const latest = useRef({ commit, saved, tell });
  useEffect(() => {
    latest.current = { commit, saved, tell };
  });
  useEffect(() => {
    if (own.current !== null && typed !== null && isWritten(own.current, value)) setTyping({ typed, over: value });
    own.current = null;
    // when the value changes, and at no other time
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [value]);
  // what was typed before a reload is sent as it would have been, where nobody changed the field meanwhile
  useEffect(() => {
    if (typing && !typing.told && typing.over === value) latest.current.commit();
    // and what is typed when its row goes away is not lost: it is sent, or offered where it has no place any more
    return () => latest.current.commit();
    // once, with what was kept
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  useUnsaved(typed !== null && typed.trim() !== value, {
    says: label,
    kept: true,
    flush: () => commit(),
    show: () => focusCell(row, column),
  });
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) return commit(true);
    if (event.key === 'Enter') {
      event.preventDefault();
      commit(true);
      focusCell(row + (event.shiftKey ? -1 : 1), column);
    }
    if (event.key === 'ArrowDown' && event.altKey && onOpen) {
      event.preventDefault();
      onOpen();
    }
    if (event.key !== 'Escape' || typed === null) return;
    event.stopPropagation();
    setTyped(null);
    setProblem(null);
  };
  return (
    <span className={beside ? 'day-field' : 'contents'}>
      <input
        type="text"
        data-cell={place(row, column)}
        aria-label={label}
        aria-invalid={problem !== null}
        className={`cell ${align === 'right' ? 'text-right tabular-nums' : ''} ${problem ? 'cell-wrong' : ''}`}
        placeholder={placeholder}
        value={typed ?? value}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={() => commit()}
        onKeyDown={onKeyDown}
      />
      {beside}
      {problem && (
        <span role="alert" className="block px-1 text-xs text-error">
          {problem}
        </span>
      )}
    </span>
  );
}
