import pino from 'pino';
import { afterAll, beforeAll, expect, it, vi } from 'vitest';
import { databaseUrl } from '../../../test/fixtures/testDatabase.ts';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';
import { createPool } from '../../platform/db/pool.ts';
import { startJobs, type RunningJobs } from '../../platform/jobs/jobs.ts';

/** A job that fails is logged with the reason and shown to who looks after things, without anything of whom it is about. */
let api: TestApi;
let jobs: RunningJobs;
const lines: string[] = [];
const log = pino({}, { write: (line: string) => void lines.push(line) });
const pool = () => createPool(databaseUrl(process.env.DATABASE_APP_URL!, 'ebbet_jobs'), log, 3);
let own: ReturnType<typeof pool>;
beforeAll(async () => {
  api = await startApi('jobs');
  own = pool();
  jobs = await startJobs(own, log);
});
afterAll(async () => {
  await jobs.stop();
  await own.end();
  await api.close();
});

it('a job that fails says why in the log and on a page, and is tried later and later', async () => {
  const failure = Object.assign(new Error('tomas.brandao@saltmarsh.example has no mailbox'), { code: 'ECONNREFUSED' });
  await jobs.work('send-password-letter', () => Promise.reject(failure));
  await jobs.ask(api.owner, 'send-password-letter', { email: 'tomas.brandao@saltmarsh.example' });
  await vi.waitFor(() => expect(lines.join('')).toContain('a job failed'), 20_000);
  expect(lines.join('')).toContain('ECONNREFUSED');
  expect(lines.join('')).not.toContain('saltmarsh');
  const leilani = await api.as('leilani.kahue');
  const shown = async () => (await leilani.get('/failed-jobs')).body.jobs as any[];
  await vi.waitFor(async () => expect(await shown()).toHaveLength(1), 20_000);
  const [job] = await shown();
  expect(job).toMatchObject({ name: 'send-password-letter', why: 'Error ECONNREFUSED' });
  expect(JSON.stringify(job)).not.toContain('saltmarsh');
  expect(new Date(job.next).getTime()).toBeGreaterThan(Date.now());
  const kept = await api.owner('pgboss.job').where({ id: job.id }).first('retry_limit', 'retry_backoff', 'retry_delay');
  // 5 seconds, doubled eleven times, is some hours
  expect(kept).toEqual({ retry_limit: 11, retry_backoff: true, retry_delay: 5 });
  expect((await leilani.post(`/failed-jobs/${job.id}/again`, {})).body.code).toBe('not-found');
  await api.owner('pgboss.job').where({ id: job.id }).update({ state: 'failed' });
  expect((await leilani.post(`/failed-jobs/${job.id}/again`, {})).status).toBe(200);
  expect((await (await api.as('maeve.tarrant')).get('/failed-jobs')).status).toBe(403);
});
