import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { clear, post } from '../../../test/fixtures/acts.ts';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';

let api: TestApi;
beforeAll(async () => {
  api = await startApi('watch');
});
afterAll(() => api.close());

const text = async (path: string, headers = {}) => {
  const response = await fetch(`${api.url}${path}`, { headers });
  return { status: response.status, body: await response.text() };
};
const figure = async (name: string) => {
  const { body } = await text('/metrics');
  const row = body.split('\n').find((line) => line.startsWith(`${name} `) || line.startsWith(`${name}{`));
  return Number(row?.split(' ').at(-1));
};

describe('whoever runs the server', () => {
  it('sees that it is well, or that its database is away', async () => {
    expect(await text('/healthz')).toEqual({ status: 200, body: '{"state":"well"}' });
  });
  it('sees what waits, what was posted and what was refused', async () => {
    const before = await figure('ebbet_journals');
    await clear(await api.as('maeve.tarrant'), 'C-1002');
    expect((await post(await api.as('odd.fjellheim'), 'C-1002')).status).toBe(201);
    expect(await figure('ebbet_journals')).toBe(before + 1);
    const refused = (await figure('ebbet_refusals_total')) || 0;
    await api.anonymous().get('/claims');
    expect(await figure('ebbet_refusals_total')).toBeGreaterThan(refused);
    const late = { name: 'assess-claims', data: '{"key":"x"}', start_after: new Date(Date.now() - 60_000) };
    await api.owner('pgboss.job').insert(late);
    expect(await figure('ebbet_jobs_waiting')).toBeGreaterThan(0);
    expect(await figure('ebbet_oldest_job_seconds')).toBeGreaterThanOrEqual(59);
    expect(await figure('ebbet_files_waiting')).toBe(0);
  });
  it('keeps the figures from those who come through a proxy', async () => {
    expect((await text('/metrics', { 'x-forwarded-for': '192.0.2.1' })).status).toBe(404);
  });
});
