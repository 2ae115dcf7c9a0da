import { Router } from 'express';
import type { Pool } from 'pg';
import { RateLimiterPostgres } from 'rate-limiter-flexible';
import { changePasswordSchema, forgottenSchema, newPasswordSchema } from '../../../contract/session.ts';
import type { Services } from '../../platform/context.ts';
import { sha256 } from '../../platform/history/sha256.ts';
import type { Guessing } from '../../platform/http/guessing.ts';
import { actorOf, checked } from '../../platform/http/guards.ts';
import { countAttempt, type Throttles } from '../../platform/http/throttle.ts';
import { askForLetter, assertOwnPassword, changePassword, takeNewPassword } from './passwords.service.ts';

/** Passwords: changed by who knows the one before, forgotten and set anew by a letter. */
export function passwordRoutes(services: Services, pool: Pool, throttles: Throttles, guessing: Guessing): Router {
  const router = Router();
  const letters = new RateLimiterPostgres(throttles.letters(pool));
  const lettersFrom = new RateLimiterPostgres(throttles.lettersFrom(pool));

  router.put('/session/password', async (req, res) => {
    const { current, password } = checked(changePasswordSchema, req.body);
    const actor = actorOf(req);
    const attempt = await guessing.attempt(req, actor.email);
    await assertOwnPassword(services, actor, current);
    await attempt.succeeded(res);
    await changePassword(services, actor, password, req.sessionID);
    res.status(204).end();
  });
  router.post('/session/forgotten', async (req, res) => {
    const { email } = checked(forgottenSchema, req.body);
    await countAttempt(lettersFrom, sha256(req.ip ?? 'unknown'));
    await countAttempt(letters, sha256(email.toLowerCase()));
    await askForLetter(services, email);
    res.status(204).end();
  });
  router.put('/session/forgotten', async (req, res) => {
    const { letter, password } = checked(newPasswordSchema, req.body);
    await takeNewPassword(services, letter, password);
    res.status(204).end();
  });
  return router;
}
