import type { RequestHandler } from 'express';
import { Refused } from './refusal.ts';

const COME_BACK = { seconds: 5 };

/** Lets so many requests (of those that count) be under way at once; who comes when there are more is told when to come back. */
export function atMost(requests: number, counts: (path: string) => boolean = () => true): RequestHandler {
  let underWay = 0;
  return (req, res, next) => {
    if (!counts(req.path)) return next();
    if (underWay >= requests) return next(new Refused('busy', COME_BACK));
    underWay += 1;
    res.once('close', () => (underWay -= 1));
    next();
  };
}
