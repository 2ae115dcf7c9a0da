import type { Mutation } from './mutations.ts';

/** A guard of the server taken out, or turned round; `tests` are the files in which something has to fail. */
export const m = (rule: string, file: string, find: string, put: string, ...tests: string[]): Mutation => ({
  rule: `server: ${rule}`,
  file,
  find,
  put,
  tests,
});
export const CLAIMS = 'server/features/claims';
export const DESK = 'server/features/desk';
export const GATHER = 'server/features/gather';
export const JOURNALS = 'server/features/journals';
export const PAYMENTS = 'server/features/payments';
export const ENTITIES = 'server/platform/http/entities.api.test.ts';
export const SETUP = 'server/features/setup';
export const RECEIPTS = 'server/features/receipts';
export const RULES = 'server/records/book';
export const EXECUTOR = 'server/platform/acts/perform.ts';
export const POST = `${JOURNALS}/post.service.ts`;
export const REVIEW = `${CLAIMS}/review.service.ts`;
export const PAY = `${PAYMENTS}/payClaim.service.ts`;
