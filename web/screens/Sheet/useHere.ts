import { useEffect, useEffectEvent, useState } from 'react';
import { here } from '../../api/desk.ts';
import { onWake } from '../../api/messages.ts';

/** How often it is said that the claim is still open here; silence for longer counts as leaving. */
const SAY_MS = 15_000;
/** Acts of one's own wake too: their answers come first. */
const WAKE_MS = 300;

interface Open {
  number: string;
  /** The revision that is shown. */
  revision: number;
  on: boolean;
  /** Told that somebody changed the claim since. */
  onNewer: () => void;
}

/**
 * Says that this person has a claim open, as long as the page is looked at, and hears whether it changed; who else has it open,
 * and which version was seen before.
 */
export function useHere({ number, revision, on, onNewer }: Open): { others: string[]; before: number | null } {
  const [seen, setSeen] = useState<{ others: string[]; before: number | null }>({ others: [], before: null });
  const hear = useEffectEvent((now: { others: string[]; before: number | null; revision: number }) => {
    setSeen(now);
    if (now.revision > revision) onNewer();
  });
  useEffect(() => {
    if (!on) return;
    let gone = false;
    const say = () => {
      if (document.visibilityState !== 'visible') return;
      // that it could not be said stops nobody from working
      void here.say(number).then(
        (now) => !gone && hear(now),
        () => undefined,
      );
    };
    say();
    let soon: ReturnType<typeof setTimeout> | undefined;
    const forget = onWake(() => {
      clearTimeout(soon);
      soon = setTimeout(say, WAKE_MS);
    });
    const timer = setInterval(say, SAY_MS);
    document.addEventListener('visibilitychange', say);
    return () => {
      gone = true;
      forget();
      clearTimeout(soon);
      clearInterval(timer);
      document.removeEventListener('visibilitychange', say);
      void here.leave(number).catch(() => undefined);
    };
  }, [number, on]);
  return seen;
}
