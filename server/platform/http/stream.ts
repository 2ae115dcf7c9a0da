import type { Response } from 'express';

/** A stream ends by itself after so long, and the browser comes again: then it is seen anew who asks. */
const LONGEST_MS = 5 * 60_000;
const BEAT_MS = 20_000;

/**
 * Answers with server-sent events (HTML Living Standard, "Server-sent events"): an event `change` whenever `listen` is woken,
 * and one at once, since what happened before was not heard. Comments keep the line open. What an event is about is asked for by
 * whoever hears it.
 */
export function stream(res: Response, listen: (wake: () => void) => () => void): void {
  res.set({ 'Content-Type': 'text/event-stream', 'X-Accel-Buffering': 'no' });
  res.flushHeaders();
  const change = () => void res.write('event: change\ndata: \n\n');
  res.write('retry: 2000\n');
  change();
  const off = listen(change);
  const beat = setInterval(() => void res.write(': still here\n\n'), BEAT_MS);
  const end = setTimeout(() => res.end(), LONGEST_MS);
  res.once('close', () => {
    off();
    clearInterval(beat);
    clearTimeout(end);
  });
}
