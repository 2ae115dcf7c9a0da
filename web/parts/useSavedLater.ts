import { useEffect, useRef, useState } from 'react';

const PAUSE_MS = 500;

/**
 * A value that is worked on in many small steps, saved after a pause and when its form is left. `readable` holds back
 * what cannot be saved as it is typed so far.
 */
export function useSavedLater<Value>(
  start: Value,
  save: (value: Value) => void,
  readable: (value: Value) => boolean = () => true,
): [Value, (value: Value) => void] {
  const [value, setValue] = useState(start);
  const waiting = useRef<{ value: Value } | null>(null);
  const latest = useRef({ save, readable });
  useEffect(() => {
    latest.current = { save, readable };
  });
  const flush = () => {
    const due = waiting.current;
    if (!due || !latest.current.readable(due.value)) return;
    waiting.current = null;
    latest.current.save(due.value);
  };
  useEffect(() => {
    const timer = setTimeout(flush, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [value]);
  useEffect(() => flush, []);
  const change = (next: Value) => {
    waiting.current = { value: next };
    setValue(next);
  };
  return [value, change];
}
