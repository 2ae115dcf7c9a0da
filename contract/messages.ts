import { z } from 'zod';
import { id, moment, recordId } from './primitives.ts';
import { route, type RouteContract } from './route.ts';

/** What people hear of: in the application at once, by mail as each of them wants it. */
export const MAIL_CHOICES = ['at once', 'daily', 'none'] as const;
export const messagesQuery = z.strictObject({ before: recordId.optional() });
const message = z.object({
  id: recordId,
  at: moment,
  read: z.boolean(),
  record: z.enum(['claim', 'plan', 'advance']),
  number: id,
  subject: z.string(),
  says: z.string(),
  next: z.string().nullable().describe('What to do now.'),
});
export const messagesAnswer = z.object({
  unread: z.number(),
  mail: z.enum(MAIL_CHOICES),
  address: z.string().describe('Where mail to this person goes.'),
  messages: z.array(message).describe('The newest first.'),
  next: recordId.nullable().describe('`before` of the next page.'),
});
export const unreadAnswer = z.object({ unread: z.number() });
/** Everything up to a message is read: what came meanwhile is not. */
export const readSchema = z.strictObject({ upTo: recordId });
export const mailChoiceSchema = z.strictObject({ mail: z.enum(MAIL_CHOICES) });

export const MESSAGE_ROUTES: readonly RouteContract[] = [
  route('get', '/messages', 'signed in', 'What one heard of.', messagesAnswer, { query: messagesQuery }),
  route('get', '/messages/unread', 'signed in', 'How much of it was not read.', unreadAnswer),
  route('get', '/messages/live', 'signed in', 'An event whenever something changes there.', null, {
    type: 'text/event-stream',
  }),
  route('post', '/messages/read', 'signed in', 'Notes what was read.', unreadAnswer, { body: readSchema }),
  route('put', '/messages/mail', 'in person', 'How one wants to hear by mail.', messagesAnswer, {
    body: mailChoiceSchema,
  }),
];

export type MailChoice = (typeof MAIL_CHOICES)[number];
export type ShownMessage = z.infer<typeof message>;
export type MessagesAnswer = z.infer<typeof messagesAnswer>;
export type MessagesInput = z.input<typeof messagesAnswer>;
