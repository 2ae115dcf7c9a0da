import type { Services } from '../../platform/context.ts';
import { MailRefused, type TakenMail } from '../../platform/ports/mailIn.ts';
import { selectGatherer } from '../../records/people/people.queries.ts';
import { addFile } from './receipts.files.ts';

/** Counts what comes for a person; rejects with what the package throws when it is too much. */
export interface Intake {
  consume(person: string): Promise<unknown>;
}

/**
 * A mail that came to the organisation's address for receipts. From a person who may gather it lands among their receipts,
 * attachments and text as from a saved e-mail; from anybody else nowhere, and the sender is told nothing else than any
 * other. Who wrote it is what the mail says: the organisation's own mail server vouches for that.
 */
export async function takeMail(services: Services, intake: Intake, { bytes, sender }: TakenMail): Promise<void> {
  const owner = sender === null ? undefined : await selectGatherer(services.db, sender);
  if (!owner) return services.log.info('a mail with receipts from nobody who is known was let go');
  await intake.consume(owner).catch(() => {
    throw new MailRefused('too much mail at once; it may come again in an hour');
  });
  await addFile(services, { owner, actor: null }, 'mail.eml', bytes);
}
