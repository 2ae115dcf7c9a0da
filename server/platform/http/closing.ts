import type { RequestHandler, Response } from 'express';
import { Refused } from './refusal.ts';

/** Whether the process is about to stop: what is under way is finished, and nothing new is begun. */
export interface Closing {
  begun: boolean;
  handler: RequestHandler;
  /** Ends the streams, which would else stay for minutes, and lets nothing new in. */
  begin(): void;
}

const COME_BACK = { seconds: 1 };

export function createClosing(): Closing {
  const open = new Set<Response>();
  const closing: Closing = {
    begun: false,
    handler(_req, res, next) {
      // whoever keeps the connection asks another process next time
      if (closing.begun) return next((res.set('Connection', 'close'), new Refused('away', COME_BACK)));
      open.add(res);
      res.once('close', () => open.delete(res));
      next();
    },
    begin() {
      closing.begun = true;
      for (const res of open) {
        if (!res.headersSent) res.set('Connection', 'close');
        else if (res.get('Content-Type')?.startsWith('text/event-stream')) res.end();
      }
    },
  };
  return closing;
}
