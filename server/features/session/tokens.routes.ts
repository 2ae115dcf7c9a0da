import { Router } from 'express';
import { madeTokenAnswer, tokenSchema, tokensAnswer } from '../../../contract/session.ts';
import type { Context } from '../../platform/context.ts';
import { answer } from '../../platform/http/answer.ts';
import { actorOf, checked, numberParam } from '../../platform/http/guards.ts';
import { makeToken, revokeToken, viewTokens } from './tokens.service.ts';

/** Tokens for scripts, made and revoked by the person they act for; a token makes no other token. */
export function tokenRoutes(context: Context): Router {
  const router = Router();
  router.get('/tokens', async (req, res) => {
    answer(res, tokensAnswer, await viewTokens(context, actorOf(req)));
  });
  router.post('/tokens', async (req, res) => {
    const token = await makeToken(context, actorOf(req), checked(tokenSchema, req.body));
    answer(res, madeTokenAnswer, { ...(await viewTokens(context, actorOf(req))), token }, 201);
  });
  router.delete('/tokens/:id', async (req, res) => {
    await revokeToken(context, actorOf(req), numberParam(req, 'id', 'token'));
    answer(res, tokensAnswer, await viewTokens(context, actorOf(req)));
  });
  return router;
}
