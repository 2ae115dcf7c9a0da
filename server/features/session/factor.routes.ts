import { Router } from 'express';
import {
  addedFactorAnswer,
  addFactorSchema,
  factorAnswer,
  factorOfferAnswer,
  removeFactorSchema,
} from '../../../contract/session.ts';
import type { Context } from '../../platform/context.ts';
import { answer } from '../../platform/http/answer.ts';
import type { Guessing } from '../../platform/http/guessing.ts';
import { actorOf, checked } from '../../platform/http/guards.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { addFactor, offerFactor, removeFactor, viewFactor } from './factor.service.ts';
import { assertOwnPassword } from './passwords.service.ts';
import type { Secrets } from '../../platform/http/sealed.ts';

/** The second factor: offered, added once a code proves that the authenticator holds it, removed by who knows the password. */
export function factorRoutes(context: Context, secrets: Secrets, guessing: Guessing): Router {
  const router = Router();
  router.get('/session/factor', async (req, res) => {
    answer(res, factorAnswer, await viewFactor(context, actorOf(req)));
  });
  router.post('/session/factor', (req, res) => {
    const offer = offerFactor(actorOf(req));
    req.session.offered = offer.secret;
    answer(res, factorOfferAnswer, offer);
  });
  router.put('/session/factor', async (req, res) => {
    const { code } = checked(addFactorSchema, req.body);
    const { offered } = req.session;
    if (!offered) throw new Refused('no-offer');
    const actor = actorOf(req);
    const codes = await addFactor(context, secrets, actor, { secret: offered, code, session: req.sessionID });
    delete req.session.offered;
    answer(res, addedFactorAnswer, { ...(await viewFactor(context, actor)), codes });
  });
  router.post('/session/factor/end', async (req, res) => {
    const { current } = checked(removeFactorSchema, req.body);
    const actor = actorOf(req);
    const attempt = await guessing.attempt(req, actor.email);
    await assertOwnPassword(context, actor, current);
    await attempt.succeeded(res);
    await removeFactor(context, actor);
    answer(res, factorAnswer, await viewFactor(context, actor));
  });
  return router;
}
