import { request } from 'node:http';
import pino from 'pino';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { createClosing } from '../../../test/fixtures/application.ts';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';
import { answerErrors } from './answerErrors.ts';
import { createWatch } from './watch.ts';
import express from 'express';

/** A process that is about to stop, or cannot reach its database, and what it says of that. */
const closing = createClosing();
let api: TestApi;
beforeAll(async () => {
  api = await startApi('closing', { closing });
});
afterAll(() => api.close());

describe('a server that is about to stop', () => {
  it('finishes what is under way, begins nothing new, ends streams, and asks for no more', async () => {
    const maeve = await api.as('maeve.tarrant');
    const lock = await api.owner.transaction();
    await lock.raw(`select 1 from claims where number = 'C-1002' for update`);
    const { claim } = (await maeve.get('/claims/C-1002')).body;
    const hold = { revision: claim.revision, reason: 'Bank', until: '2030-01-01' };
    const underWay = maeve.post('/claims/C-1002/hold', hold);
    await new Promise((resolve) => setTimeout(resolve, 200));
    const sid = (await api.owner('session_people').where({ person_id: 'P01' }).first()).sid;
    expect(sid).toBeTruthy();
    closing.begin();
    const late = await maeve.get('/claims');
    expect([late.status, late.body.code, late.headers.get('connection')]).toEqual([503, 'away', 'close']);
    const health = await fetch(`${api.url}/healthz`);
    expect(health.status).toBe(503);
    await lock.commit();
    const done = await underWay;
    expect([done.status, done.headers.get('connection')]).toEqual([200, 'close']);
    closing.begun = false;
  });
});

/** An application that watches a database that never answers. */
async function watched(raw: () => Promise<unknown>) {
  const app = express();
  const lines: string[] = [];
  const log = pino({}, { write: (line: string) => void lines.push(line) });
  app.use(createWatch().routes({ raw } as never, () => ({ waiting: 0, running: 0 }), { begun: false }));
  app.get('/away', () => {
    throw Object.assign(new Error('x'), { code: '57P01' });
  });
  app.use(answerErrors(log));
  const server = app.listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  const url = `http://127.0.0.1:${(server.address() as { port: number }).port}`;
  return { url, lines, close: () => server.close() };
}

describe('a database that does not answer', () => {
  it('is not well after two seconds, however long it takes', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    const server = await watched(() => new Promise(() => undefined));
    const asked = fetch(`${server.url}/healthz`);
    await vi.waitFor(() => expect(vi.getTimerCount()).toBeGreaterThan(0), { interval: 5 }).catch(() => undefined);
    for (let i = 0; i < 50; i += 1) {
      await new Promise((resolve) => setImmediate(resolve));
      await vi.advanceTimersByTimeAsync(100);
    }
    vi.useRealTimers();
    expect((await asked).status).toBe(503);
    server.close();
  });
  it('is logged once and summed up, not once a request', async () => {
    const server = await watched(() => Promise.resolve());
    for (let i = 0; i < 20; i += 1) expect((await fetch(`${server.url}/away`)).status).toBe(503);
    expect(server.lines.map((line) => JSON.parse(line).refused)).toEqual(['away']);
    server.close();
  });
});

describe('the figures', () => {
  it('are for nobody who comes through a proxy, whatever it says of whom', async () => {
    for (const header of ['forwarded', 'via', 'x-forwarded-for', 'x-forwarded-proto', 'x-real-ip']) {
      const status = await new Promise((resolve) => {
        request(`${api.url}/metrics`, { headers: { [header]: 'for=192.0.2.1' } }, (res) =>
          resolve(res.statusCode),
        ).end();
      });
      expect([header, status]).toEqual([header, 404]);
    }
    expect((await fetch(`${api.url}/metrics`)).status).toBe(200);
  });
});
