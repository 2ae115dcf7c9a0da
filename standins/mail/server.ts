import { createServer, type Server } from 'node:http';
import { createTransport } from 'nodemailer';
import { simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';

/** A mail as it came. */
export interface Received {
  at: string;
  from: string;
  to: string[];
  subject: string;
  text: string;
  /** Whether it was written as HTML too. */
  html: boolean;
  /** Its Message-ID, and how often it came under that. */
  id: string | null;
  times: number;
  attachments: { name: string; content: string }[];
}
export interface Mailbox {
  smtp: SMTPServer;
  /** `/` for people, `/letters.json` for tests. */
  pages: Server;
}

const MOST = 500;

/** Where mail to one address is passed on to, as an organisation's own mail server does. */
export interface PassedOn {
  address: string;
  port: number;
}

/** A post office that keeps the last mails it was given, and delivers none but those to one address. */
export function createMailbox(
  letters: Received[],
  keep: (letters: readonly Received[]) => void,
  passedOn: PassedOn | null = null,
): Mailbox {
  const smtp = new SMTPServer({
    disabledCommands: ['AUTH', 'STARTTLS'],
    size: 25 * 1024 * 1024,
    onData(stream, session, done) {
      const to = session.envelope.rcptTo.map((r) => r.address);
      const from = session.envelope.mailFrom ? session.envelope.mailFrom.address : '';
      bytesOf(stream)
        .then(async (raw) => {
          if (passedOn && to.includes(passedOn.address)) await passOn(passedOn, from, raw);
          take(letters, await receive(raw, to));
          letters.splice(0, letters.length - MOST);
          keep(letters);
          done();
        })
        .catch(done);
    },
  });
  smtp.on('error', () => {}); // a sender that breaks off
  return { smtp, pages: createServer((req, res) => show(req.url ?? '/', letters, res)) };
}

/** A mail that came before under the same Message-ID is not shown again, as mailboxes do that know their duplicates (RFC 7352). */
function take(letters: Received[], letter: Received): void {
  const before = letters.find((l) => l.id !== null && l.id === letter.id);
  if (before) before.times += 1;
  else letters.push(letter);
}

async function bytesOf(stream: NodeJS.ReadableStream): Promise<Buffer> {
  const parts: Buffer[] = [];
  for await (const part of stream) parts.push(part as Buffer);
  return Buffer.concat(parts);
}

function passOn({ address, port }: PassedOn, from: string, raw: Buffer): Promise<unknown> {
  const transport = createTransport({ host: '127.0.0.1', port, secure: false, ignoreTLS: true });
  return transport.sendMail({ envelope: { from, to: [address] }, raw });
}

async function receive(raw: Buffer, to: string[]): Promise<Received> {
  const mail = await simpleParser(raw);
  return {
    at: new Date().toISOString(),
    from: mail.from?.text ?? '',
    to,
    subject: mail.subject ?? '',
    text: mail.text ?? '',
    html: Boolean(mail.html),
    id: mail.messageId ?? null,
    times: 1,
    attachments: mail.attachments.map((a) => ({ name: a.filename ?? 'file', content: a.content.toString('utf8') })),
  };
}

function show(url: string, letters: readonly Received[], res: import('node:http').ServerResponse): void {
  const headers = { 'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'" };
  if (url === '/letters.json')
    res.writeHead(200, { ...headers, 'content-type': 'application/json' }).end(JSON.stringify(letters));
  else if (url === '/')
    res.writeHead(200, { ...headers, 'content-type': 'text/html; charset=utf-8' }).end(page(letters));
  else res.writeHead(404, headers).end();
}

const page = (letters: readonly Received[]): string => `<!doctype html><html lang="en"><meta charset="utf-8">
<meta name="viewport" content="width=device-width"><title>Mail of the demo</title>
<style>body{font:16px/1.5 system-ui,sans-serif;max-width:46rem;margin:2rem auto;padding:0 1rem;color-scheme:light dark}
article{border:1px solid #8886;border-radius:6px;padding:1rem;margin:1rem 0}h2{margin:0;font-size:1rem}pre{white-space:pre-wrap;overflow-wrap:anywhere;font:inherit}
p{margin:.2rem 0;opacity:.8}</style><h1>Mail of the demo</h1><p>What Ebbet sent, the newest first. Nothing leaves this machine.</p>
${letters.length === 0 ? '<p>No mail yet.</p>' : [...letters].reverse().map(article).join('\n')}</html>`;

const article = ({ at, from, to, subject, text, attachments }: Received): string => `<article><h2>${safe(subject)}</h2>
<p>to ${safe(to.join(', '))}, from ${safe(from)}, ${safe(at.slice(0, 16).replace('T', ' '))} UTC</p><pre>${linked(safe(text))}</pre>
${attachments.map((a) => `<details><summary>${safe(a.name)}</summary><pre>${safe(a.content.slice(0, 4000))}</pre></details>`).join('')}</article>`;

const SIGNS: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' };
const safe = (text: string): string => text.replace(/[&<>"']/g, (sign) => SIGNS[sign]!);
const linked = (text: string): string => text.replace(/\bhttps?:\/\/[^\s<]+/g, (url) => `<a href="${url}">${url}</a>`);
