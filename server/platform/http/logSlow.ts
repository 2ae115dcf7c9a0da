import type { Request, RequestHandler } from 'express';
import type { Logger } from 'pino';

const SLOW_MS = 1000;

/** Logs requests that took longer than a second: method, address as the contract names it (never what stood in it), status, milliseconds. */
export function logSlow(log: Logger): RequestHandler {
  return (req, res, next) => {
    const begun = performance.now();
    res.once('close', () => {
      const ms = Math.round(performance.now() - begun);
      const streamed = res.get('Content-Type')?.startsWith('text/event-stream');
      if (ms > SLOW_MS && !streamed)
        log.warn({ method: req.method, path: addressOf(req), status: res.statusCode, ms }, 'slow');
    });
    next();
  };
}

/** "/api/claims/:number" rather than the claim that was asked for: keys of records may hold names. */
function addressOf(req: Request): string {
  const route = (req.route as { path?: string } | undefined)?.path;
  return route ? `/api${route}` : `/${req.path.split('/')[1] ?? ''}`;
}
