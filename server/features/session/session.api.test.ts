import { createHash } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { PERSON_HEADER } from '../../../contract/route.ts';
import { waitAfter } from '../../platform/http/guessing.ts';
import { usualThrottles } from '../../../test/fixtures/application.ts';

let api: TestApi;
beforeAll(async () => {
  // the first wait is long enough for a busy machine
  const guesses = { free: { pair: 3, address: 12, account: 8 }, firstSeconds: 120, longestSeconds: 900 };
  const throttles = { ...usualThrottles, guesses };
  api = await startApi('session', { trustProxy: ['loopback'], throttles });
});
afterAll(() => api.close());

const right = { email: 'maeve.tarrant@saltmarsh.example', password: 'saltmarsh' };

describe('where one is signed in', () => {
  const sessionsOf = async (person: Client) => (await person.get('/sessions')).body.sessions as any[];

  it('is listed without what would let anybody in, and ended where one says', async () => {
    const [desk, phone] = [await api.as('maeve.tarrant'), await api.as('maeve.tarrant')];
    const listed = await sessionsOf(desk);
    const other = listed.find((s) => !s.here);
    expect(listed.filter((s) => s.here)).toHaveLength(1);
    const sids = await api.owner('sessions').pluck('sid');
    expect(sids.some((sid) => JSON.stringify(listed).includes(sid))).toBe(false);
    const stranger = await api.as('tomas.brandao');
    expect((await stranger.send('DELETE', `/sessions/${other.id}`)).status).toBe(404);
    for (const { id } of listed.filter((s) => !s.here)) await desk.send('DELETE', `/sessions/${id}`);
    expect([(await phone.get('/claims/own')).status, (await desk.get('/claims/own')).status]).toEqual([401, 200]);
    expect(await sessionsOf(desk)).toMatchObject([{ here: true, device: 'a program' }]);
  });
  it('is noted to be in use by the first that is looked at in a minute, and by nothing after it', async () => {
    const person = await api.as('wanjiru.mbaya');
    const own = () => api.owner('sessions').whereRaw(`sess ->> 'personId' = 'P08'`);
    const soon = new Date(Math.ceil(Date.now() / 1000) * 1000 + 3_600_000);
    const isSoonAfterLooking = async () => {
      await own().update({ expire: soon });
      await person.get('/claims/own');
      return (await own().first('expire')).expire.getTime() === soon.getTime();
    };
    expect(await isSoonAfterLooking()).toBe(false);
    // a minute may end between two of them, and no second one at once
    expect([await isSoonAfterLooking(), await isSoonAfterLooking()]).toContain(true);
    await own().update({ expire: new Date(Date.now() - 1000) });
    expect((await person.get('/claims/own')).status).toBe(401);
  });
  it('ends a day after it began, whatever is done in it', async () => {
    const person = await api.as('tomas.brandao');
    const began = new Date(Date.now() - 24 * 3_600_000 - 1000).toISOString();
    await api
      .owner('sessions')
      .whereRaw(`sess ->> 'personId' = 'P05'`)
      .update({
        sess: api.owner.raw(`jsonb_set(sess::jsonb, '{since}', to_jsonb(?::text))::json`, [began]),
      });
    expect((await person.get('/claims/own')).status).toBe(401);
  });
});

describe('guessing passwords', () => {
  const ODD = 'odd.fjellheim@saltmarsh.example';
  const guess = (from: string, email = ODD, url = api.url) =>
    api.anonymous(url).send('POST', '/session', { email, password: 'guess' }, { 'x-forwarded-for': from });

  it('makes the next try wait, twice as long each time, on any server process, the same for people who are not', async () => {
    const waiting = { firstSeconds: 1, longestSeconds: 900 };
    expect([0, 1, 2, 3, 20].map((n) => waitAfter(n, waiting))).toEqual([0, 1, 2, 4, 900]);
    expect(usualThrottles.guesses).toMatchObject(waiting);
    for (const email of [ODD, 'nobody@saltmarsh.example']) {
      const answers = [];
      for (let i = 0; i < 5; i += 1) answers.push(await guess('192.0.2.1', email, i % 2 ? api.url : api.second));
      expect(answers.map((a) => a.status)).toEqual([401, 401, 401, 401, 429]);
      const { seconds } = answers[4]!.body.numbers;
      expect(answers[4]!.body).toMatchObject({ code: 'too-many', numbers: { seconds: expect.any(Number) } });
      expect(seconds > 60 && seconds <= 120).toBe(true);
      expect(answers[4]!.headers.get('retry-after')).toBe(String(seconds));
    }
  });
  it('gains nothing by many at once', async () => {
    const email = 'noor.aldosari@saltmarsh.example';
    const answers = await Promise.all(Array.from({ length: 20 }, () => guess('192.0.2.9', email)));
    const looked = answers.filter((a) => a.status === 401).length;
    // Three are free, and the first that is not opens the wait.
    expect([looked, answers.filter((a) => a.status === 429).length]).toEqual([4, 16]);
  });
  it('keeps no e-mail, and takes one of any length', async () => {
    expect((await guess('192.0.2.10', `${'a'.repeat(290)}@x.example`)).status).toBe(401);
    const keys = await api.owner('rate_limits').pluck('key');
    expect(keys.filter((key) => key.includes('@'))).toEqual([]);
  });
  it('locks the owner out neither on a device of theirs nor where nobody guessed', async () => {
    const owner = api.anonymous();
    const right = { email: ODD, password: 'saltmarsh' };
    const at = (from: string) => ({ 'x-forwarded-for': from });
    expect((await owner.send('POST', '/session', right, at('198.51.100.7'))).status).toBe(201);
    for (let i = 0; i < 10; i += 1) await guess(`203.0.113.${i}`);
    expect((await guess('203.0.113.99')).status).toBe(429);
    const forged = { ...at('203.0.113.98'), cookie: `ebbet-known=device.${'A'.repeat(43)}` };
    expect((await api.anonymous().send('POST', '/session', right, forged)).status).toBe(429);
    expect((await owner.send('POST', '/session', right, at('198.51.100.7'))).status).toBe(201);
  });
  it('from one address holds up those who sit behind it only on devices that are new', async () => {
    const maeve = { email: 'maeve.tarrant@saltmarsh.example', password: 'saltmarsh' };
    const office = { 'x-forwarded-for': '198.51.100.50' };
    const known = api.anonymous();
    expect((await known.send('POST', '/session', maeve, office)).status).toBe(201);
    for (let i = 0; i < 16; i += 1) await guess('198.51.100.50', `p${i}@saltmarsh.example`);
    expect((await api.anonymous().send('POST', '/session', maeve, office)).status).toBe(429);
    expect((await known.send('POST', '/session', maeve, office)).status).toBe(201);
  });
});

describe('guesses sent at once', () => {
  it('are looked at no more often than guesses one after the other, also where a wait has just run out', async () => {
    const guesses = { free: { pair: 5, address: 100, account: 50 }, firstSeconds: 1, longestSeconds: 900 };
    const quick = await startApi('guesses', { trustProxy: ['loopback'], throttles: { ...usualThrottles, guesses } });
    try {
      const guess = () =>
        quick
          .anonymous()
          .send('POST', '/session', { ...right, password: 'guess' }, { 'x-forwarded-for': '192.0.2.77' });
      let looked = 0;
      const began = performance.now();
      for (let i = 0; i < 4; i += 1) {
        const answers = await Promise.all(Array.from({ length: 30 }, guess));
        looked += answers.filter((a) => a.body.code === 'wrong-password').length;
        // five are free, and one more begins the waiting; then one each time a wait of 1, 2, 4 … seconds is over
        const seconds = (performance.now() - began) / 1000;
        expect(looked).toBeLessThanOrEqual(6 + Math.floor(Math.log2(seconds + 1)));
        // some of these come just as a wait is over
        await new Promise((resolve) => setTimeout(resolve, 990));
      }
    } finally {
      await quick.close();
    }
  });
});

describe('a page', () => {
  it('of somebody else than who is signed in acts as nobody: another tab signed in meanwhile', async () => {
    const [tomas, other] = await Promise.all(['tomas.brandao', 'maeve.tarrant'].map((who) => api.as(who)));
    const idOf = async (client: Client) => (await client.get('/session')).body.person.id as string;
    const draftBy = async (id: string) =>
      (await tomas!.send('POST', '/drafts', { purpose: 'Of whom' }, { [PERSON_HEADER]: id })).status;
    expect([await draftBy(await idOf(tomas!)), await draftBy(await idOf(other!))]).toEqual([201, 401]);
  });
});

describe('signing in', () => {
  it('leaves an event that names the session by its hash', async () => {
    const client = await api.as('wanjiru.mbaya');
    const { id } = (await client.get('/session')).body.person;
    const last = await api
      .owner('events')
      .where({ record_kind: 'session', record_id: id })
      .orderBy('seq', 'desc')
      .first('kind', 'actor_id', 'facts');
    const { sid } = await api.owner('session_people').where({ person_id: id }).orderBy('since', 'desc').first('sid');
    const session = createHash('sha256').update(sid).digest('hex').slice(0, 16);
    expect([last.kind, last.actor_id, JSON.parse(last.facts)]).toEqual(['signed in', id, { session }]);
  });
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

  it('refuses what is not a sign-in', async () => {
    for (const body of [{}, { email: 1, password: [] }, { ...right, extra: true }, { email: 'a\0b', password: 'x' }])
      expect((await api.anonymous().post('/session', body)).status).toBe(400);
  });

  it('says that no letter can be sent where there is no mail', async () => {
    const answer = await api.anonymous().post('/session/forgotten', { email: 'tomas.brandao@saltmarsh.example' });
    expect(answer.body.code).toBe('no-mail');
  });
  it('shows the demo’s people in demo mode only', async () => {
    expect((await api.anonymous().get('/demo/people')).body.people).toHaveLength(13);
    const real = await startApi('session_real', { demo: false });
    expect((await real.anonymous().get('/demo/people')).status).toBe(404);
    await real.close();
  });
});
