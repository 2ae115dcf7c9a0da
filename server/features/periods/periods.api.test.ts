import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { clear, post } from '../../../test/fixtures/acts.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

let api: TestApi;
let odd: Client;
let maeve: Client;
beforeAll(async () => {
  api = await startApi('periods');
  [odd, maeve] = [await api.as('odd.fjellheim'), await api.as('maeve.tarrant')];
});
afterAll(() => api.close());

const month = new Date().toISOString().slice(0, 7);
const path = `/periods/IE/${month}`;
const period = async () =>
  (await odd.get('/periods')).body.periods.find((p: any) => p.entity === 'IE' && p.id === month);

describe('a period', () => {
  it('takes no posting while it is closed, and is opened again with a reason', async () => {
    await clear(maeve, 'C-1013');
    const { revision } = await period();
    expect((await maeve.post(`${path}/close`, { revision })).body.code).toBe('not-allowed');
    expect((await odd.post(`${path}/close`, { revision })).status).toBe(200);
    const date = `${month}-01`;
    expect((await post(odd, 'C-1013', { date })).body.code).toBe('period-closed');
    expect((await odd.post(`${path}/close`, { revision })).body.code).toBe('stale');
    expect((await odd.post(`${path}/reopen`, { revision: revision + 1, reason: ' ' })).body.code).toBe('invalid');
    expect((await odd.post(`${path}/reopen`, { revision: revision + 1, reason: 'A late claim' })).status).toBe(200);
    expect((await post(odd, 'C-1013', { date })).status).toBe(201);
    const events = await api
      .owner('events')
      .where({ record_kind: 'period', record_id: `IE/${month}` })
      .orderBy('seq')
      .pluck('kind');
    expect(events).toEqual(['closed', 'reopened']);
  });
});
