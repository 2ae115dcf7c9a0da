import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

let api: TestApi;
let noor: Client;
beforeAll(async () => {
  api = await startApi('tokens');
  noor = await api.as('noor.aldosari');
});
afterAll(() => api.close());

const bearer = (token: string) => ({ authorization: `Bearer ${token}` });
const asToken = (token: string, method: string, path: string, body?: unknown) =>
  api.anonymous().send(method, path, body, bearer(token));
const make = async (roles: string[]) => (await noor.post('/tokens', { name: 'Night script', roles })).body;

describe('a token', () => {
  it('acts for its owner with the roles it was made for, and no others', async () => {
    const { token, tokens } = await make(['reviewer']);
    expect(tokens[0]).toMatchObject({ name: 'Night script', roles: ['reviewer'], revokedAt: null });
    expect((await asToken(token, 'GET', '/claims')).status).toBe(200);
    expect((await asToken(token, 'POST', '/claims/C-1014/post', {})).body.code).toBe('not-allowed');
    expect((await asToken(token, 'GET', '/session')).body.person).toMatchObject({
      name: 'Noor Al-Dosari',
      roles: ['reviewer'],
    });
  });
  it('is kept as a hash alone, and shown once', async () => {
    const { token } = await make(['claimant']);
    const stored = await api.owner('api_tokens').select('name', 'hash');
    expect(JSON.stringify(stored)).not.toContain(token.slice(6));
    expect(JSON.stringify((await noor.get('/tokens')).body)).not.toContain(token);
  });
  it('cannot be made for a role one does not have, nor by another token', async () => {
    expect((await noor.post('/tokens', { name: 'x', roles: ['administrator'] })).body.code).toBe('not-allowed');
    const { token } = await make(['reviewer']);
    expect((await asToken(token, 'POST', '/tokens', { name: 'y', roles: ['reviewer'] })).body.code).toBe(
      'not-signed-in',
    );
  });
  it('opens nothing once it is revoked, which its owner alone can do', async () => {
    const { token, tokens } = await make(['reviewer']);
    const maeve = await api.as('maeve.tarrant');
    expect((await maeve.send('DELETE', `/tokens/${tokens[0].id}`)).status).toBe(404);
    expect((await noor.send('DELETE', `/tokens/${tokens[0].id}`)).status).toBe(200);
    expect((await asToken(token, 'GET', '/claims')).body.code).toBe('wrong-token');
    expect((await noor.send('DELETE', `/tokens/${tokens[0].id}`)).body.code).toBe('wrong-state');
    const events = await api
      .owner('events')
      .where({ record_kind: 'token', record_id: tokens[0].id })
      .orderBy('seq')
      .pluck('kind');
    expect(events).toEqual(['made', 'revoked']);
    expect((await asToken('ebbet_nothing', 'GET', '/claims')).body.code).toBe('wrong-token');
  });
  it('loses a role with its owner', async () => {
    const { token } = await make(['controller']);
    expect((await asToken(token, 'GET', '/periods')).status).toBe(200);
    await api.owner('person_roles').where({ person_id: 'P04', role: 'controller' }).update({ valid_to: '2020-01-01' });
    expect((await asToken(token, 'GET', '/periods')).body.code).toBe('not-allowed');
    await api.owner('person_roles').where({ person_id: 'P04', role: 'controller' }).update({ valid_to: null });
  });
});
