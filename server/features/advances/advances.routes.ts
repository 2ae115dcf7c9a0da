import { Router, type Request, type RequestHandler } from 'express';
import {
  advanceAnswer,
  advancesAnswer,
  approveAdvanceSchema,
  beginAdvanceSchema,
  begunAnswer,
  declineAdvanceSchema,
  editAdvanceSchema,
  extendSchema,
  giveBackSchema,
  grantSchema,
  payOutSchema,
  registerAnswer,
  registerQuery,
  seenAdvanceSchema,
} from '../../../contract/advances.ts';
import { seenQuery } from '../../../contract/primitives.ts';
import type { Actor, Context, Services } from '../../platform/context.ts';
import { answer } from '../../platform/http/answer.ts';
import { actorOf, checked, numberParam, param } from '../../platform/http/guards.ts';
import { fileOf, upload } from '../../platform/http/upload.ts';
import {
  attachToAdvance,
  beginAdvance,
  detachFromAdvance,
  editAdvance,
  requestAdvance,
  bringBackAdvance,
  callBackAdvance,
  withdrawAdvance,
} from './advances.service.ts';
import { approveAdvance, declineAdvance, extendAdvance, grantAdvance, takeBackAdvance } from './decide.service.ts';
import { addProof, giveBackAdvance, payOutAdvance } from './payments.service.ts';
import { viewAdvance, viewAdvances, viewRegister } from './view.service.ts';

type Run = (actor: Actor, number: string, req: Request) => Promise<unknown>;

/** Advances: one's own, what finance has to do with others, the register, and what is done with one. */
export function advanceRoutes(services: Services, uploads: RequestHandler): Router {
  const router = Router();
  const context: Context = services;
  router.get('/advances', async (req, res) => {
    answer(res, advancesAnswer, await viewAdvances(context, actorOf(req)));
  });
  router.get('/advances/register', async (req, res) => {
    answer(res, registerAnswer, await viewRegister(context, actorOf(req), checked(registerQuery, req.query)));
  });
  router.get('/advances/:number', async (req, res) => {
    answer(res, advanceAnswer, await viewAdvance(context, actorOf(req), param(req, 'number')));
  });
  router.post('/advances', async (req, res) => {
    answer(res, begunAnswer, await beginAdvance(context, actorOf(req), checked(beginAdvanceSchema, req.body)), 201);
  });

  /** An act answers with the advance as it is afterwards. */
  const act = (method: 'post' | 'put' | 'delete', path: string, run: Run) =>
    router[method](path, async (req, res) => {
      const [actor, number] = [actorOf(req), param(req, 'number')];
      await run(actor, number, req);
      answer(res, advanceAnswer, await viewAdvance(context, actor, number));
    });
  const file = (path: string, run: Run) =>
    router.post(path, uploads, upload(0), async (req, res) => {
      const [actor, number] = [actorOf(req), param(req, 'number')];
      await run(actor, number, req);
      answer(res, advanceAnswer, await viewAdvance(context, actor, number), 201);
    });
  const seenIn = (req: Request, number: string) => ({ number, ...checked(seenQuery, req.query) });
  act('put', '/advances/:number', (actor, number, req) => {
    const { revision, set } = checked(editAdvanceSchema, req.body);
    return editAdvance(context, actor, { number, revision }, set);
  });
  file('/advances/:number/attachments', (actor, number, req) =>
    attachToAdvance(services, actor, seenIn(req, number), fileOf(req)),
  );
  act('delete', '/advances/:number/attachments/:id', (actor, number, req) =>
    detachFromAdvance(context, actor, seenIn(req, number), numberParam(req, 'id', 'attachment')),
  );
  act('post', '/advances/:number/request', (actor, number, req) =>
    requestAdvance(context, actor, { number, ...checked(seenAdvanceSchema, req.body) }),
  );
  act('post', '/advances/:number/call-back', (actor, number, req) =>
    callBackAdvance(context, actor, { number, ...checked(seenAdvanceSchema, req.body) }),
  );
  act('post', '/advances/:number/bring-back', (actor, number, req) =>
    bringBackAdvance(context, actor, { number, ...checked(seenAdvanceSchema, req.body) }),
  );
  act('post', '/advances/:number/withdraw', (actor, number, req) =>
    withdrawAdvance(context, actor, { number, ...checked(seenAdvanceSchema, req.body) }),
  );
  act('post', '/advances/:number/approve', (actor, number, req) =>
    approveAdvance(context, actor, { number, ...checked(approveAdvanceSchema, req.body) }),
  );
  act('post', '/advances/:number/take-back', (actor, number, req) =>
    takeBackAdvance(context, actor, { number, ...checked(seenAdvanceSchema, req.body) }),
  );
  act('post', '/advances/:number/decline', (actor, number, req) =>
    declineAdvance(context, actor, { number, ...checked(declineAdvanceSchema, req.body) }),
  );
  act('post', '/advances/:number/grant', (actor, number, req) =>
    grantAdvance(context, actor, { number, ...checked(grantSchema, req.body) }),
  );
  act('post', '/advances/:number/extend', (actor, number, req) =>
    extendAdvance(context, actor, { number, ...checked(extendSchema, req.body) }),
  );
  act('post', '/advances/:number/pay-out', (actor, number, req) =>
    payOutAdvance(context, actor, { number, ...checked(payOutSchema, req.body) }),
  );
  act('post', '/advances/:number/give-back', (actor, number, req) =>
    giveBackAdvance(context, actor, { number, ...checked(giveBackSchema, req.body) }),
  );
  file('/advances/:number/payments/:payment/proofs', (actor, number, req) =>
    addProof(services, actor, seenIn(req, number), numberParam(req, 'payment', 'payment'), fileOf(req)),
  );
  return router;
}
