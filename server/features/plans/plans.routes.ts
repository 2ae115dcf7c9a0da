import { Router, type Request, type RequestHandler } from 'express';
import {
  addBookingSchema,
  addEstimatesSchema,
  approvePlanSchema,
  beginPlanSchema,
  declinePlanSchema,
  editBookingSchema,
  estimatesSchema,
  planAnswer,
  planClaimAnswer,
  planHeaderSchema,
  plansAnswer,
  seenPlanSchema,
  templatesAnswer,
} from '../../../contract/plans.ts';
import { seenQuery } from '../../../contract/primitives.ts';
import type { Actor, Context, Services } from '../../platform/context.ts';
import { answer } from '../../platform/http/answer.ts';
import { actorOf, checked, numberParam, param } from '../../platform/http/guards.ts';
import { fileOf, upload } from '../../platform/http/upload.ts';
import {
  addBooking,
  attachToBooking,
  attachToPlan,
  detachFromBooking,
  detachFromPlan,
  editBooking,
  removeBooking,
} from './bookings.service.ts';
import {
  approvePlan,
  bringBackPlan,
  callBackPlan,
  claimPlan,
  declinePlan,
  submitPlan,
  takeBackPlan,
  withdrawPlan,
} from './decide.service.ts';
import {
  addEstimates,
  beginPlan,
  editEstimates,
  editPlan,
  rehearseEstimates,
  removeEstimate,
} from './plans.service.ts';
import { viewPlan, viewPlans, viewTemplates } from './view.service.ts';

type Run = (actor: Actor, number: string, req: Request) => Promise<unknown>;

/** Plans: one's own, those to decide about, and what is done with one. */
export function planRoutes(services: Services, uploads: RequestHandler): Router {
  const router = Router();
  const context: Context = services;
  router.get('/plans', async (req, res) => {
    answer(res, plansAnswer, await viewPlans(context, actorOf(req)));
  });
  router.get('/plans/templates', async (req, res) => {
    actorOf(req);
    answer(res, templatesAnswer, await viewTemplates(context));
  });
  router.get('/plans/:number', async (req, res) => {
    answer(res, planAnswer, await viewPlan(context.db, actorOf(req), param(req, 'number')));
  });
  router.post('/plans', async (req, res) => {
    answer(res, planClaimAnswer, await beginPlan(context, actorOf(req), checked(beginPlanSchema, req.body)), 201);
  });

  /** An act answers with the plan as it is afterwards. */
  const act = (method: 'post' | 'put' | 'delete', path: string, run: Run) =>
    router[method](path, async (req, res) => {
      const [actor, number] = [actorOf(req), param(req, 'number')];
      await run(actor, number, req);
      answer(res, planAnswer, await viewPlan(context.db, actor, number));
    });
  act('put', '/plans/:number', (actor, number, req) => {
    const { revision, set } = checked(planHeaderSchema, req.body);
    return editPlan(context, actor, { number, revision }, set);
  });
  act('post', '/plans/:number/estimates', (actor, number, req) => {
    const { revision, estimates } = checked(addEstimatesSchema, req.body);
    return addEstimates(context, actor, { number, revision }, estimates);
  });
  router.put('/plans/:number/estimates', async (req, res) => {
    const [actor, number] = [actorOf(req), param(req, 'number')];
    const { revision, rehearse, ...change } = checked(estimatesSchema, req.body);
    const view = (db: Context['db']) => viewPlan(db, actor, number);
    const seen = { number, revision };
    if (rehearse) {
      const shown = await rehearseEstimates(context, actor, seen, change, view);
      return answer(res, planAnswer, shown as never);
    }
    await editEstimates(context, actor, seen, change);
    answer(res, planAnswer, await view(context.db));
  });
  act('delete', '/plans/:number/estimates/:estimate', (actor, number, req) =>
    removeEstimate(context, actor, { number, ...checked(seenQuery, req.query) }, param(req, 'estimate')),
  );
  /** A file that is sent to a plan, or to one of its bookings. */
  const file = (path: string, run: Run) =>
    router.post(path, uploads, upload(0), async (req, res) => {
      const [actor, number] = [actorOf(req), param(req, 'number')];
      await run(actor, number, req);
      answer(res, planAnswer, await viewPlan(context.db, actor, number), 201);
    });
  const seenIn = (req: Request, number: string) => ({ number, ...checked(seenQuery, req.query) });
  const bookingIn = (req: Request) => numberParam(req, 'booking', 'booking');
  const attachmentIn = (req: Request) => numberParam(req, 'id', 'attachment');
  file('/plans/:number/attachments', (actor, number, req) =>
    attachToPlan(services, actor, seenIn(req, number), fileOf(req)),
  );
  act('delete', '/plans/:number/attachments/:id', (actor, number, req) =>
    detachFromPlan(context, actor, seenIn(req, number), attachmentIn(req)),
  );
  act('post', '/plans/:number/bookings', (actor, number, req) => {
    const { revision, booking } = checked(addBookingSchema, req.body);
    return addBooking(context, actor, { number, revision }, booking);
  });
  act('put', '/plans/:number/bookings/:booking', (actor, number, req) => {
    const { revision, set } = checked(editBookingSchema, req.body);
    return editBooking(context, actor, { number, revision }, bookingIn(req), set);
  });
  act('delete', '/plans/:number/bookings/:booking', (actor, number, req) =>
    removeBooking(context, actor, seenIn(req, number), bookingIn(req)),
  );
  file('/plans/:number/bookings/:booking/attachments', (actor, number, req) =>
    attachToBooking(services, actor, seenIn(req, number), bookingIn(req), fileOf(req)),
  );
  act('delete', '/plans/:number/bookings/:booking/attachments/:id', (actor, number, req) =>
    detachFromBooking(context, actor, seenIn(req, number), bookingIn(req), attachmentIn(req)),
  );
  act('post', '/plans/:number/submit', (actor, number, req) =>
    submitPlan(context, actor, { number, ...checked(seenPlanSchema, req.body) }),
  );
  act('post', '/plans/:number/call-back', (actor, number, req) =>
    callBackPlan(context, actor, { number, ...checked(seenPlanSchema, req.body) }),
  );
  act('post', '/plans/:number/bring-back', (actor, number, req) =>
    bringBackPlan(context, actor, { number, ...checked(seenPlanSchema, req.body) }),
  );
  act('post', '/plans/:number/withdraw', (actor, number, req) =>
    withdrawPlan(context, actor, { number, ...checked(seenPlanSchema, req.body) }),
  );
  act('post', '/plans/:number/take-back', (actor, number, req) =>
    takeBackPlan(context, actor, { number, ...checked(seenPlanSchema, req.body) }),
  );
  act('post', '/plans/:number/approve', (actor, number, req) =>
    approvePlan(context, actor, { number, ...checked(approvePlanSchema, req.body) }),
  );
  act('post', '/plans/:number/decline', (actor, number, req) =>
    declinePlan(context, actor, { number, ...checked(declinePlanSchema, req.body) }),
  );
  router.post('/plans/:number/claim', async (req, res) => {
    const seen = { number: param(req, 'number'), ...checked(seenPlanSchema, req.body) };
    answer(res, planClaimAnswer, await claimPlan(context, actorOf(req), seen), 201);
  });
  return router;
}
