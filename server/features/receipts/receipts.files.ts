import type { Services } from '../../platform/context.ts';
import { repeatable } from '../../platform/db/transaction.ts';
import { Refused } from '../../platform/http/refusal.ts';
import type { Accepted } from '../../platform/outside/reading/reading.types.ts';
import { selectFileKind } from '../../records/receipts/receipts.queries.ts';
import { sha256Of, storeReceipt, type Bringer } from '../../records/receipts/storeReceipt.ts';

/** What became of one file: a receipt, or a refusal by name with its reason. */
export type Added = { ok: true; name: string; id: bigint; fresh: boolean } | { ok: false; name: string; says: string };

/**
 * Adds a file; of a saved e-mail with attachments each of those, and the e-mail itself where it says something. What is
 * good is kept whatever the others are. Reading follows in the background, once for each content.
 */
export async function addFile(
  services: Services,
  bringer: Bringer,
  name: string,
  bytes: Buffer,
  cameIn: string | null = null,
): Promise<Added[]> {
  const sha256 = sha256Of(bytes);
  const kind = bytes.length > 0 ? await selectFileKind(services.db, sha256) : undefined;
  // What is in an e-mail may be new to this person though the e-mail itself was added by another.
  const file = kind && kind !== 'mail' ? null : await services.reader.inspect(bytes, bringer.owner);
  if (file && !file.ok) return [refused(name, file.reason)];
  if (file?.kind !== 'parcel') return [await keep(file)];
  if (cameIn !== null) return [refused(name, 'it is an e-mail inside an e-mail; save it by itself')];
  const added: Added[] = [];
  for (const part of file.parts) added.push(...(await addFile(services, bringer, part.name, part.bytes, name)));
  added.push(
    ...file.beyond.map((left) =>
      refused(left, `only the first ${file.parts.length} attachments of an e-mail are taken; add it by itself`),
    ),
  );
  if (file.body) added.push(await keep(file.body));
  return added;

  async function keep(accepted: Accepted | null): Promise<Added> {
    const stored = await repeatable(services, (trx) =>
      storeReceipt(services, trx, bringer, { name, cameIn, sha256, bytes, file: accepted }),
    );
    return { ok: true, name, ...stored };
  }
}

const refused = (name: string, reason: string): Added => ({
  ok: false,
  name,
  says: new Refused('not-a-receipt', { name, reason }).says,
});
