import type { RequestHandler } from 'express';
import type { Logger } from 'pino';

const SLOW_MS = 1000;

/** Logs requests that took longer than a second: method, path without its query, status and milliseconds. */
export function logSlow(log: Logger): RequestHandler {
  return (req, res, next) => {
    const begun = performance.now();
    const path = req.path;
    res.once('close', () => {
      const ms = Math.round(performance.now() - begun);
      const streamed = res.get('Content-Type')?.startsWith('text/event-stream');
      if (ms > SLOW_MS && !streamed) log.warn({ method: req.method, path, status: res.statusCode, ms }, 'slow');
    });
    next();
  };
}
