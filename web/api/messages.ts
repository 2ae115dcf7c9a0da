import useSWR, { mutate } from 'swr';
import useSWRInfinite from 'swr/infinite';
import { messagesAnswer, unreadAnswer, type MailChoice, type MessagesAnswer } from '../../contract/messages.ts';
import { getter, send } from './client.ts';

export type { MailChoice, ShownMessage } from '../../contract/messages.ts';

const UNREAD = '/messages/unread';
const pathOf = (before: string | null) => (before === null ? '/messages' : `/messages?before=${before}`);

export const useUnread = () => useSWR(UNREAD, getter(unreadAnswer), { shouldRetryOnError: false });
/** What one heard of, page by page. */
export const useMessages = () =>
  useSWRInfinite(
    (index: number, last: MessagesAnswer | null) =>
      index > 0 && !last?.next ? null : pathOf(index > 0 ? last!.next : null),
    getter(messagesAnswer),
    { revalidateFirstPage: true },
  );

/** Something changed for this person: everything that lists what waits for them is asked for again. */
export function wake(): void {
  void mutate((key) => typeof key === 'string' && WOKEN.some((path) => key.includes(path)));
  wakeListeners.forEach((tell) => tell());
}
const wakeListeners = new Set<() => void>();
/** Told whenever something changed for this person; returns how to stop listening. */
export function onWake(listener: () => void): () => void {
  wakeListeners.add(listener);
  return () => wakeListeners.delete(listener);
}
const WOKEN = ['/messages', '/approvals', '/advances'];

export async function readUpTo(upTo: string): Promise<void> {
  await mutate(UNREAD, send('POST', '/messages/read', unreadAnswer, { upTo }), { revalidate: false });
}
export const chooseMail = (mail: MailChoice): Promise<MessagesAnswer> =>
  send('PUT', '/messages/mail', messagesAnswer, { mail });
