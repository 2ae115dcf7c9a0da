import type { Secrets } from './sealed.ts';

const SHORTEST = 24;

/**
 * The secrets of sessions out of SESSION_SECRET: one, or several with a space between, of which the first signs and all open. Empty
 * ones are no secrets; a short one is refused, since sessions could be made up by who guesses it. The sentence that says what to do, or the secrets.
 */
export function readSecrets(given: string | undefined): { secrets: Secrets } | { says: string } {
  const secrets = (given ?? '').split(/\s+/).filter(Boolean);
  const [first, ...others] = secrets;
  if (first === undefined)
    return { says: 'SESSION_SECRET must be set to a long random text; npm start makes one by itself' };
  const short = secrets.findIndex((secret) => secret.length < SHORTEST);
  if (short >= 0)
    return {
      says: `SESSION_SECRET: secret ${short + 1} is shorter than ${SHORTEST} characters. Take a long random text`,
    };
  return { secrets: [first, ...others] };
}
