import { Router } from 'express';
import { entitiesOf, type Context } from '../../platform/context.ts';
import { chartAnswer, payeesAnswer } from '../../../contract/chart.ts';
import { today } from '../../platform/ports/clock.ts';
import { answer } from '../../platform/http/answer.ts';
import { actorOf } from '../../platform/http/guards.ts';
import { selectPayees } from '../../records/people/people.queries.ts';
import { selectChart } from './chart.queries.ts';

export function bookRoutes({ db, clock }: Context): Router {
  const router = Router();
  router.get('/chart', async (req, res) => {
    actorOf(req);
    answer(res, chartAnswer, await selectChart(db, today(clock)));
  });
  router.get('/payees', async (req, res) => {
    const actor = actorOf(req);
    const people = await selectPayees(db, entitiesOf(actor, ['preparer']), actor.id);
    answer(res, payeesAnswer, { people });
  });
  return router;
}
