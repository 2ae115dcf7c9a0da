import { dictionary } from '@zxcvbn-ts/language-common';
import { Refused } from '../../platform/http/refusal.ts';

/** The most used passwords, as they were found in what was stolen elsewhere; shipped with the package of that name. */
const MOST_USED = new Set<string>(dictionary['passwords-common'] as string[]);

/**
 * Refuses a password that is guessed first: one of the most used, whatever its capitals or the digits and signs put
 * behind it, one letter again and again, or the person's own name or address.
 */
export function assertGoodPassword(password: string, person: { name: string; email: string }): void {
  const plain = password.toLowerCase();
  const bare = plain.replace(/[^\p{L}]/gu, '');
  const own = [person.email, person.email.split('@')[0]!, ...person.name.split(/\s+/)].map((s) => s.toLowerCase());
  const guessed = MOST_USED.has(plain) || MOST_USED.has(bare) || own.includes(bare) || own.includes(plain);
  if (guessed || new Set(plain).size < 4) throw new Refused('common-password', { path: 'password' });
}
