import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';
import { sha256 } from '../history/sha256.ts';
import type { Db } from './connect.ts';

let api: TestApi;
beforeAll(async () => {
  api = await startApi('names');
});
afterAll(() => api.close());

describe('an event that names somebody', () => {
  const write = (db: Db, actor: string | null, proof: string | null) =>
    db.raw(`select append_event('claim', 'X-3', now(), ?, 'cleared', '{}', null, null, null, null, ?, null) as hash`, [
      actor as string,
      proof as string,
    ]);
  const sessionOf = async (person: string) =>
    (await api.owner('sessions').whereRaw(`sess ->> 'personId' = ?`, [person]).first()).sid as string;

  it('is written by the application with a session or token of theirs, and not without', async () => {
    const maeve = await api.as('maeve.tarrant');
    const tomas = await api.as('tomas.brandao');
    const { token, tokens } = (await tomas.post('/tokens', { name: 'Night script', roles: ['claimant'] })).body;
    const [ofMaeve, ofTomas] = ['P01', 'P05'];
    for (const proof of [null, '', 'made up', await sessionOf(ofTomas), token])
      await expect(write(api.app, ofMaeve, proof)).rejects.toMatchObject({ code: 'EB007' });
    await write(api.app, ofMaeve, await sessionOf(ofMaeve));
    await write(api.app, ofTomas, token);
    await write(api.app, null, null);
    await tomas.send('DELETE', `/tokens/${tokens[0].id}`);
    await expect(write(api.app, ofTomas, token)).rejects.toMatchObject({ code: 'EB007' });
    await maeve.send('DELETE', '/session');
    const sid = await api.owner('sessions').whereRaw(`sess ->> 'personId' = 'P01'`).pluck('sid');
    expect(sid).toEqual([]);
  });
  it('and how somebody signs in are changed by who shows that it is them, or holds the letter sent to them', async () => {
    const set = (proof: string) => api.app.raw(`select set_sign_in('P05', 'hash', 2, null, 0, ?)`, [proof]);
    const letter = 'l'.repeat(43);
    await api.owner('password_letters').insert({ hash: sha256(letter), person_id: 'P01', made_at: new Date() });
    await api.as('maeve.tarrant');
    for (const proof of ['', 'made up', await sessionOf('P01'), letter])
      await expect(set(proof)).rejects.toMatchObject({ code: 'EB007' });
    await api.owner('password_letters').update({ person_id: 'P05' });
    await api.app.raw(`select take_step('P05', 50)`);
    await set(letter);
    // A code that was taken while something else changed opens nothing again.
    expect((await api.owner('credentials').where({ person_id: 'P05' }).first()).factor_step).toBe(50n);
  });
  it('is not written by the function that asks for no proof', async () => {
    const before = `select append_event('claim', 'X-3', now(), 'P01', 'cleared', '{}', null, null, null, null) as hash`;
    await expect(api.app.raw(before)).rejects.toMatchObject({ code: '42501' });
  });
});
