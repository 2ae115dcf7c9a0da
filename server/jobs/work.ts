import type { Services } from '../context.ts';
import { readReceipt } from '../features/receipts/receipts.service.ts';
import { fetchFeed } from '../features/statements/feed.service.ts';
import type { RunningJobs } from './jobs.ts';

/** Twenty past midnight, when the bank has delivered the day. */
const NIGHTLY = '20 0 * * *';

/** Connects the queue's jobs with what they do, and the clock with the jobs of every night. */
export async function startWork(services: Services, jobs: RunningJobs): Promise<void> {
  await jobs.work('read-receipt', ({ sha256 }) => readReceipt(services, sha256));
  await jobs.work('fetch-feed', () => fetchFeed(services));
  if (services.bank) await jobs.every(NIGHTLY, 'fetch-feed');
}
