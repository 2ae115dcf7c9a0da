import { Router } from 'express';
import { audienceOf, planAudienceOf, seesQuestion } from '../../../core/workflow/audienceOf.ts';
import type { Actor, Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { actorOf, numberParam, pageIn } from '../../platform/http/guards.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { sendPaper } from '../../platform/http/sendPaper.ts';
import {
  selectAttachmentPage,
  selectAttachmentPlace,
  type AttachmentPlace,
} from '../../records/attachments/attachments.queries.ts';
import { selectAdvance } from '../../records/advances/advances.queries.ts';
import { advanceFacts } from '../../records/advances/advanceStore.ts';
import { claimFacts } from '../../records/claims/claimStore.ts';
import { selectClaim } from '../../records/claims/claims.queries.ts';
import { planFacts } from '../../records/plans/planStore.ts';
import { selectPlan } from '../../records/plans/plans.queries.ts';

/** The pages of attachments as they were drawn anew, to whom the record they belong to is shown. */
export function attachmentRoutes({ db }: Context): Router {
  const router = Router();
  router.get('/attachments/:id/pages/:page', async (req, res) => {
    const place = await selectAttachmentPlace(db, numberParam(req, 'id', 'attachment'));
    if (!place || !(await isShown(db, place, actorOf(req)))) throw new Refused('not-found', { what: 'attachment' });
    const page = await selectAttachmentPage(db, place.sha256, pageIn(req));
    if (!page) throw new Refused('not-found', { what: 'page' });
    sendPaper(res, { ...page, sha256: place.sha256 }, 'inline');
  });
  return router;
}

/** Its makers see what is in preparation; the others what went out with a version. Bank papers are no matter of approvers. */
async function isShown(db: Db, place: AttachmentPlace, actor: Actor): Promise<boolean> {
  if (place.plan !== null) {
    const plan = await selectPlan(db, place.plan);
    return plan !== undefined && planAudienceOf(planFacts(plan), actor) !== null;
  }
  if (place.advance !== null) {
    const advance = await selectAdvance(db, place.advance);
    const audience = advance ? audienceOf(advanceFacts(advance), actor) : null;
    return audience !== null && !(place.proves && audience === 'approver');
  }
  const claim = await selectClaim(db, place.claim!);
  const audience = claim ? audienceOf(claimFacts(claim), actor) : null;
  if (!claim || audience === null) return false;
  if (place.asks !== null) return seesQuestion(audience, place.asks);
  return audience === 'claimant' || place.addedIn <= (claim.submitted_version ?? 0);
}
