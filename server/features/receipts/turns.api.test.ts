import { afterAll, beforeAll, expect, it } from 'vitest';
import { TooSlow } from '../../platform/outside/unreadable.ts';
import { readReceipt } from './receipts.service.ts';
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

it('what takes too long among others is read once more when nothing else waits, smaller files first', async () => {
  const aoi = await api.as('aoi.kuramochi');
  const fileOf = async (total: string) => {
    const id = await ownReceipt(aoi, total, false);
    return (await api.owner('receipts').whereRaw('id = ?', [id]).first()).sha256 as string;
  };
  const files = [await fileOf('32.10'), await fileOf('3210987654321.20')];
  const bySize: string[] = await api
    .owner('receipt_files')
    .whereIn('sha256', files)
    .orderByRaw('length(original)')
    .pluck('sha256');
  const read = () => Promise.reject(new TooSlow('it takes too long to open; take it again'));
  const services = { ...api.services, reader: { ...api.services.reader, read } };
  for (const sha256 of [...bySize].reverse()) await readReceipt(services, { sha256 });
  const jobs = await api
    .owner('pgboss.job')
    .where({ name: 'read-receipt', state: 'created' })
    .orderByRaw('priority desc, created_on, id')
    .select('data');
  const last = jobs.slice(-bySize.length).map((job: { data: object }) => job.data);
  expect(last).toEqual(bySize.map((sha256) => ({ sha256, again: true })));
  const [small] = bySize as [string];
  const stateOf = async (sha256: string) => {
    const { state, problem } = await api.owner('readings').where({ sha256 }).first();
    return { state, problem };
  };
  expect(await stateOf(small)).toEqual({ state: 'waiting', problem: null });
  await readReceipt(services, { sha256: small, again: true });
  expect(await stateOf(small)).toEqual({ state: 'failed', problem: 'it takes too long to open; take it again' });
});
