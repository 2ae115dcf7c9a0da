import { Router } from 'express';
import { approvalsAnswer, routeAnswer, routedParams, tryRouteSchema } from '../../../contract/approvals.ts';
import type { Context } from '../../platform/context.ts';
import { answer } from '../../platform/http/answer.ts';
import { actorOf, checked } from '../../platform/http/guards.ts';
import { viewApprovals } from './approvals.service.ts';
import { tryRoute, viewRoute } from './route.service.ts';

/** What waits for somebody's decision, and the routes of records. The decisions themselves are acts of each record. */
export function approvalRoutes(context: Context): Router {
  const router = Router();
  router.get('/approvals', async (req, res) => {
    answer(res, approvalsAnswer, await viewApprovals(context, actorOf(req)));
  });
  router.get('/approval-routes/:kind/:number', async (req, res) => {
    const { kind, number } = checked(routedParams, req.params);
    answer(res, routeAnswer, await viewRoute(context, actorOf(req), kind, number));
  });
  router.post('/approval-routes/tries', async (req, res) => {
    answer(res, routeAnswer, await tryRoute(context, checked(tryRouteSchema, req.body)));
  });
  return router;
}
