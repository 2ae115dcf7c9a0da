import type { MailChoice, MessagesInput } from '../../../contract/messages.ts';
import { sayMessage } from '../../../core/messages/sayMessage.ts';
import type { Actor, Context } from '../../platform/context.ts';
import {
  countUnread,
  markRead,
  selectMailChoice,
  selectMessages,
  updateMailChoice,
  type MessageRow,
} from './messages.queries.ts';

const PAGE = 50;

/** What somebody heard of, the newest first, in words. */
export async function viewMessages(
  { db }: Pick<Context, 'db'>,
  actor: Actor,
  before: string | null = null,
): Promise<MessagesInput> {
  const rows = await selectMessages(db, actor.id, before, PAGE + 1);
  const shown = rows.slice(0, PAGE);
  const { mail, email } = await selectMailChoice(db, actor.id);
  return {
    unread: await countUnread(db, actor.id),
    mail,
    address: email,
    messages: shown.map(shownMessage),
    next: rows.length > PAGE ? String(shown.at(-1)!.id) : null,
  };
}

const shownMessage = (row: MessageRow): MessagesInput['messages'][number] => ({
  ...{ id: String(row.id), at: row.at, read: row.read_at !== null || !row.waits },
  ...{ record: row.record as MessagesInput['messages'][number]['record'], number: row.number },
  ...sayMessage(row),
});

export const viewUnread = async ({ db }: Pick<Context, 'db'>, actor: Actor) => ({
  unread: await countUnread(db, actor.id),
});

/** Notes that everything up to a message was read. */
export const readMessages = ({ db, clock }: Pick<Context, 'db' | 'clock'>, actor: Actor, upTo: string): Promise<void> =>
  markRead(db, actor.id, upTo, clock.now());

/** How somebody wants to hear by mail from now on; what waits already goes as it was wanted. */
export const chooseMail = ({ db }: Pick<Context, 'db'>, actor: Actor, mail: MailChoice): Promise<void> =>
  updateMailChoice(db, actor.id, mail);
