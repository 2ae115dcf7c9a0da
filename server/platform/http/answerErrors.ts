import { randomUUID } from 'node:crypto';
import type { ErrorRequestHandler } from 'express';
import multer from 'multer';
import type { Logger } from 'pino';
import { Refused } from './refusal.ts';

/**
 * The one place where failures become answers: a code, a sentence and the numbers behind it. What was not foreseen is
 * logged under a reference, and the client gets the reference, never a stack or a message of the database.
 */
export function answerErrors(log: Logger): ErrorRequestHandler {
  return (error, _req, res, next) => {
    if (res.headersSent) return next(error);
    const refused = toRefused(error);
    const reference = randomUUID().slice(0, 8);
    if (refused.code === 'broken')
      log.error({ reference, name: error?.name, code: error?.code, stack: error?.stack }, 'unforeseen');
    res.status(refused.status).json({
      code: refused.code,
      says: refused.says,
      numbers: refused.numbers,
      ...(refused.code === 'broken' ? { reference } : {}),
    });
  };
}

function toRefused(error: unknown): Refused {
  if (error instanceof Refused) return error;
  if (error instanceof multer.MulterError && error.code === 'LIMIT_FILE_SIZE')
    return new Refused('too-large', { limit: '15 MB' });
  if (error instanceof multer.MulterError) return new Refused('no-file');
  const guard = GUARDS[(error as { code?: string })?.code ?? ''];
  if (guard) return guard;
  const type = (error as { type?: string })?.type;
  if (type === 'entity.parse.failed') return new Refused('not-json');
  if (type === 'entity.too.large') return new Refused('too-large', { limit: '1 MB' });
  return new Refused('broken');
}

/** What the database refuses by guards of its own; reached only when a rule was changed between our check and its. */
const GUARDS: Record<string, Refused> = {
  EB001: new Refused('period-closed', { date: 'this date', open: 'see the ledger' }),
  EB005: new Refused('future-date', { date: 'This date', today: 'today' }),
};
