import { Router, type Request, type Response } from 'express';
import multer from 'multer';
import type { Pool } from 'pg';
import { RateLimiterPostgres } from 'rate-limiter-flexible';
import { FINANCE, hasAny, type Actor, type Context } from '../../context.ts';
import { actorOf, needs, param } from '../../http/guards.ts';
import { limiter, type Limits } from '../../http/limits.ts';
import { Refused } from '../../http/refusal.ts';
import { inTransaction } from '../claims/access.ts';
import { readPicture } from './readPicture.ts';
import { insertFile, insertReceipt, selectFile, selectPeopleAround, type ReceiptFile } from './receipts.queries.ts';

const MAX_BYTES = 15 * 1024 * 1024;

/** Receipts: added by their owner, shown as a derived picture to those around the claim, originals to auditors alone. */
export function receiptRoutes(context: Context, pool: Pool, limits: Limits): Router {
  const router = Router();
  const upload = multer({ storage: multer.memoryStorage(), limits: { fileSize: MAX_BYTES, files: 1, fields: 0 } });
  const perPerson = limiter(new RateLimiterPostgres(limits.upload(pool)), (req) => actorOf(req).id);

  router.post('/receipts', needs('claimant', 'preparer'), perPerson, upload.single('file'), async (req, res) => {
    if (!req.file) throw new Refused('invalid', { problem: 'Send one file in the field "file".' });
    const picture = await readPicture(req.file.originalname, req.file.buffer);
    const { id, fresh } = await inTransaction(context, async (trx) => {
      await insertFile(trx, picture);
      return insertReceipt(trx, { owner_id: actorOf(req).id, sha256: picture.sha256, added_at: context.clock.now() });
    });
    res.status(fresh ? 201 : 200).json({ id, sha256: picture.sha256, fresh });
  });

  router.get('/receipts/:id/view', async (req, res) => {
    send(res, await readable(context, actorOf(req), req, 'view'), 'inline');
  });

  router.get('/receipts/:id/original', needs('auditor'), async (req, res) => {
    send(res, await readable(context, actorOf(req), req, 'original'), 'attachment');
  });
  return router;
}

async function readable({ db }: Context, actor: Actor, req: Request, which: 'view' | 'original'): Promise<ReceiptFile> {
  const id = param(req, 'id');
  const file = /^\d{1,18}$/.test(id) ? await selectFile(db, BigInt(id), which) : undefined;
  const may =
    file
    && (hasAny(actor, FINANCE)
      || file.ownerId === actor.id
      || (await selectPeopleAround(db, BigInt(id))).includes(actor.id));
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
