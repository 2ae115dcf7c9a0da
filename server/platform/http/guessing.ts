import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { parse } from 'cookie';
import type { Request, Response } from 'express';
import type { Pool } from 'pg';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { sha256 } from '../history/sha256.ts';
import type { FreeGuesses, Throttles } from './throttle.ts';
import { Refused } from './refusal.ts';
import type { Secrets } from './sealed.ts';

/** Slows down whoever guesses passwords, and nobody else. */
export interface Guessing {
  /** Counts an attempt before its password is looked at; refused, with the time to wait, when there were too many. */
  attempt(req: Request, email: string): Promise<Attempt>;
}
export interface Attempt {
  /** Takes the attempt out of the count again, and knows this device from now on. */
  succeeded(res: Response): Promise<void>;
  /** Takes the attempt out of the count, as if it had not been made: it was no guess, and opened nothing. */
  takenBack(): Promise<void>;
}

const COOKIE = 'ebbet-known';
const DEVICE_DAYS = 365;
const PEOPLE_A_DEVICE = 5;

/**
 * Attempts are counted, in the database, by who is guessed at from where, by the address, and by the account; after some
 * that are free each makes the next wait twice as long. Counting comes before looking, so many at once gain nothing. A
 * device on which somebody signed in before counts by itself and passes the waits of account and address, so that guessing
 * locks out neither the owner nor the office they sit in.
 */
export function createGuessing(pool: Pool, secrets: Secrets, throttles: Throttles): Guessing {
  const counted = new RateLimiterPostgres(throttles.failures(pool));
  const waits = new RateLimiterPostgres(throttles.waits(pool));
  const { free, ...waiting } = throttles.guesses;

  /** Whether the attempt may go on by one key: it is free, or the first since the last wait was over. */
  const count = async ({ kind, key }: Counted): Promise<number> => {
    const { consumedPoints } = await counted.penalty(key);
    const seconds = waitAfter(consumedPoints - free[kind], waiting);
    if (seconds === 0) return 0;
    try {
      await waits.consume(key, 1, { customDuration: seconds });
      return 0;
    } catch (error) {
      if (!(error instanceof RateLimiterRes)) throw error;
      await counted.reward(key);
      // a wait that is just over refuses as well: whoever was first has it
      return Math.max(1, Math.ceil(error.msBeforeNext / 1000));
    }
  };
  /** How long a wait goes on; whoever comes meanwhile is not counted. */
  const secondsLeft = async ({ key }: Counted): Promise<number> =>
    Math.ceil(((await waits.get(key))?.msBeforeNext ?? 0) / 1000);
  return {
    async attempt(req, email) {
      const keys = keysOf(req, email, knownDevice(req, secrets, email));
      refuseFor(await Promise.all(keys.map(secondsLeft)));
      refuseFor(await Promise.all(keys.map(count)));
      return {
        async succeeded(res) {
          const [own, ...others] = keys.map(({ key }) => key);
          await Promise.all([counted.delete(own!), ...others.map((key) => counted.reward(key))]);
          await Promise.all(keys.map(({ key }) => waits.delete(key)));
          rememberDevice(req, res, secrets, email);
        },
        async takenBack() {
          await Promise.all(keys.map(({ key }) => counted.reward(key)));
        },
      };
    },
  };
}

function refuseFor(seconds: readonly number[]): void {
  const longest = Math.max(...seconds);
  if (longest > 0) throw new Refused('too-many', { seconds: longest });
}

interface Counted {
  kind: keyof FreeGuesses['free'];
  key: string;
}

/** By what an attempt is counted: digests, so that no e-mail is kept and any length fits. */
function keysOf(req: Request, email: string, device: string | null): Counted[] {
  const counted = (kind: Counted['kind'], ...what: string[]): Counted => ({
    kind,
    key: sha256([kind, ...what].join('\n')),
  });
  if (device) return [counted('pair', 'device', device, email)];
  const address = req.ip ?? 'unknown';
  return [counted('pair', address, email), counted('address', address), counted('account', email)];
}

/** Seconds to wait after so many attempts beyond the free ones: the first, twice that … up to the longest. From 1 second: 0 → 0; 3 → 4. */
export const waitAfter = (
  beyond: number,
  { firstSeconds, longestSeconds }: Pick<FreeGuesses, 'firstSeconds' | 'longestSeconds'>,
): number => (beyond <= 0 ? 0 : Math.min(longestSeconds, firstSeconds * 2 ** (beyond - 1)));

const tokensOf = (req: Request): string[] =>
  (parse(req.headers.cookie ?? '')[COOKIE] ?? '').split('~').slice(0, PEOPLE_A_DEVICE).filter(Boolean);
const signed = (secret: string, device: string, email: string): string =>
  createHmac('sha256', secret).update(`known device\n${device}\n${email}`).digest('base64url');

/** The name of the device, when somebody signed in on it with this e-mail before. */
function knownDevice(req: Request, secrets: Secrets, email: string): string | null {
  for (const token of tokensOf(req)) {
    const [device = '', signature = ''] = token.split('.');
    if (secrets.some((secret) => same(signature, signed(secret, device, email)))) return device;
  }
  return null;
}

function same(one: string, other: string): boolean {
  const [given, right] = [Buffer.from(one), Buffer.from(other)];
  return given.length === right.length && timingSafeEqual(given, right);
}

function rememberDevice(req: Request, res: Response, secrets: Secrets, email: string): void {
  if (knownDevice(req, secrets, email)) return;
  const device = randomBytes(12).toString('base64url');
  const tokens = [`${device}.${signed(secrets[0], device, email)}`, ...tokensOf(req)].slice(0, PEOPLE_A_DEVICE);
  const maxAge = DEVICE_DAYS * 86_400_000;
  res.cookie(COOKIE, tokens.join('~'), {
    httpOnly: true,
    sameSite: 'strict',
    secure: req.secure,
    maxAge,
    path: '/api/session',
  });
}
