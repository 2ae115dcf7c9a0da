import { Router, type RequestHandler } from 'express';
import type { Pool } from 'pg';
import { RateLimiterPostgres } from 'rate-limiter-flexible';
import { z } from 'zod';
import type { Context } from '../../platform/context.ts';
import { actorOf, checked } from '../../platform/http/guards.ts';
import { countAttempt, type Limits } from '../../platform/http/limits.ts';
import { selectPeople } from './session.queries.ts';
import { readActor, signIn } from './session.service.ts';

const credentials = z.strictObject({
  email: z.string().min(1, 'Enter your e-mail.').max(320),
  password: z.string().min(1, 'Enter your password.').max(1024),
});

export const COOKIE = 'ebbet';

/** Puts the signed-in person on the request; without one the request goes on as nobody's. */
export function knowActor(context: Context): RequestHandler {
  return async (req, _res, next) => {
    const id = req.session?.personId;
    const actor = id ? await readActor(context, id) : null;
    if (actor) req.actor = actor;
    next();
  };
}

export function sessionRoutes(context: Context, pool: Pool, limits: Limits, demo: boolean): Router {
  const router = Router();
  const byAddress = new RateLimiterPostgres(limits.signInByAddress(pool));
  const byEmail = new RateLimiterPostgres(limits.signInByEmail(pool));

  router.get('/session', (req, res) => {
    const person = req.actor ? { id: req.actor.id, name: req.actor.name, roles: [...req.actor.roles] } : null;
    res.json({ person, demo });
  });

  router.post('/session', async (req, res) => {
    const { email, password } = checked(credentials, req.body);
    const person = email.toLowerCase();
    await countAttempt(byAddress, req.ip ?? 'unknown');
    await countAttempt(byEmail, person);
    const personId = await signIn(context, email, password);
    await byEmail.delete(person);
    await new Promise<void>((resolve, reject) =>
      req.session.regenerate((error) => (error ? reject(error) : resolve())),
    );
    req.session.personId = personId;
    await new Promise<void>((resolve, reject) => req.session.save((error) => (error ? reject(error) : resolve())));
    res.status(201).json({ personId });
  });

  router.delete('/session', async (req, res) => {
    actorOf(req);
    await new Promise<void>((resolve, reject) => req.session.destroy((error) => (error ? reject(error) : resolve())));
    res.clearCookie(COOKIE).status(204).end();
  });

  if (demo)
    router.get('/demo/people', async (_req, res) => {
      res.json({ people: await selectPeople(context.db), password: 'saltmarsh' });
    });
  return router;
}
