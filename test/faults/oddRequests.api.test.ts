import { request } from 'node:http';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { cookiesOf, startApi, type Client, type TestApi } from '../fixtures/startApi.ts';

/** Requests that no browser of ours makes, byte for byte. */
let api: TestApi;
let tomas: Client;
let cookie = '';
beforeAll(async () => {
  const webFolder = mkdtempSync(join(tmpdir(), 'ebbet-web-'));
  writeFileSync(join(webFolder, 'index.html'), '<!doctype html><title>Ebbet</title>');
  writeFileSync(join(webFolder, 'a.txt'), 'twelve bytes');
  api = await startApi('odd', { webFolder });
  tomas = await api.as('tomas.brandao');
  const headers = { 'content-type': 'application/json' };
  const body = JSON.stringify({ email: 'tomas.brandao@saltmarsh.example', password: 'saltmarsh' });
  const signedIn = await fetch(`${api.url}/api/session`, { method: 'POST', headers, body });
  cookie = cookiesOf(signedIn);
  const own = await fetch(`${api.url}/api/claims/own`, { headers: { cookie } });
  if (!own.ok) throw new Error('nobody is signed in, so nothing would be tried');
});
afterAll(() => api.close());

interface Odd {
  method?: string;
  path: string;
  headers?: Record<string, string>;
  body?: Buffer | string;
}
const send = ({ method = 'POST', path, headers = {}, body = '' }: Odd): Promise<[number, string]> =>
  new Promise((resolve, reject) => {
    const { hostname, port } = new URL(api.url);
    const sent = request({ hostname, port, method, path, headers: { cookie, ...headers } }, (res) => {
      let text = '';
      res.on('data', (part) => (text += part)).on('end', () => resolve([res.statusCode!, codeOf(text)]));
    });
    sent.on('error', reject);
    sent.end(body);
  });
function codeOf(text: string): string {
  try {
    return JSON.parse(text).code;
  } catch {
    return text.slice(0, 40);
  }
}

const json = { 'content-type': 'application/json' };
const lines = '/api/drafts/lines';
const form = (boundary: string) => ({ 'content-type': `multipart/form-data; boundary=${boundary}` });
const part = (name: string, text = 'x') =>
  `--b\r\nContent-Disposition: form-data; name="file"; filename="${name}"\r\nContent-Type: text/plain\r\n\r\n${text}\r\n--b--\r\n`;
const deep = (levels: number) => `${'['.repeat(levels)}${']'.repeat(levels)}`;
const ODD: [string, Odd, number, string][] = [
  ['JSON of any depth', { path: lines, headers: json, body: deep(200_000) }, 400, 'invalid'],
  ['JSON as deep in one field', { path: lines, headers: json, body: `{"claim":${deep(5000)}}` }, 400, 'invalid'],
  ['JSON that breaks off', { path: lines, headers: json, body: '{"claim":' }, 400, 'not-json'],
  ['a number for an object', { path: lines, headers: json, body: '7' }, 400, 'not-json'],
  ['nothing at all', { path: lines, headers: json }, 400, 'invalid'],
  ['more than a megabyte', { path: lines, headers: json, body: `"${'x'.repeat(1_100_000)}"` }, 413, 'too-large'],
  [
    'a megabyte that grows when it is unpacked',
    { path: lines, headers: { ...json, 'content-encoding': 'gzip' }, body: gzipSync(' '.repeat(30_000_000)) },
    413,
    'too-large',
  ],
  [
    'packing that is none',
    { path: lines, headers: { ...json, 'content-encoding': 'gzip' }, body: 'x' },
    400,
    'not-understood',
  ],
  [
    'an unknown encoding',
    { path: lines, headers: { ...json, 'content-encoding': 'zzz' }, body: '{}' },
    415,
    'not-readable',
  ],
  [
    'an unknown charset',
    { path: lines, headers: { 'content-type': 'application/json; charset=zzz' }, body: '{}' },
    415,
    'not-readable',
  ],
  ['text that is no JSON', { path: lines, headers: { 'content-type': 'text/plain' }, body: '{}' }, 400, 'invalid'],
  [
    'a form without a boundary',
    { path: '/api/receipts', headers: { 'content-type': 'multipart/form-data' }, body: 'x' },
    400,
    'not-a-form',
  ],
  [
    'a form that breaks off',
    { path: '/api/receipts', headers: form('b'), body: part('a').slice(0, 60) },
    400,
    'not-a-form',
  ],
  ['an empty form', { path: '/api/receipts', headers: form('b'), body: '--b--\r\n' }, 400, 'no-file'],
  [
    'a form that is none',
    { path: '/api/receipts', headers: form('b'), body: 'nothing of the kind' },
    400,
    'not-a-form',
  ],
  ['a form of nothing', { path: '/api/receipts', headers: form('b') }, 400, 'not-a-form'],
  ['a path that does not decode', { method: 'GET', path: '/api/claims/%E0%A4%A' }, 400, 'not-understood'],
  ['a page that does not decode', { method: 'GET', path: '/%E0%A4%A' }, 400, 'not-understood'],
  [
    'a path out of the folder',
    { method: 'GET', path: '/..%2f..%2fetc%2fpasswd' },
    200,
    '<!doctype html><title>Ebbet</title>',
  ],
  ['a NUL in a path', { method: 'GET', path: '/api/claims/a%00b' }, 404, 'not-found'],
  [
    'a range that cannot be',
    { method: 'GET', path: '/a.txt', headers: { range: 'bytes=90-10' } },
    400,
    'not-understood',
  ],
  [
    'a range beyond the end',
    { method: 'GET', path: '/a.txt', headers: { range: 'bytes=900-' } },
    400,
    'not-understood',
  ],
  [
    'conditions that cannot be',
    { method: 'GET', path: '/a.txt', headers: { 'if-match': '"nothing"' } },
    400,
    'not-understood',
  ],
  [
    'a date that is none as a condition',
    { method: 'GET', path: '/a.txt', headers: { 'if-modified-since': 'never' } },
    200,
    'twelve bytes',
  ],
  ['a method nobody knows', { method: 'PROPFIND', path: '/api/claims' }, 404, 'not-found'],
];

describe('an odd request', () => {
  it.each(ODD)('%s is answered', async (_, odd, status, code) => {
    expect(await send(odd)).toEqual([status, code]);
  });
  it('with an e-mail of 400 letters or half a surrogate pair is told what is wrong', async () => {
    const long = await api.anonymous().post('/session', { email: `${'a'.repeat(400)}@x.example`, password: 'x' });
    expect([long.status, long.body.numbers.path]).toEqual([400, 'email']);
    const half = await tomas.post('/tokens', { name: 'a\ud800', roles: ['claimant'] });
    expect(half.body).toMatchObject({ code: 'invalid', says: expect.stringContaining('cannot be stored') });
  });
  it('whose file has a name of marks that are not seen keeps what can be read of it', async () => {
    const body = part('a\u202Eb c.txt', 'not a receipt');
    const headers = form('b');
    const { hostname, port } = new URL(api.url);
    const says = await new Promise<string>((resolve) => {
      const sent = request(
        { hostname, port, method: 'POST', path: '/api/receipts', headers: { cookie, ...headers } },
        (res) => {
          let text = '';
          res.on('data', (piece) => (text += piece)).on('end', () => resolve(JSON.parse(text).says));
        },
      );
      sent.end(body);
    });
    expect(says).toMatch(/^ab c\.txt is not accepted/);
  });
});

describe('a database whose connections break', () => {
  it('is answered with 503 or not noticed, and the application goes on by itself', async () => {
    const statuses = new Set<number>();
    let over = false;
    const asking = (async () => {
      while (!over) statuses.add((await tomas.get('/receipts')).status);
    })();
    for (let i = 0; i < 8; i += 1) {
      await api.owner.raw(`select pg_terminate_backend(pid) from pg_stat_activity
        where datname = current_database() and usename = 'ebbet_app'`);
      await new Promise((resolve) => setTimeout(resolve, 60));
    }
    over = true;
    await asking;
    expect([...statuses].filter((s) => s !== 200 && s !== 503)).toEqual([]);
    expect((await tomas.get('/receipts')).status).toBe(200);
  });
});
