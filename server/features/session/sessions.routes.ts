import { Router, type Request } from 'express';
import { sessionsAnswer } from '../../../contract/session.ts';
import type { Context } from '../../platform/context.ts';
import { sha256 } from '../../platform/history/sha256.ts';
import { answer } from '../../platform/http/answer.ts';
import { actorOf, param } from '../../platform/http/guards.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { deleteSession, selectSessions, type SessionRow } from './sessions.queries.ts';
import { oldestSession, SESSION_HOURS } from './session.routes.ts';

/** Where a person is signed in, and the end of it wherever they say. */
export function sessionsRoutes({ db, clock }: Pick<Context, 'db' | 'clock'>): Router {
  const router = Router();
  const own = (req: Request) => selectSessions(db, actorOf(req).id, oldestSession(clock));
  const view = async (req: Request) => {
    const rows = await own(req);
    return { sessions: rows.map((row) => writeSession(row, req.sessionID)) };
  };
  router.get('/sessions', async (req, res) => {
    answer(res, sessionsAnswer, await view(req));
  });
  router.delete('/sessions/:id', async (req, res) => {
    const wanted = param(req, 'id');
    const found = (await own(req)).find(({ sid }) => nameOf(sid) === wanted);
    if (!found) throw new Refused('not-found', { what: 'session of yours' });
    await deleteSession(db, found.sid);
    answer(res, sessionsAnswer, await view(req));
  });
  return router;
}

/** A session is told by a digest: its own name would let whoever reads it in. */
const nameOf = (sid: string): string => sha256(sid).slice(0, 16);

const writeSession = ({ sid, sess, expire }: SessionRow, here: string) => ({
  id: nameOf(sid),
  since: sess.since,
  lastSeen: new Date(expire.getTime() - SESSION_HOURS * 3_600_000),
  device: sess.device,
  here: sid === here,
});
