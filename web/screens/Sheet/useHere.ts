import { useEffect, useState } from 'react';
import { here } from '../../api/desk.ts';

/** How often it is said that the claim is still open here; silence for longer counts as leaving. */
const SAY_MS = 15_000;

/** Says that this person has a claim open, as long as the page is looked at; who else has, and which version was seen before. */
export function useHere(number: string, on: boolean): { others: string[]; before: number | null } {
  const [seen, setSeen] = useState<{ others: string[]; before: number | null }>({ others: [], before: null });
  useEffect(() => {
    if (!on) return;
    let gone = false;
    const say = () => {
      if (document.visibilityState !== 'visible') return;
      // that it could not be said stops nobody from working
      void here.say(number).then(
        (now) => !gone && setSeen(now),
        () => undefined,
      );
    };
    say();
    const timer = setInterval(say, SAY_MS);
    document.addEventListener('visibilitychange', say);
    return () => {
      gone = true;
      clearInterval(timer);
      document.removeEventListener('visibilitychange', say);
      void here.leave(number).catch(() => undefined);
    };
  }, [number, on]);
  return seen;
}
