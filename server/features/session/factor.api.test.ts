import { generateSync } from 'otplib';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { seal, unseal } from '../../platform/http/sealed.ts';

let api: TestApi;
let now = new Date('2026-11-20T09:00:00Z');
beforeAll(async () => {
  api = await startApi('factor', { clock: { now: () => now } });
});
afterAll(() => api.close());
beforeEach(() => api.owner('rate_limits').delete());

const mailOf = (who: string) => `${who}@saltmarsh.example`;
const enter = (who: string, code?: string, client = api.anonymous()) =>
  client.post('/session', { email: mailOf(who), password: 'saltmarsh', ...(code ? { code } : {}) });
const codeAt = (secret: string, steps = 0) =>
  generateSync({ secret, epoch: Math.floor(now.getTime() / 1000) + steps * 30 });
const later = (seconds: number) => (now = new Date(now.getTime() + seconds * 1000));

/** Adds a second factor as a person does; its secret and the codes for a lost phone. */
async function add(person: Client) {
  const { secret, address } = (await person.post('/session/factor')).body;
  expect(address).toContain(`secret=${secret}`);
  const { status, body } = await person.put('/session/factor', { code: codeAt(secret) });
  expect([status, body.on, body.codes.length]).toEqual([200, true, 10]);
  return { secret, codes: body.codes as string[] };
}

describe('a second factor', () => {
  it('is added once a code shows that the authenticator holds it', async () => {
    const person = await api.as('tomas.brandao');
    expect((await person.put('/session/factor', { code: '123456' })).body.code).toBe('no-offer');
    const { secret } = (await person.post('/session/factor')).body;
    const wrong = codeAt(secret, 9);
    expect((await person.put('/session/factor', { code: wrong })).body.code).toBe('wrong-code');
    expect((await person.get('/session/factor')).body).toEqual({ on: false, codesLeft: 0 });
  });
  it('is asked for from then on, one step early or late, and each code opens once', async () => {
    const elsewhere = await api.as('tomas.brandao');
    const person = await api.as('tomas.brandao');
    const { secret } = await add(person);
    expect((await person.get('/session')).body.person.factor).toBe('on');
    expect((await elsewhere.get('/claims/own')).status).toBe(401);
    later(600);
    expect((await enter('tomas.brandao')).body.code).toBe('code-needed');
    for (const wrong of [codeAt(secret, -2), codeAt(secret, 2), 'abcdef', '12345'])
      expect((await enter('tomas.brandao', wrong)).body.code).toBe('wrong-code');
    expect((await enter('tomas.brandao', codeAt(secret, -1))).status).toBe(201);
    expect((await enter('tomas.brandao', codeAt(secret, -1))).body.code).toBe('wrong-code');
    expect((await enter('tomas.brandao', codeAt(secret))).status).toBe(201);
    later(30);
    const both = await Promise.all([1, 2, 3].map(() => enter('tomas.brandao', codeAt(secret))));
    expect(both.map((a) => a.status).sort()).toEqual([201, 401, 401]);
  });
  it('says nothing to who does not know the password', async () => {
    const guess = await api.anonymous().post('/session', { email: mailOf('tomas.brandao'), password: 'guessed' });
    expect(guess.body.code).toBe('wrong-password');
  });
  it('is guessed at as little as a password', async () => {
    const codes = [];
    for (let i = 0; i < 8; i += 1) {
      await enter('tomas.brandao');
      codes.push((await enter('tomas.brandao', `00000${i}`)).body.code);
    }
    expect(codes).toContain('too-many');
  });
  it('lets in without the phone by a code that was kept, once', async () => {
    const person = await api.as('maeve.tarrant');
    const { codes } = await add(person);
    expect((await enter('maeve.tarrant', codes[0]!.toUpperCase().replaceAll('-', ' '))).status).toBe(201);
    expect((await enter('maeve.tarrant', codes[0])).body.code).toBe('wrong-code');
    expect((await enter('odd.fjellheim', codes[1])).status).toBe(201); // who has no second factor is not asked
    expect((await person.get('/session/factor')).body.codesLeft).toBe(9);
    const { rows } = await api.owner.raw('select hash from recovery_codes union all select factor from credentials');
    for (const code of codes) expect(JSON.stringify(rows)).not.toContain(code.replaceAll('-', ''));
  });
  it('is removed by who knows the password, and its codes with it', async () => {
    const { secret, codes } = await add(await api.as('ottoline.marchbanks'));
    later(60);
    const person = api.anonymous();
    await enter('ottoline.marchbanks', codeAt(secret), person);
    expect((await person.post('/session/factor/end', { current: 'guessed' })).body.code).toBe('wrong-password');
    expect((await person.post('/session/factor/end', { current: 'saltmarsh' })).body).toEqual({
      on: false,
      codesLeft: 0,
    });
    expect((await enter('ottoline.marchbanks')).status).toBe(201);
    expect(codes.length).toBe(10);
    const { id } = await api
      .owner('people')
      .where({ email: mailOf('ottoline.marchbanks') })
      .first();
    const kinds = await api.owner('events').where({ record_kind: 'sign-in', record_id: id }).pluck('kind');
    expect(kinds).toEqual(['second factor added', 'second factor removed']);
  });
});

describe('an organisation', () => {
  it('can require it of finance: until then those roles are not held, by session or by token', async () => {
    const person = await api.as('odd.fjellheim');
    const { token } = (await person.post('/tokens', { name: 'Night script', roles: ['controller'] })).body;
    const byToken = () => person.send('GET', '/claims', undefined, { authorization: `Bearer ${token}` });
    expect((await byToken()).status).toBe(200);
    await api.owner('settings').insert({ key: 'second-factor-for-finance', value: 'true' });
    expect((await person.get('/claims')).body.code).toBe('not-allowed');
    expect((await byToken()).body.code).toBe('not-allowed');
    expect((await person.get('/claims/own')).status).toBe(200);
    expect((await person.get('/session')).body.person).toMatchObject({
      factor: 'needed',
      roles: ['approver', 'claimant'],
    });
    await add(person);
    expect((await person.get('/claims')).status).toBe(200);
    expect((await byToken()).status).toBe(200);
  });
});

describe('what the server seals', () => {
  it('is opened by the secret it was sealed with, also when a newer one came before it, and by no other', () => {
    const sealed = seal(['first'], 'JBSWY3DPEHPK3PXP');
    expect(sealed).not.toContain('JBSWY3DPEHPK3PXP');
    expect(unseal(['second', 'first'], sealed)).toBe('JBSWY3DPEHPK3PXP');
    expect(unseal(['second'], sealed)).toBeNull();
    expect(unseal(['first'], Buffer.from(sealed, 'base64').fill(0, 12, 14).toString('base64'))).toBeNull();
  });
});
