import type { Actor, Services } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { Refused } from '../../platform/http/refusal.ts';
import { insertFile, selectFileKind } from '../receipts/receipts.queries.ts';
import { sha256Of } from '../receipts/storeReceipt.ts';
import { countAttachments, insertAttachment, type AttachedTo } from './attachments.queries.ts';

/** A file that came with a request. */
export interface SentFile {
  name: string;
  bytes: Buffer;
}
/** A file that was looked at and may be kept; how keeps it inside a transaction. */
export interface TakenFile {
  name: string;
  sha256: string;
  keep(trx: Db): Promise<void>;
}

/** Looks at a file by its content, as receipts are looked at, before anything is locked. Refused by name with the reason. */
export async function takeFile(services: Services, actor: Actor, { name, bytes }: SentFile): Promise<TakenFile> {
  const sha256 = sha256Of(bytes);
  if (bytes.length > 0 && (await selectFileKind(services.db, sha256)))
    return { name, sha256, keep: async () => undefined };
  const file = await services.reader.inspect(bytes, actor.id);
  if (!file.ok) throw new Refused('file-refused', { says: `${name} was not added: ${file.reason}.` });
  if (file.kind === 'parcel')
    throw new Refused('file-refused', { says: `${name} was not added: it is an e-mail with attachments; add those.` });
  return { name, sha256, keep: (trx) => insertFile(trx, sha256, bytes, file) };
}

const MOST = 50;
/** Keeps a file with a record that the caller holds. */
export async function attach(
  { clock }: Pick<Services, 'clock'>,
  trx: Db,
  actor: Actor,
  to: AttachedTo,
  file: TakenFile,
): Promise<void> {
  if ((await countAttachments(trx, to)) >= MOST) throw new Refused('many-attachments', { most: String(MOST) });
  await file.keep(trx);
  await insertAttachment(trx, to, { sha256: file.sha256, name: file.name, by_id: actor.id, at: clock.now() });
}
