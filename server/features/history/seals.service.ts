import { mkdir, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Services } from '../../platform/context.ts';
import { sha256 } from '../../platform/history/sha256.ts';
import { insertSealing, selectLastSealing, selectSeals } from './seals.queries.ts';

/** An act that was under way when the last seals were taken is in the next ones. */
const OVERLAP = 3_600_000;
const BEGINNING = new Date(0);

/**
 * Sends the ends of all chains that moved since the last time to where somebody with the database in hand does not reach
 * them. One after the other the files are what `ebbet verify --against` takes: a later line of a record stands for the
 * earlier. Counted as sent once every place has them, so twice does no harm and nothing is left out.
 */
export async function sendSeals({ db, clock, mailer, seals: places }: Services): Promise<void> {
  if (!places.folder && (places.mailboxes.length === 0 || !mailer)) return;
  const [at, last] = [clock.now(), await selectLastSealing(db)];
  const seals = await selectSeals(db, last ? new Date(last.getTime() - OVERLAP) : BEGINNING);
  const content = seals.map((seal) => `${JSON.stringify(seal)}\n`).join('');
  const digest = sha256(content);
  const filename = `seals-${at.toISOString().slice(0, 19).replaceAll(':', '')}Z.jsonl`;
  if (places.folder) await keepFile(places.folder, filename, content);
  for (const to of mailer ? places.mailboxes : [])
    await mailer!.send({
      to,
      subject: `Seals of the history, ${at.toISOString().slice(0, 10)}`,
      text: letter(seals.length, digest),
      attachments: [{ filename, content }],
    });
  await insertSealing(db, { at, records: seals.length, sha256: digest });
}

async function keepFile(folder: string, name: string, content: string): Promise<void> {
  await mkdir(folder, { recursive: true });
  await writeFile(join(folder, `.${name}`), content);
  await rename(join(folder, `.${name}`), join(folder, name));
}

const letter = (
  records: number,
  digest: string,
): string => `Keep this mail where nobody who runs Ebbet's database can change it.

The attached seals say where the histories of ${records} records end that changed since the last mail. With the seals of all
days one after the other in one file, an auditor proves that nothing was cut or written anew:

    ebbet verify --against seals.jsonl history.jsonl

SHA-256 of the attachment: ${digest}
`;
