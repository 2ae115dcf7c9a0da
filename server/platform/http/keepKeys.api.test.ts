import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { cookiesOf, startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { forgetKeys } from '../db/forgetKeys.ts';

/** What is sent again, as after an answer that was lost on its way. */
let api: TestApi;
let tomas: Client;
let elsewhere: Client;
beforeAll(async () => {
  api = await startApi('keyed');
  [tomas, elsewhere] = [await api.as('tomas.brandao'), await api.as('tomas.brandao', api.second)];
});
afterAll(() => api.close());

const claimsOf = async () => (await tomas.get('/claims/own')).body.claims.length as number;
const begin = (who: Client, purpose: string) => who.post('/drafts', { purpose });
const line = { date: '2026-11-02', amount: { amount: '12.00', currency: 'EUR' }, category: 'meal' };
const linesOf = async (number: string) => (await tomas.get(`/claims/${number}`)).body.document.lines.length as number;

async function cookieOf(mail: string): Promise<string> {
  const body = JSON.stringify({ email: `${mail}@saltmarsh.example`, password: 'saltmarsh' });
  const headers = { 'content-type': 'application/json' };
  return cookiesOf(await fetch(`${api.url}/api/session`, { method: 'POST', headers, body }));
}

describe('a write with a key', () => {
  it('is done once and answers the same, on another server process and at the same moment too', async () => {
    const before = await claimsOf();
    const keyed = [tomas, elsewhere].map((who) => who.once('begin-once'));
    const first = await begin(keyed[0]!, 'Terns');
    const again = await Promise.all(keyed.map((who) => begin(who, 'Terns')));
    const twins = await Promise.all([tomas, elsewhere, tomas].map((who) => begin(who.once('begin-together'), 'Gulls')));
    expect(again.map(({ status, body }) => [status, body])).toEqual([
      [first.status, first.body],
      [first.status, first.body],
    ]);
    expect([new Set(twins.map((t) => t.body.number)).size, await claimsOf()]).toEqual([1, before + 2]);
  });
  it('that was done is answered with what stands now, though its revision is past', async () => {
    const { number } = (await begin(tomas, 'Lines once')).body;
    const keyed = tomas.once('write-once');
    const write = () => keyed.post(`/drafts/${number}/lines`, { revision: 1, lines: [line] });
    const written = await write();
    expect((await tomas.post(`/drafts/${number}/lines`, { revision: 2, lines: [line] })).status).toBe(200);
    const again = await write();
    expect([written.body.claim.revision, again.body.claim.revision, await linesOf(number)]).toEqual([2, 3, 2]);
  });
  it('is another one for another person, another address or other content', async () => {
    const { number } = (await begin(tomas.once('one-key-for-all'), 'Mine')).body;
    const siobhan = await api.as('siobhan.odowd');
    expect((await begin(siobhan.once('one-key-for-all'), 'Mine')).body.number).not.toBe(number);
    const lines = await tomas.once('one-key-for-all').post(`/drafts/${number}/lines`, { revision: 1, lines: [line] });
    expect([lines.status, await linesOf(number)]).toEqual([200, 1]);
    expect((await begin(tomas.once('one-key-for-all'), 'Other')).body.code).toBe('key-reused');
  });
  it('that was refused is not remembered, so that it can be sent again', async () => {
    const { number } = (await begin(tomas, 'Refused first')).body;
    const keyed = tomas.once('refused-first');
    const submit = () => keyed.post(`/claims/${number}/withdraw`, { revision: 2 });
    expect((await submit()).body.code).toBe('stale');
    await tomas.post(`/drafts/${number}/lines`, { revision: 1, lines: [line] });
    expect((await submit()).body.claim.state).toBe('withdrawn');
    expect((await submit()).body.claim.state).toBe('withdrawn');
  });
  it('has to have a usable one, and for postings has to have one at all', async () => {
    for (const key of ['short', `${'x'.repeat(101)}`, 'with blanks in it'])
      expect((await begin(tomas.once(key), 'Bad key')).body.code).toBe('key-unusable');
    const cookie = await cookieOf('noor.aldosari');
    for (const path of ['/claims/C-1013/post', '/journals/IE-2026-000001/reversal', '/clearings']) {
      const headers = { 'content-type': 'application/json', cookie };
      const response = await fetch(`${api.url}/api${path}`, { method: 'POST', headers, body: '{}' });
      expect([path, (await response.json()).code]).toEqual([path, 'key-unusable']);
    }
  });
  it('tells a token once: sent again it says what to do, and keeps nothing of it', async () => {
    const keyed = (await api.as('noor.aldosari')).once('token-once');
    const make = () => keyed.post('/tokens', { name: 'Script', roles: ['reviewer'] });
    const { token } = (await make()).body;
    expect((await make()).body.code).toBe('token-told');
    const rows = await api.owner('idempotency_keys').where({ key: 'token-once' });
    expect(JSON.stringify(rows) + Buffer.from(rows[0]!.response.v8, 'base64').toString('latin1')).not.toContain(token);
  });
  it('is forgotten after a month, and not before', async () => {
    const rows = () => api.owner('idempotency_keys').where({ person_id: 'P05' });
    const [row] = await rows();
    const old = new Date(Date.now() - 40 * 86_400_000);
    await api
      .owner('idempotency_keys')
      .insert({ ...row, key: 'of-long-ago', response: JSON.stringify(row!.response), at: old });
    const before = (await rows()).length;
    await forgetKeys(api.services);
    expect((await rows()).map((r) => r.key)).not.toContain('of-long-ago');
    expect((await rows()).length).toBe(before - 1);
    await expect(api.app('idempotency_keys').where({ key: row!.key }).delete()).rejects.toThrow(/history/);
  });
});
