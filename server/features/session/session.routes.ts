import { Router, type RequestHandler } from 'express';
import type { Pool } from 'pg';
import { PERSON_HEADER } from '../../../contract/route.ts';
import { demoPeopleAnswer, sessionAnswer, signedInAnswer, signInSchema } from '../../../contract/session.ts';
import type { Actor, Context, Grant, Services } from '../../platform/context.ts';
import { answer } from '../../platform/http/answer.ts';
import { type Clock } from '../../platform/ports/clock.ts';
import { actorOf, checked } from '../../platform/http/guards.ts';
import type { Throttles } from '../../platform/http/throttle.ts';
import { Refused } from '../../platform/http/refusal.ts';
import type { Secrets } from '../../platform/http/sealed.ts';
import { createGuessing } from '../../platform/http/guessing.ts';
import { openSession, selectPeople } from './session.queries.ts';
import { factorRoutes } from './factor.routes.ts';
import { passwordRoutes } from './passwords.routes.ts';
import { readActor, readTokenActor, signIn } from './session.service.ts';

export const COOKIE = 'ebbet';
/** A session ends this long after it was last used, and this long after it began whatever is done in it. */
export const SESSION_HOURS = 8;
const LONGEST_HOURS = 24;

/** Puts the signed-in person, or whom a token acts for, on the request; without one the request goes on as nobody's. */
export function knowActor(context: Context): RequestHandler {
  return async (req, _res, next) => {
    const bearer = /^Bearer (\S{1,200})$/.exec(req.get('authorization') ?? '')?.[1];
    const id = req.session?.personId && isFresh(req.session.since, context) ? req.session.personId : null;
    const actor = bearer ? await readTokenActor(context, bearer) : id ? await readActor(context, id) : null;
    // a page of somebody who is no longer the one who is signed in acts as nobody
    const of = req.get(PERSON_HEADER) ?? actor?.id;
    if (actor && actor.id === of) req.actor = { ...actor, proof: bearer ?? req.sessionID };
    next();
  };
}

interface SessionOptions {
  pool: Pool;
  throttles: Throttles;
  secrets: Secrets;
  /** Whether the people of the demo are listed for anybody to choose from. */
  demo: boolean;
}

export function sessionRoutes(context: Services, { pool, throttles, secrets, demo }: SessionOptions): Router {
  const router = Router();
  const guessing = createGuessing(pool, secrets, throttles);
  router.use(passwordRoutes(context, pool, throttles, guessing), factorRoutes(context, secrets, guessing));

  router.get('/session', (req, res) => {
    const { actor } = req;
    answer(res, sessionAnswer, { person: actor ? personOf(actor) : null, demo });
  });

  router.post('/session', async (req, res) => {
    const { email, password, code } = checked(signInSchema, req.body);
    const person = email.toLowerCase();
    const attempt = await guessing.attempt(req, person);
    const personId = await signIn(context, secrets, { email, password, code }).catch(async (error: unknown) => {
      if (error instanceof Refused && error.code === 'code-needed') await attempt.takenBack();
      throw error;
    });
    await attempt.succeeded(res);
    await new Promise<void>((resolve, reject) =>
      req.session.regenerate((error) => (error ? reject(error) : resolve())),
    );
    req.session.personId = personId;
    req.session.since = context.clock.now().toISOString();
    req.session.device = deviceOf(req.get('user-agent'));
    await new Promise<void>((resolve, reject) => req.session.save((error) => (error ? reject(error) : resolve())));
    await openSession(context.db, req.sessionID, personId, context.clock.now());
    answer(res, signedInAnswer, { personId }, 201);
  });

  router.delete('/session', async (req, res) => {
    actorOf(req);
    await new Promise<void>((resolve, reject) => req.session.destroy((error) => (error ? reject(error) : resolve())));
    res.clearCookie(COOKIE).status(204).end();
  });

  if (demo)
    router.get('/demo/people', async (_req, res) => {
      const rows = await selectPeople(context.db, context.clock.now());
      const people = rows.map(({ grants, ...person }) => ({ ...person, roles: rolesOf(grants) }));
      answer(res, demoPeopleAnswer, { people, password: 'saltmarsh' });
    });
  return router;
}

/** What began before this has reached its absolute end. */
export const oldestSession = (clock: Clock): Date => new Date(clock.now().getTime() - LONGEST_HOURS * 3_600_000);
const isFresh = (since: string | undefined, { clock }: Pick<Context, 'clock'>): boolean =>
  since !== undefined && new Date(since) > oldestSession(clock);

/** A browser and its system in a few words, as far as it tells. */
function deviceOf(agent = ''): string {
  const browser = /(Edg|Firefox|Chrome)\/(\d+)/.exec(agent) ?? /(Version)\/(\d+)/.exec(agent);
  const system = /\((?:X11; )?([\w .]{1,40})/.exec(agent)?.[1];
  if (!browser) return 'a program';
  const name = { Edg: 'Edge', Version: 'Safari' }[browser[1]!] ?? browser[1];
  return [`${name} ${browser[2]}`, system].filter(Boolean).join(', ');
}

const personOf = ({ id, name, email, factor, grants }: Actor) => ({ id, name, email, factor, roles: rolesOf(grants) });
const rolesOf = (grants: readonly Grant[]): Grant['role'][] => [...new Set(grants.map((g) => g.role))];
