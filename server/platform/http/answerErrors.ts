import { randomUUID } from 'node:crypto';
import type { ErrorRequestHandler } from 'express';
import type { Logger } from 'pino';
import { toRefused } from './toRefused.ts';

const LONGEST_IN_LOG = 2000;

/**
 * The one place where failures become answers: a code, a sentence and the numbers behind it. What was not foreseen is
 * logged under a reference, cut to a length, and the client gets the reference, never a stack or a message of a library.
 */
export function answerErrors(log: Logger): ErrorRequestHandler {
  return (error, _req, res, next) => {
    if (res.headersSent) return next(error);
    const refused = toRefused(error);
    const reference = randomUUID().slice(0, 8);
    const { seconds } = refused.numbers;
    res.locals.refused = refused.code;
    if (refused.status >= 500) log.error({ reference, refused: refused.code, ...described(error) }, 'unforeseen');
    if (typeof seconds === 'number') res.set('Retry-After', String(seconds));
    res.status(refused.status).json({
      code: refused.code,
      says: refused.says,
      numbers: refused.numbers,
      ...(refused.code === 'broken' ? { reference } : {}),
    });
  };
}

/** An error for the log: its kind and where it came from. A message may hold values, so it is left out. */
function described(error: unknown) {
  const { name, code, stack } = error as { name?: string; code?: string; stack?: string };
  const frames = stack?.split('\n').filter((line) => /^\s+at /.test(line));
  return { name, code, at: frames?.join('\n').slice(0, LONGEST_IN_LOG) };
}
