import { localDate, localHour } from '../../../core/numbers/localDate.ts';
import type { Services } from '../../platform/context.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import {
  lockDigest,
  lockNextMail,
  markMailed,
  postponeMail,
  selectDigest,
  selectDigestPeople,
  updateDigest,
} from './messages.queries.ts';
import { writeDigest, writeMail } from './writeMail.ts';

/**
 * Sends what waits to be mailed at once, one by one: each is held, sent, and noted as sent in one transaction, so that another
 * process passes it over. A mail server that cannot be
 * reached leaves it where it is. A server that dies between the
 * post office's yes and the note sends the same mail with the same Message-ID again, by which a mailbox knows it.
 */
export async function sendMail(services: Services): Promise<void> {
  const { mailer, clock, publicUrl } = services;
  if (!mailer) return;
  for (let more = true; more;)
    more = await inTransaction(services, async (trx) => {
      const mail = await lockNextMail(trx, clock.now());
      if (!mail) return false;
      // what was decided meanwhile is not asked for any more
      if (!mail.waits) {
        await markMailed(trx, [mail.id], clock.now());
        return true;
      }
      const letter = writeMail(mail, publicUrl);
      const sent = await taken(
        mailer.send({ to: mail.email, ...letter, messageId: idOf(`message-${mail.id}`, publicUrl) }),
      );
      if (sent) await markMailed(trx, [mail.id], clock.now());
      else await postponeMail(trx, mail.id, clock.now());
      return true;
    });
}

/**
 * Whether the mail server took a mail; false where it refused this one for good (an SMTP reply of 5yz, RFC 5321, 4.2.1), so that
 * one address does not keep back all others. Any other failure is the server's, and the job is tried again.
 */
const taken = (sending: Promise<void>): Promise<boolean> =>
  sending.then(
    () => true,
    (error: { responseCode?: number }) => {
      if ((error.responseCode ?? 0) < 500) throw error;
      return false;
    },
  );

const MORNING = 7;

/** Sends one mail a day to those who want it so, once their day has begun; later where it could not be sent then. */
export async function sendDigests(services: Services): Promise<void> {
  const { mailer, clock, publicUrl, db } = services;
  if (!mailer) return;
  for (const { id, email, time_zone, digest_on } of await selectDigestPeople(db)) {
    const on = localDate(clock.now(), time_zone);
    if (digest_on === on || localHour(clock.now(), time_zone) < MORNING) continue;
    await inTransaction(services, async (trx) => {
      if (!(await lockDigest(trx, id, on))) return;
      const messages = await selectDigest(trx, id);
      const waiting = messages.filter((m) => m.waits);
      const messageId = idOf(`digest-${id}-${on}`, publicUrl);
      if (waiting.length > 0) await mailer.send({ to: email, ...writeDigest(waiting, publicUrl), messageId });
      await markMailed(
        trx,
        messages.map((m) => m.id),
        clock.now(),
      );
      await updateDigest(trx, id, on);
    });
  }
}

const idOf = (name: string, publicUrl: string): string => `<${name}@${new URL(publicUrl).hostname}>`;
