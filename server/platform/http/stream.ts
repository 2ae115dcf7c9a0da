import type { Response } from 'express';

/** A stream ends by itself after so long, and the browser comes again: then it is seen anew who asks. */
const LONGEST_MS = 5 * 60_000;
const BEAT_MS = 20_000;
const CHANGE = 'event: change\ndata: \n\n';

/**
 * Answers with server-sent events (HTML Living Standard, "Server-sent events"): an event `change` whenever `listen` is woken,
 * and one at once, since what happened before was not heard. Comments keep the line open. What an event is about is asked for by
 * whoever hears it. At each wake and beat it is seen whether who listens is still signed in.
 */
export function stream(
  res: Response,
  listen: (wake: () => void) => () => void,
  isStillThere: () => Promise<boolean>,
): void {
  res.set({ 'Content-Type': 'text/event-stream', 'X-Accel-Buffering': 'no' });
  res.flushHeaders();
  const write = (text: string) => void res.write(text);
  const unlessGone = (text: string) => () =>
    void isStillThere().then(
      (there) => (there ? write(text) : res.end()),
      // the database is away: nothing is told that it could not be asked about
      () => res.end(),
    );
  write('retry: 2000\n');
  write(CHANGE);
  const off = listen(unlessGone(CHANGE));
  const beat = setInterval(unlessGone(': still here\n\n'), BEAT_MS);
  const end = setTimeout(() => res.end(), LONGEST_MS);
  res.once('close', () => {
    off();
    clearInterval(beat);
    clearTimeout(end);
  });
}
