import { Router, type Request, type RequestHandler } from 'express';
import { KEY_HEADER, type Who } from '../../../contract/route.ts';
import { ROUTES } from '../../../contract/routes.ts';
import { hasAny } from '../context.ts';
import { actorOf } from './guards.ts';
import { Refused } from './refusal.ts';

/**
 * Lets through whom the contract names for an address, before any feature sees the request: the one place where routes meet
 * roles. An address that the contract does not name is not there, whatever serves it. What a person may do with the record they
 * ask for is judged where it is locked.
 */
export function admit(): Router {
  const router = Router();
  for (const { method, path, who, needsKey } of ROUTES) router[method](path, guardOf(who, needsKey ?? false));
  router.use((_req, res, next) =>
    next(res.locals.admitted ? undefined : new Refused('not-found', { what: 'such address' })),
  );
  return router;
}

/** Each is called gate, so that a list of what is served can tell them from what serves. */
function guardOf(who: Who, needsKey: boolean): RequestHandler {
  return function gate(req, res, next) {
    res.locals.admitted = true;
    const refusal = who === 'anybody' ? undefined : refusalOf(req, who);
    const unkeyed = needsKey && req.get(KEY_HEADER) === undefined;
    next(refusal ?? (unkeyed ? new Refused('key-unusable') : undefined));
  };
}

function refusalOf(req: Request, who: Exclude<Who, 'anybody'>): Refused | undefined {
  const actor = actorOf(req);
  switch (who) {
    case 'signed in':
      return undefined;
    case 'in person':
      return req.session?.personId ? undefined : new Refused('not-signed-in');
    default:
      return hasAny(actor, who) ? undefined : new Refused('not-allowed', { needs: who.join(' or ') });
  }
}
