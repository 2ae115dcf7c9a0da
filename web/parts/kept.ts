import { useCallback, useEffect, useRef, useState } from 'react';
import { useLocation } from 'react-router';

/**
 * What was typed and is not on the server is kept on this device, for the person who typed it, until it was sent or thrown
 * away; signing out removes it. Never for what must not lie around: passwords, codes, bank details.
 */
const PREFIX = 'ebbet kept';
const KEPT_MS = 30 * 86_400_000;
let keeper: string | null = null;

interface Entry {
  at: number;
  value: unknown;
}
const nameOf = (name: string): string => `${PREFIX} ${keeper} ${name}`;

/** From now on things are kept for this person; what is too old of theirs goes. */
export function keepFor(person: string): void {
  if (person === keeper) return;
  keeper = person;
  for (const name of namesOf('')) if ((read(name)?.at ?? 0) < Date.now() - KEPT_MS) localStorage.removeItem(name);
}

/** Throws away everything that is kept for whoever is signed in, and keeps nothing of them any more. */
export function forgetKept(): void {
  namesOf('').forEach((name) => localStorage.removeItem(name));
  keeper = null;
}

export function keep(name: string, value: unknown): void {
  if (keeper === null) return;
  try {
    localStorage.setItem(nameOf(name), JSON.stringify({ at: Date.now(), value } satisfies Entry));
  } catch {
    // a full or forbidden store: what is typed stays in the page, and leaving asks
  }
}
export const drop = (name: string): void => localStorage.removeItem(nameOf(name));
export const kept = <T>(name: string): T | null => (read(nameOf(name))?.value as T | undefined) ?? null;
/** The names under which something is kept that begin so. */
export const keptNames = (start: string): string[] => namesOf(start).map((name) => name.slice(nameOf('').length));

function namesOf(start: string): string[] {
  return Object.keys(localStorage).filter((name) => name.startsWith(nameOf(start)));
}
function read(name: string): Entry | null {
  try {
    return JSON.parse(localStorage.getItem(name) ?? 'null') as Entry | null;
  } catch {
    return null;
  }
}

/**
 * As `useState`, for what is typed in a form of a page: it is there again after a reload, until `done` (it was sent, or thrown
 * away). `name` tells the fields of a page apart; null keeps nothing.
 */
export function useKept<T>(name: string | null, start: T): [value: T, set: (next: T) => void, done: () => void] {
  const { pathname } = useLocation();
  const full = name === null ? null : `${pathname} ${name}`;
  const [value, setValue] = useState<T>(() => (full === null ? null : kept<T>(full)) ?? start);
  const first = useRef(start);
  const set = useCallback(
    (next: T) => {
      setValue(next);
      if (full !== null) keep(full, next);
    },
    [full],
  );
  const done = useCallback(() => {
    if (full !== null) drop(full);
    setValue(first.current);
  }, [full]);
  return [value, set, done];
}

/** For a form that is closed once it was done: sends it, and throws away what was kept of it unless it was refused and stays. */
export function useSending(done: () => void): (work: Promise<unknown> | void) => Promise<void> {
  const open = useRef(false);
  useEffect(() => {
    open.current = true;
    return () => {
      open.current = false;
    };
  }, []);
  return async (work) => {
    await work;
    if (!open.current) done();
  };
}
