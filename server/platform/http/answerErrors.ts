import { randomUUID } from 'node:crypto';
import type { ErrorRequestHandler } from 'express';
import type { Logger } from 'pino';
import { toRefused } from './toRefused.ts';

const LONGEST_IN_LOG = 2000;

/**
 * The one place where failures become answers: a code, a sentence and the numbers behind it. What was not foreseen is
 * logged under a reference, cut to a length, and the client gets the reference, never a stack or a message of a library. What
 * is refused because something is away or full is summed up: a line when it begins and one a minute, however many ask.
 */
export function answerErrors(log: Logger): ErrorRequestHandler {
  const outage = summedUp(log);
  return (error, _req, res, next) => {
    if (res.headersSent) return next(error);
    const refused = toRefused(error);
    const reference = randomUUID().slice(0, 8);
    const { seconds } = refused.numbers;
    res.locals.refused = refused.code;
    if (refused.code === 'broken') log.error({ reference, ...described(error) }, 'unforeseen');
    else if (refused.status >= 500) outage(refused.code, error);
    if (typeof seconds === 'number') res.set('Retry-After', String(seconds));
    res.status(refused.status).json({
      code: refused.code,
      says: refused.says,
      numbers: refused.numbers,
      ...(refused.code === 'broken' ? { reference } : {}),
    });
  };
}

const SUM_UP_MS = 60_000;

/** Logs that requests are refused for want of something, by the code: once at first, then how many each minute. */
function summedUp(log: Logger): (code: string, error: unknown) => void {
  const counts = new Map<string, { since: number; more: number }>();
  return (code, error) => {
    const now = Date.now();
    const seen = counts.get(code);
    if (seen && now - seen.since < SUM_UP_MS) {
      seen.more += 1;
      return;
    }
    const { name, code: of } = error as { name?: string; code?: string };
    log.error(
      { refused: code, name, code: of, ...(seen ? { before: seen.more } : {}) },
      'refused, and those after it for a minute',
    );
    counts.set(code, { since: now, more: 0 });
  };
}

/** An error for the log: its kind and where it came from. A message may hold values, so it is left out. */
function described(error: unknown) {
  const { name, code, stack } = error as { name?: string; code?: string; stack?: string };
  const frames = stack?.split('\n').filter((line) => /^\s+at /.test(line));
  return { name, code, at: frames?.join('\n').slice(0, LONGEST_IN_LOG) };
}
