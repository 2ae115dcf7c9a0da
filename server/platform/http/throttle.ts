import type { Request, RequestHandler } from 'express';
import type { Pool } from 'pg';
import { RateLimiterRes, type IRateLimiterPostgresOptions, type RateLimiterPostgres } from 'rate-limiter-flexible';
import { Refused } from './refusal.ts';

/** How many attempts are free, by who is guessed at from where, by address and by account; then how long one waits. */
export interface FreeGuesses {
  free: { pair: number; address: number; account: number };
  firstSeconds: number;
  longestSeconds: number;
}

/** How often somebody may try; counted in the database, so that all server processes count together. */
export interface Throttles {
  /** Attempts to sign in that did not succeed, and how long the next has to wait. */
  failures(pool: Pool): IRateLimiterPostgresOptions;
  waits(pool: Pool): IRateLimiterPostgresOptions;
  guesses: FreeGuesses;
  upload(pool: Pool): IRateLimiterPostgresOptions;
  /** Letters for a new password: to an account, and from an address. */
  letters(pool: Pool): IRateLimiterPostgresOptions;
  lettersFrom(pool: Pool): IRateLimiterPostgresOptions;
}

const inTable = (
  storeClient: Pool,
  keyPrefix: string,
  points: number,
  duration: number,
): IRateLimiterPostgresOptions => ({
  storeClient,
  storeType: 'pool',
  tableName: 'rate_limits',
  tableCreated: true,
  clearExpiredByTimeout: true,
  keyPrefix,
  points,
  duration,
});

export const usualThrottles: Throttles = {
  failures: (pool) => inTable(pool, 'wrong-password', 1_000_000, 24 * 3600),
  waits: (pool) => inTable(pool, 'sign-in-wait', 1, 3600),
  guesses: { free: { pair: 5, address: 100, account: 50 }, firstSeconds: 1, longestSeconds: 900 },
  upload: (pool) => inTable(pool, 'upload', 60, 60),
  letters: (pool) => inTable(pool, 'letters', 5, 3600),
  lettersFrom: (pool) => inTable(pool, 'letters-from', 60, 3600),
};

/** Counts an attempt against its key; refused, with the time to wait, when there are too many. */
export async function countAttempt(limit: RateLimiterPostgres, key: string): Promise<void> {
  try {
    await limit.consume(key);
  } catch (error) {
    throw error instanceof RateLimiterRes
      ? new Refused('too-many', { seconds: Math.ceil(error.msBeforeNext / 1000) })
      : error;
  }
}

/** As `countAttempt`, for a whole route. */
export function limiter(limit: RateLimiterPostgres, keyOf: (req: Request) => string): RequestHandler {
  return async (req, _res, next) => {
    await countAttempt(limit, keyOf(req));
    next();
  };
}
