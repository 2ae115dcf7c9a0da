import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto';

/** Secrets of the server, the newest first: the first seals, any of them opens, so that one can follow another. */
export type Secrets = readonly [string, ...string[]];

const CIPHER = 'aes-256-gcm';
const NONCE = 12;
const TAG = 16;
const keyOf = (secret: string): Buffer => Buffer.from(hkdfSync('sha256', secret, '', 'second factor', 32));

/** A text as only the server's secret reads it (AES-256-GCM, base64): a copy of the database alone gives nothing away. */
export function seal([secret]: Secrets, text: string): string {
  const nonce = randomBytes(NONCE);
  const cipher = createCipheriv(CIPHER, keyOf(secret), nonce);
  return Buffer.concat([nonce, cipher.update(text, 'utf8'), cipher.final(), cipher.getAuthTag()]).toString('base64');
}

/** What was sealed, or null when none of the secrets opens it. */
export function unseal(secrets: Secrets, sealed: string): string | null {
  const bytes = Buffer.from(sealed, 'base64');
  for (const secret of secrets) {
    try {
      const cipher = createDecipheriv(CIPHER, keyOf(secret), bytes.subarray(0, NONCE));
      cipher.setAuthTag(bytes.subarray(-TAG));
      return Buffer.concat([cipher.update(bytes.subarray(NONCE, -TAG)), cipher.final()]).toString('utf8');
    } catch {
      // sealed by another secret
    }
  }
  return null;
}
