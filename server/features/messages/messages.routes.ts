import { Router } from 'express';
import {
  mailChoiceSchema,
  messagesAnswer,
  messagesQuery,
  readSchema,
  unreadAnswer,
} from '../../../contract/messages.ts';
import type { Services } from '../../platform/context.ts';
import { answer } from '../../platform/http/answer.ts';
import { byItself } from '../../platform/http/byItself.ts';
import { actorOf, checked } from '../../platform/http/guards.ts';
import { stream } from '../../platform/http/stream.ts';
import { isSignedIn } from './messages.queries.ts';
import { chooseMail, readMessages, viewMessages, viewUnread } from './view.service.ts';

/** What one heard of, live too, and how one hears of it by mail. */
export function messageRoutes(services: Services): Router {
  const router = Router();
  router.get('/messages', async (req, res) => {
    const { before } = checked(messagesQuery, req.query);
    answer(res, messagesAnswer, await viewMessages(services, actorOf(req), before ?? null));
  });
  router.get('/messages/unread', byItself, async (req, res) => {
    answer(res, unreadAnswer, await viewUnread(services, actorOf(req)));
  });
  router.get('/messages/live', byItself, (req, res) => {
    const actor = actorOf(req);
    stream(
      res,
      (wake) => services.live.on(actor.id, wake),
      () => isSignedIn(services.db, actor),
    );
  });
  router.post('/messages/read', async (req, res) => {
    const actor = actorOf(req);
    await readMessages(services, actor, checked(readSchema, req.body).upTo);
    answer(res, unreadAnswer, await viewUnread(services, actor));
  });
  router.put('/messages/mail', async (req, res) => {
    const actor = actorOf(req);
    await chooseMail(services, actor, checked(mailChoiceSchema, req.body).mail);
    answer(res, messagesAnswer, await viewMessages(services, actor));
  });
  return router;
}
