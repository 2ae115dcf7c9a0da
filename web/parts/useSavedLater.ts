import { useEffect, useRef, useState } from 'react';
import { useUnsaved } from './unsaved.ts';

const PAUSE_MS = 500;

/**
 * A value that is worked on in many small steps, saved after a pause, before an act, and when its form is left; `says` names it. `readable` holds back
 * what cannot be saved as it is typed so far.
 */
export function useSavedLater<Value>(
  says: string,
  start: Value,
  save: (value: Value) => void,
  readable: (value: Value) => boolean = () => true,
): [Value, (value: Value) => void] {
  const [value, setValue] = useState(start);
  const [waits, setWaits] = useState(false);
  const waiting = useRef<{ value: Value } | null>(null);
  const latest = useRef({ save, readable });
  useEffect(() => {
    latest.current = { save, readable };
  });
  const flush = () => {
    const due = waiting.current;
    if (!due || !latest.current.readable(due.value)) return;
    waiting.current = null;
    setWaits(false);
    latest.current.save(due.value);
  };
  useEffect(() => {
    const timer = setTimeout(flush, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [value]);
  useEffect(() => flush, []);
  useUnsaved(waits, { says, flush, show: () => undefined });
  const change = (next: Value) => {
    waiting.current = { value: next };
    setWaits(true);
    setValue(next);
  };
  return [value, change];
}
