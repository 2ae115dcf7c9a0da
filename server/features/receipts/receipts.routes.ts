import { visible } from '../../../core/numbers/visible.ts';
import { Router, type Request, type Response } from 'express';
import multer from 'multer';
import type { Pool } from 'pg';
import { RateLimiterPostgres } from 'rate-limiter-flexible';
import { FINANCE, hasAny, type Actor, type Context, type Services } from '../../platform/context.ts';
import { actorOf, checked, needs, numberParam, param } from '../../platform/http/guards.ts';
import { limiter, type Limits } from '../../platform/http/limits.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { selectOriginal, selectPage, selectPeopleAround, updateReceipt, type ReceiptFile } from './receipts.queries.ts';
import { confirmSchema } from './receipts.schema.ts';
import { addFile, confirmReceipt, readAgain, removeReceipt, viewReceipts } from './receipts.service.ts';

const MAX_BYTES = 15 * 1024 * 1024;

/** Receipts: added by their owner, shown as derived pictures to those around the claim, originals to auditors alone. */
export function receiptRoutes(services: Services, pool: Pool, limits: Limits): Router {
  const router = Router();
  const upload = multer({
    storage: multer.memoryStorage(),
    limits: { fileSize: MAX_BYTES, files: 1, fields: 0 },
    defParamCharset: 'utf8',
  });
  const perPerson = limiter(new RateLimiterPostgres(limits.upload(pool)), (req) => actorOf(req).id);
  const gatherer = needs('claimant', 'preparer');

  router.post('/receipts', gatherer, perPerson, upload.single('file'), async (req, res) => {
    if (!req.file) throw new Refused('invalid', { problem: 'Send one file in the field "file".' });
    const added = await addFile(services, actorOf(req), nameOf(req.file.originalname), req.file.buffer);
    if (added.length === 1 && !added[0]!.ok) throw new Refused('file-refused', { says: added[0]!.says });
    res.status(added.some((a) => a.ok && a.fresh) ? 201 : 200).json({ added });
  });
  router.get('/receipts', gatherer, async (req, res) => {
    res.json(await viewReceipts(services, actorOf(req)));
  });
  router.put('/receipts/:id', gatherer, async (req, res) => {
    await confirmReceipt(services, actorOf(req), numberParam(req, 'id', 'receipt'), checked(confirmSchema, req.body));
    res.json(await viewReceipts(services, actorOf(req)));
  });
  router.post('/receipts/:id/read', gatherer, async (req, res) => {
    await readAgain(services, actorOf(req), numberParam(req, 'id', 'receipt'));
    res.json(await viewReceipts(services, actorOf(req)));
  });
  router.delete('/receipts/:id', gatherer, async (req, res) => {
    await removeReceipt(services, actorOf(req), numberParam(req, 'id', 'receipt'));
    res.json(await viewReceipts(services, actorOf(req)));
  });
  router.post('/receipts/:id/back', gatherer, async (req, res) => {
    const id = numberParam(req, 'id', 'receipt');
    const file = await selectOriginal(services.db, id);
    if (file?.ownerId !== actorOf(req).id) throw new Refused('not-found', { what: 'receipt' });
    await updateReceipt(services.db, id, { removed_at: null });
    res.json(await viewReceipts(services, actorOf(req)));
  });

  router.get('/receipts/:id/pages/:page', async (req, res) => {
    const page = Number(/^\d{1,4}$/.exec(param(req, 'page'))?.[0] ?? 0);
    send(res, await readable(services, actorOf(req), req, (id) => selectPage(services.db, id, page)), 'inline');
  });
  router.get('/receipts/:id/original', needs('auditor'), async (req, res) => {
    send(res, await readable(services, actorOf(req), req, (id) => selectOriginal(services.db, id)), 'attachment');
  });
  return router;
}

/** Names are shown, so what could turn text around or hide is taken out of them. */
const nameOf = (name: string): string => visible(name).slice(-120) || 'file without a name';

async function readable(
  { db }: Context,
  actor: Actor,
  req: Request,
  select: (id: bigint) => Promise<ReceiptFile | undefined>,
): Promise<ReceiptFile> {
  const id = numberParam(req, 'id', 'receipt');
  const file = await select(id);
  const may =
    file
    && (hasAny(actor, FINANCE) || file.ownerId === actor.id || (await selectPeopleAround(db, id)).includes(actor.id));
  if (!may) throw new Refused('not-found', { what: 'receipt' });
  return file;
}

/** What people uploaded is served so that no browser runs or guesses anything in it. */
function send(res: Response, file: ReceiptFile, disposition: 'inline' | 'attachment'): void {
  res
    .set('Content-Type', file.type)
    .set('X-Content-Type-Options', 'nosniff')
    .set('Content-Security-Policy', "sandbox; default-src 'none'")
    .set('Content-Disposition', `${disposition}; filename="${file.sha256.slice(0, 16)}"`)
    .set('Cache-Control', 'private, max-age=3600')
    .send(file.bytes);
}
