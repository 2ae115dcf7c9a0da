import { Router, type Request, type RequestHandler, type Response } from 'express';
import { audienceOf } from '../../../core/workflow/audienceOf.ts';
import type { Actor, Context, Services } from '../../platform/context.ts';
import { actorOf, checked, numberParam, pageIn } from '../../platform/http/guards.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { sendPaper } from '../../platform/http/sendPaper.ts';
import { fileOf, upload } from '../../platform/http/upload.ts';
import {
  selectOriginal,
  selectPage,
  selectReceiptUses,
  type ReceiptFile,
  type ReceiptUse,
} from '../../records/receipts/receipts.queries.ts';
import {
  addedAnswer,
  combineSchema,
  confirmSchema,
  divideSchema,
  madeAnswer,
  receiptsAnswer,
  receiptsQuery,
  seenSchema,
  turnSchema,
} from '../../../contract/gather.ts';
import { seenQuery } from '../../../contract/primitives.ts';
import { answer } from '../../platform/http/answer.ts';
import { bringBackReceipt, combineReceipts, divideReceipt, turnPage } from './papers.service.ts';
import { addFile } from './receipts.files.ts';
import { confirmReceipt, readAgain, removeReceipt, viewReceipts } from './receipts.service.ts';

/** Receipts: added by their owner, shown as derived pictures to those around the claim, originals to auditors alone. */
export function receiptRoutes(services: Services, uploads: RequestHandler): Router {
  const router = Router();

  const sendReceipts = async (req: Request, res: Response) =>
    answer(res, receiptsAnswer, (await viewReceipts(services, actorOf(req))) as never);
  const seenIn = (req: Request, revision: number) => ({ id: numberParam(req, 'id', 'receipt'), revision });

  router.post('/receipts', uploads, upload(0), async (req, res) => {
    const { name, bytes } = fileOf(req);
    const actor = actorOf(req);
    const added = await addFile(services, { owner: actor.id, actor }, name, bytes);
    if (added.length === 1 && !added[0]!.ok) throw new Refused('file-refused', { says: added[0]!.says });
    answer(res, addedAnswer, { added }, added.some((a) => a.ok && a.fresh) ? 201 : 200);
  });
  router.get('/receipts', async (req, res) => {
    const gone = checked(receiptsQuery, req.query).of === 'gone';
    answer(res, receiptsAnswer, (await viewReceipts(services, actorOf(req), gone)) as never);
  });
  router.post('/receipts/combine', async (req, res) => {
    const { receipts } = checked(combineSchema, req.body);
    const seen = receipts.map(({ id, revision }) => ({ id: BigInt(id), revision }));
    answer(res, madeAnswer, { made: [String(await combineReceipts(services, actorOf(req), seen))] }, 201);
  });
  router.post('/receipts/:id/divide', async (req, res) => {
    const { revision, ...division } = checked(divideSchema, req.body);
    const made = await divideReceipt(services, actorOf(req), seenIn(req, revision), division);
    answer(res, madeAnswer, { made: made.map(String) }, 201);
  });
  router.put('/receipts/:id/pages/:page/turn', async (req, res) => {
    const { revision, turns } = checked(turnSchema, req.body);
    await turnPage(services, actorOf(req), seenIn(req, revision), pageIn(req), turns);
    await sendReceipts(req, res);
  });
  router.put('/receipts/:id', async (req, res) => {
    await confirmReceipt(services, actorOf(req), numberParam(req, 'id', 'receipt'), checked(confirmSchema, req.body));
    await sendReceipts(req, res);
  });
  router.post('/receipts/:id/read', uploads, async (req, res) => {
    await readAgain(services, actorOf(req), seenIn(req, checked(seenSchema, req.body).revision));
    await sendReceipts(req, res);
  });
  router.delete('/receipts/:id', async (req, res) => {
    await removeReceipt(services, actorOf(req), seenIn(req, checked(seenQuery, req.query).revision));
    await sendReceipts(req, res);
  });
  router.post('/receipts/:id/back', async (req, res) => {
    await bringBackReceipt(services, actorOf(req), numberParam(req, 'id', 'receipt'));
    await sendReceipts(req, res);
  });

  router.get('/receipts/:id/pages/:page', async (req, res) => {
    sendPaper(
      res,
      await readable(services, actorOf(req), req, (id) => selectPage(services.db, id, pageIn(req))),
      'inline',
    );
  });
  router.get('/receipts/:id/original', async (req, res) => {
    sendPaper(res, await readable(services, actorOf(req), req, (id) => selectOriginal(services.db, id)), 'attachment');
  });
  return router;
}

async function readable(
  { db }: Context,
  actor: Actor,
  req: Request,
  select: (id: bigint) => Promise<ReceiptFile | undefined>,
): Promise<ReceiptFile> {
  const id = numberParam(req, 'id', 'receipt');
  const file = await select(id);
  const may =
    file && (file.ownerId === actor.id || (await selectReceiptUses(db, id)).some((use) => concerns(use, actor)));
  if (!may) throw new Refused('not-found', { what: 'receipt' });
  return file;
}

/** The people who make a claim see its receipts; its approver and finance once they were submitted with it. */
const concerns = (use: ReceiptUse, actor: Actor): boolean =>
  audienceOf(
    {
      ...{ state: null, entity: use.entity_id, submitted: use.submitted, approvers: use.approvers },
      people: {
        claimant: use.claimant_id,
        preparer: use.preparer_id,
        approver: use.deciders,
        owner: use.code_owners,
        questioned: use.questioned,
      },
    },
    actor,
  ) !== null;
