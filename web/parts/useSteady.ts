import { useCallback, useLayoutEffect, useRef } from 'react';

/** One function for as long as the part is shown, which does what `act` does now: a memoised part given it is not drawn again. */
export function useSteady<Args extends readonly unknown[]>(act: (...args: Args) => void): (...args: Args) => void {
  const latest = useRef(act);
  useLayoutEffect(() => {
    latest.current = act;
  });
  return useCallback((...args: Args) => latest.current(...args), []);
}
