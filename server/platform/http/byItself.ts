import type { Request, RequestHandler } from 'express';

/**
 * What a page asks by itself shows that nobody is there: once who asks is known, the request goes on without its session, so
 * that this is not prolonged when the request ends.
 */
export const byItself: RequestHandler = (req: Partial<Pick<Request, 'session'>>, _res, next) => {
  delete req.session;
  next();
};
