import { afterAll, beforeAll, expect, it } from 'vitest';
import { ownReceipt } from '../../../test/fixtures/gathering.ts';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';

let api: TestApi;
beforeAll(async () => {
  api = await startApi('turns');
  const done = { state: 'failed', problem: 'it is blank' };
  await api.owner('readings').where({ state: 'waiting' }).update(done);
});
afterAll(() => api.close());

it('of several people’s files everybody’s first is read before anybody’s second', async () => {
  const [tomas, aoi] = [await api.as('tomas.brandao'), await api.as('aoi.kuramochi')];
  const names = new Map<string, string>();
  for (const [who, person, total] of [
    ['T1', tomas, '31.10'],
    ['T2', tomas, '31.20'],
    ['T3', tomas, '31.30'],
    ['A1', aoi, '31.40'],
    ['A2', aoi, '31.50'],
  ] as const) {
    const id = await ownReceipt(person, total, false);
    names.set((await api.owner('receipts').whereRaw('id = ?', [id]).first()).sha256, who);
  }
  // as the queue takes them
  const jobs = await api
    .owner('pgboss.job')
    .where({ name: 'read-receipt', state: 'created' })
    .orderByRaw('priority desc, created_on, id')
    .select(api.owner.raw(`data ->> 'sha256' as sha256`));
  const order = jobs.flatMap((job: { sha256: string }) => names.get(job.sha256) ?? []);
  expect(order).toEqual(['T1', 'A1', 'T2', 'A2', 'T3']);
});
