import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { parse } from 'cookie';
import type { Request, Response } from 'express';
import type { Pool } from 'pg';
import { RateLimiterPostgres } from 'rate-limiter-flexible';
import type { FreeGuesses, Throttles } from './throttle.ts';
import { Refused } from './refusal.ts';

/** Slows down whoever guesses passwords, and nobody else. */
export interface Guessing {
  /** Refused, with the time to wait, when there were too many wrong passwords. */
  before(req: Request, email: string): Promise<void>;
  failed(req: Request, email: string): Promise<void>;
  /** Forgets the failures, and knows this device from now on. */
  succeeded(req: Request, res: Response, email: string): Promise<void>;
}

const COOKIE = 'ebbet-known';
const DEVICE_DAYS = 365;
const PEOPLE_A_DEVICE = 5;

/**
 * Wrong passwords are counted, in the database, by who is guessed at from where, by the address, and by the account; after
 * some that are free each makes the next wait twice as long. A device on which somebody signed in before counts by itself
 * and passes the waits of account and address, so that guessing locks out neither the owner nor the office they sit in.
 */
export function createGuessing(pool: Pool, secret: string, throttles: Throttles): Guessing {
  const failures = new RateLimiterPostgres(throttles.failures(pool));
  const waits = new RateLimiterPostgres(throttles.waits(pool));
  const { free, longestSeconds } = throttles.guesses;
  const keysOf = (req: Request, email: string): [keyof FreeGuesses['free'], string][] => {
    const device = knownDevice(req, secret, email);
    if (device) return [['pair', `device ${device} ${email}`]];
    return [
      ['pair', `pair ${req.ip} ${email}`],
      ['address', `address ${req.ip}`],
      ['account', `account ${email}`],
    ];
  };
  return {
    async before(req, email) {
      const found = await Promise.all(keysOf(req, email).map(([, key]) => waits.get(key)));
      const ms = Math.max(0, ...found.map((wait) => wait?.msBeforeNext ?? 0));
      if (ms > 0) throw new Refused('too-many', { seconds: Math.ceil(ms / 1000) });
    },
    async failed(req, email) {
      for (const [kind, key] of keysOf(req, email)) {
        const { consumedPoints } = await failures.penalty(key);
        const seconds = waitAfter(consumedPoints - free[kind], longestSeconds);
        if (seconds > 0) await waits.block(key, seconds);
      }
    },
    async succeeded(req, res, email) {
      const [[, key]] = keysOf(req, email) as [[string, string]];
      await Promise.all([failures.delete(key), waits.delete(key)]);
      rememberDevice(req, res, secret, email);
    },
  };
}

/** Seconds to wait after so many wrong passwords beyond the free ones: 1, 2, 4 … up to the longest. 0 → 0; 3 → 4. */
export const waitAfter = (beyond: number, longest: number): number =>
  beyond <= 0 ? 0 : Math.min(longest, 2 ** (beyond - 1));

const tokensOf = (req: Request): string[] =>
  (parse(req.headers.cookie ?? '')[COOKIE] ?? '').split('~').slice(0, PEOPLE_A_DEVICE).filter(Boolean);
const signed = (secret: string, device: string, email: string): string =>
  createHmac('sha256', secret).update(`known device\n${device}\n${email}`).digest('base64url');

/** The name of the device, when somebody signed in on it with this e-mail before. */
function knownDevice(req: Request, secret: string, email: string): string | null {
  for (const token of tokensOf(req)) {
    const [device = '', signature = ''] = token.split('.');
    const [given, right] = [Buffer.from(signature), Buffer.from(signed(secret, device, email))];
    if (given.length === right.length && timingSafeEqual(given, right)) return device;
  }
  return null;
}

function rememberDevice(req: Request, res: Response, secret: string, email: string): void {
  if (knownDevice(req, secret, email)) return;
  const device = randomBytes(12).toString('base64url');
  const tokens = [`${device}.${signed(secret, device, email)}`, ...tokensOf(req)].slice(0, PEOPLE_A_DEVICE);
  const maxAge = DEVICE_DAYS * 86_400_000;
  res.cookie(COOKIE, tokens.join('~'), {
    httpOnly: true,
    sameSite: 'strict',
    secure: req.secure,
    maxAge,
    path: '/api/session',
  });
}
