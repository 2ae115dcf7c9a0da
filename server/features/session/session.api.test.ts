import type { Pool } from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';
import { usualLimits } from '../../platform/http/limits.ts';

let api: TestApi;
beforeAll(async () => {
  // an hour, so that a slow machine does not let the guesses age while they are counted
  const limits = {
    ...usualLimits,
    signInByEmail: (pool: Pool) => ({ ...usualLimits.signInByEmail(pool), duration: 3600 }),
  };
  api = await startApi('session', { trustProxy: 'loopback', limits });
});
afterAll(() => api.close());

const right = { email: 'maeve.tarrant@saltmarsh.example', password: 'saltmarsh' };

describe('signing in', () => {
  it('keeps passwords as argon2id', async () => {
    const rows = await api.owner('credentials').select('password_hash');
    expect(rows.every((r) => r.password_hash.startsWith('$argon2id$'))).toBe(true);
  });

  it('does not tell a wrong password from an unknown person', async () => {
    const wrong = await api.anonymous().post('/session', { ...right, password: 'x' });
    const unknown = await api.anonymous().post('/session', { ...right, email: 'nobody@saltmarsh.example' });
    expect([wrong.status, unknown.status]).toEqual([401, 401]);
    expect(wrong.body).toEqual(unknown.body);
  });

  it('sets a cookie that scripts and other sites cannot use, Secure behind TLS', async () => {
    const cookie = async (headers: Record<string, string>) =>
      (await api.anonymous().send('POST', '/session', right, headers)).headers.get('set-cookie')!;
    const plain = await cookie({});
    expect(plain).toMatch(/HttpOnly/);
    expect(plain).toMatch(/SameSite=Strict/);
    expect(plain).not.toMatch(/Secure/);
    expect(await cookie({ 'x-forwarded-proto': 'https' })).toMatch(/Secure/);
  });

  it('gives a new session id, so that one planted before is worth nothing', async () => {
    const planted = 'ebbet=s%3Aplanted.signature';
    const answer = await api.anonymous().send('POST', '/session', right, { cookie: planted });
    expect(answer.headers.get('set-cookie')).not.toContain('planted');
  });

  it('ends the session on the server, not only in the browser', async () => {
    const person = await api.as('maeve.tarrant');
    expect((await person.get('/session')).body.person.name).toBe('Maeve Tarrant');
    const { count } = (await api.owner('sessions').count().first()) as unknown as { count: bigint };
    expect((await person.send('DELETE', '/session')).status).toBe(204);
    expect((await api.owner('sessions').count().first())!.count).toBe(count - 1n);
    expect((await person.get('/claims')).status).toBe(401);
  });

  it('forgets somebody who was made inactive at once', async () => {
    const person = await api.as('leilani.kahue');
    await api.owner('people').where({ id: 'P11' }).update({ active: false });
    expect((await person.get('/claims/own')).status).toBe(401);
    await api.owner('people').where({ id: 'P11' }).update({ active: true });
  });

  it('slows down guessing, for one person on any server process', async () => {
    const guess = (url: string) =>
      api.anonymous(url).post('/session', { email: 'odd.fjellheim@saltmarsh.example', password: 'guess' });
    for (let i = 0; i < 10; i += 1) expect((await guess(i % 2 ? api.url : api.second)).status).toBe(401);
    const slowed = await guess(api.url);
    expect(slowed).toMatchObject({ status: 429, body: { code: 'too-many' } });
  });

  it('refuses what is not a sign-in', async () => {
    for (const body of [{}, { email: 1, password: [] }, { ...right, extra: true }, { email: 'a\0b', password: 'x' }])
      expect((await api.anonymous().post('/session', body)).status).toBe(400);
  });

  it('shows the demo’s people in demo mode only', async () => {
    expect((await api.anonymous().get('/demo/people')).body.people).toHaveLength(12);
    const real = await startApi('session_real', { demo: false });
    expect((await real.anonymous().get('/demo/people')).status).toBe(404);
    await real.close();
  });
});
