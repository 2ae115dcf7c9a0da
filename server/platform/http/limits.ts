import type { Request, RequestHandler } from 'express';
import type { Pool } from 'pg';
import { RateLimiterRes, type IRateLimiterPostgresOptions, type RateLimiterPostgres } from 'rate-limiter-flexible';
import { Refused } from './refusal.ts';

/** How often somebody may try; counted in the database, so that all server processes count together. */
export interface Limits {
  signInByAddress(pool: Pool): IRateLimiterPostgresOptions;
  signInByEmail(pool: Pool): IRateLimiterPostgresOptions;
  upload(pool: Pool): IRateLimiterPostgresOptions;
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
  clearExpiredByTimeout: false,
  keyPrefix,
  points,
  duration,
});

export const usualLimits: Limits = {
  signInByAddress: (pool) => inTable(pool, 'sign-in-address', 100, 60),
  signInByEmail: (pool) => inTable(pool, 'sign-in-email', 10, 60),
  upload: (pool) => inTable(pool, 'upload', 60, 60),
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
