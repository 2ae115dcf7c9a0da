import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';
import { usualThrottles } from '../../../test/fixtures/application.ts';
import type { Letter } from '../../platform/ports/mail.ts';

let api: TestApi;
const letters: Letter[] = [];
let now = new Date('2026-11-20T09:00:00Z');
beforeAll(async () => {
  const mailer = { send: async (letter: Letter) => void letters.push(letter) };
  // the first wait is long enough for a busy machine
  const guesses = { ...usualThrottles.guesses, firstSeconds: 120 };
  const throttles = { ...usualThrottles, guesses };
  api = await startApi('passwords', { mailer, work: true, clock: { now: () => now }, throttles });
});
afterAll(() => api.close());
beforeEach(() => api.owner('rate_limits').delete());

const TOMAS = 'tomas.brandao@saltmarsh.example';
const GOOD = 'seven herons at low tide';
const idOf = async (email: string): Promise<string> => (await api.owner('people').where({ email }).first()).id;
const enter = (password: string, email = TOMAS) => api.anonymous().post('/session', { email, password });
const reset = (letter: string, password: string) => api.anonymous().put('/session/forgotten', { letter, password });
/** The letter that asking brings: what stands behind the # of its link. */
async function letterFor(email: string): Promise<string> {
  const own = () => letters.filter(({ to }) => to === email);
  const before = own().length;
  expect((await api.anonymous().post('/session/forgotten', { email })).status).toBe(204);
  await vi.waitFor(() => expect(own().length).toBe(before + 1), 10_000);
  const { text } = own().at(-1)!;
  return /http:\/\/ebbet\.example\/new-password#(\S+)/.exec(text)![1]!;
}

describe('a password that was forgotten', () => {
  it('is set once by a letter, and ends every session', async () => {
    const before = await api.as('tomas.brandao');
    const letter = await letterFor(TOMAS);
    const other = await letterFor(TOMAS);
    expect((await reset(letter, GOOD)).status).toBe(204);
    expect((await before.get('/claims/own')).status).toBe(401);
    expect((await enter('saltmarsh')).body.code).toBe('wrong-password');
    expect((await enter(GOOD)).status).toBe(201);
    expect((await reset(letter, GOOD)).body.code).toBe('letter-used');
    expect((await reset(other, GOOD)).body.code).toBe('letter-used');
    const events = await api.owner('events').where({ record_kind: 'sign-in', record_id: await idOf(TOMAS) });
    expect(events.map((e) => [e.kind, e.actor_id, JSON.parse(e.facts).by])).toEqual([
      ['letter written', null, undefined],
      ['letter written', null, undefined],
      ['password changed', null, 'letter'],
    ]);
    expect(events.map((e) => e.facts).join()).not.toContain(GOOD);
  });
  it('is not set by a letter of an hour ago, nor by one that somebody made up', async () => {
    const letter = await letterFor(TOMAS);
    now = new Date(now.getTime() + 61 * 60_000);
    expect((await reset(letter, GOOD)).body.code).toBe('letter-used');
    expect((await reset('x'.repeat(43), GOOD)).body.code).toBe('letter-used');
  });
  it('does not use up the letter when the new one is refused', async () => {
    const letter = await letterFor(TOMAS);
    expect((await reset(letter, 'too short')).body.code).toBe('invalid');
    expect((await reset(letter, 'Password123!')).body.code).toBe('common-password');
    expect((await reset(letter, GOOD)).status).toBe(204);
  });
  it('is answered alike for an e-mail nobody has, and brings no letter', async () => {
    const before = letters.length;
    const unknown = await api.anonymous().post('/session/forgotten', { email: 'nobody@saltmarsh.example' });
    expect([unknown.status, unknown.body]).toEqual([204, '']);
    await letterFor('maeve.tarrant@saltmarsh.example');
    expect(letters.length).toBe(before + 1);
  });
  it('is asked for a few times an hour, whoever asks', async () => {
    const ask = () => api.anonymous().post('/session/forgotten', { email: 'odd.fjellheim@saltmarsh.example' });
    for (let i = 0; i < 5; i += 1) expect((await ask()).status).toBe(204);
    expect((await ask()).body.code).toBe('too-many');
  });
  it('keeps only a digest of the letter', async () => {
    const letter = await letterFor(TOMAS);
    const rows = await api.owner('password_letters').select();
    expect(JSON.stringify(rows)).not.toContain(letter);
  });
  it('belongs to somebody who never had one, too', async () => {
    const gone = await api
      .owner('credentials')
      .where({ person_id: await idOf('odd.fjellheim@saltmarsh.example') })
      .delete();
    expect(gone).toBe(1);
    const letter = await letterFor('odd.fjellheim@saltmarsh.example');
    expect((await reset(letter, GOOD)).status).toBe(204);
    expect((await enter(GOOD, 'odd.fjellheim@saltmarsh.example')).status).toBe(201);
  });
});

describe('a password that is changed', () => {
  it('needs the one before, ends the other sessions and keeps this one', async () => {
    const [here, there] = [await api.as('maeve.tarrant'), await api.as('maeve.tarrant')];
    const change = (current: string, password: string) => here.put('/session/password', { current, password });
    expect((await change('guessed', GOOD)).body.code).toBe('wrong-password');
    expect((await change('saltmarsh', 'maeve.tarrant')).body.code).toBe('common-password');
    expect((await change('saltmarsh', GOOD)).status).toBe(204);
    expect((await here.get('/claims/own')).status).toBe(200);
    expect((await there.get('/claims/own')).status).toBe(401);
    expect((await enter(GOOD, 'maeve.tarrant@saltmarsh.example')).status).toBe(201);
  });
  it('is not guessed at with a session that was left open', async () => {
    const open = await api.as('ottoline.marchbanks');
    const guess = () => open.put('/session/password', { current: 'guessed', password: GOOD });
    const codes = [];
    for (let i = 0; i < 8; i += 1) codes.push((await guess()).body.code);
    expect(codes.slice(0, 5)).toEqual(Array(5).fill('wrong-password'));
    expect(codes).toContain('too-many');
  });
});

describe('a letter', () => {
  it('is not lost where no mail can be sent: its job fails, and is done again by a process that can', async () => {
    const { sendLetter } = await import('./passwords.service.ts');
    const work = sendLetter({ ...api.services, mailer: null }, 'tomas.brandao@saltmarsh.example');
    await expect(work).rejects.toThrow('no-mail');
  });
});
