import { sayMessage, type Message } from '../../../core/messages/sayMessage.ts';
import type { Letter } from '../../platform/ports/mail.ts';

type Written = Pick<Letter, 'subject' | 'text' | 'html'>;

const FOOT = 'You choose under Messages in Ebbet how you hear of things by mail.';
const pathOf = (publicUrl: string, { record, number }: Message) =>
  `${publicUrl}/${record}s/${encodeURIComponent(number)}`;

/** One message as a mail: what it is about, how much, what to do, and a link; as plain text and as HTML. */
export function writeMail(message: Message, publicUrl: string): Written {
  const { subject } = sayMessage(message);
  return { subject, ...bodies([message], publicUrl) };
}

/** What came in a day, in one mail. */
export const writeDigest = (messages: readonly Message[], publicUrl: string): Written => ({
  subject: messages.length === 1 ? '1 message from Ebbet' : `${messages.length} messages from Ebbet`,
  ...bodies(messages, publicUrl),
});

function bodies(messages: readonly Message[], publicUrl: string) {
  const said = messages.map((message) => ({ ...sayMessage(message), link: pathOf(publicUrl, message) }));
  const text = said.map(({ subject, says, next, link }) =>
    [`${subject}.`, says, next, link].filter(Boolean).join('\n'),
  );
  const html = said.map(
    ({ subject, says, next, link }) =>
      `<h1 style="font-size:18px;margin:24px 0 8px">${safe(subject)}</h1><p>${safe(says)}</p>${next ? `<p>${safe(next)}</p>` : ''}<p><a href="${safe(link)}">Open it in Ebbet</a></p>`,
  );
  return {
    text: `${text.join('\n\n')}\n\n${FOOT}\n`,
    html: `<!doctype html><html lang="en"><body style="font:16px/1.5 sans-serif">${html.join('')}<p style="color:#666;font-size:13px">${FOOT}</p></body></html>`,
  };
}

const SIGNS: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' };
const safe = (text: string): string => text.replace(/[&<>"']/g, (sign) => SIGNS[sign]!);
