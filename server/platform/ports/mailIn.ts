import { SMTPServer } from 'smtp-server';
import type { Logger } from 'pino';

/** A mail as it came, and the address its head says it is from. */
export interface TakenMail {
  bytes: Buffer;
  sender: string | null;
}
/** Why a mail is not taken now; its sender's server tries again later. */
export class MailRefused extends Error {}

export interface MailIn {
  /** The one address mail is taken for. */
  address: string;
  port: number;
  host: string;
}

const MOST_BYTES = 25 * 1024 * 1024;
const MOST_AT_ONCE = 10;
const LATER = 451;
const NOT_HERE = 550;

/**
 * Listens for mail to one address, as the organisation's mail server passes it on. Nothing is parsed here but addresses of
 * the envelope: `senderOf` looks into the mail in a process of its own.
 */
export function listenForMail(
  { address, port, host }: MailIn,
  senderOf: (bytes: Buffer) => Promise<string | null>,
  take: (mail: TakenMail) => Promise<void>,
  log: Logger,
): { close(): Promise<void> } {
  const server = new SMTPServer({
    disabledCommands: ['AUTH', 'STARTTLS'],
    size: MOST_BYTES,
    maxClients: MOST_AT_ONCE,
    onRcptTo: ({ address: to }, _session, done) =>
      to.toLowerCase() === address.toLowerCase() ? done() : done(withCode('no such mailbox here', NOT_HERE)),
    onData(stream, _session, done) {
      const parts: Buffer[] = [];
      let size = 0;
      stream.on('data', (part: Buffer) => {
        size += part.length;
        if (size <= MOST_BYTES) parts.push(part);
      });
      stream.on('end', () => {
        if (stream.sizeExceeded) return done(withCode('larger than 25 MB', 552));
        const bytes = Buffer.concat(parts);
        senderOf(bytes)
          .then((sender) => take({ bytes, sender }))
          .then(() => done())
          .catch((error: unknown) => {
            if (!(error instanceof MailRefused)) log.error({ error }, 'a mail could not be taken');
            done(withCode(error instanceof MailRefused ? error.message : 'not now; try again later', LATER));
          });
      });
    },
  });
  server.on('error', (error) => log.warn({ message: error.message }, 'mail'));
  server.listen(port, host);
  return { close: () => new Promise((resolve) => server.close(resolve)) };
}

const withCode = (message: string, responseCode: number): Error => Object.assign(new Error(message), { responseCode });
