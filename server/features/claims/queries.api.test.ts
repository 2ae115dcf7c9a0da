import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { clear, viewOf } from '../../../test/fixtures/acts.ts';
import { picture, sendFile } from '../../../test/fixtures/sendFile.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

/** Questions that are asked, sent, answered and taken back while a claim stays in review. */
let api: TestApi;
let maeve: Client;
let ines: Client;
let claimant: Client;
let approver: Client;
let stranger: Client;
const NUMBER = 'C-1011';
beforeAll(async () => {
  api = await startApi('queries');
  [maeve, ines, stranger] = await Promise.all([
    api.as('maeve.tarrant'),
    api.as('ines.quadros'),
    api.as('pavel.hruska'),
  ]);
  const mailOf = async (id: string) => (await api.owner('people').where({ id }).first('email')).email.split('@')[0];
  const { claimant_id } = await api.owner('claims').where({ number: NUMBER }).first('claimant_id');
  const need = { record_kind: 'claim', record_id: NUMBER, asks: 'record' };
  const { decided_by } = await api.owner('approval_needs').where(need).whereNotNull('decided_by').first('decided_by');
  [claimant, approver] = [await api.as(await mailOf(claimant_id)), await api.as(await mailOf(decided_by))];
});
afterAll(() => api.close());

const view = (client = maeve) => viewOf(client, NUMBER);
const revision = async () => (await view()).claim.revision;
const post = async (what: string, body: object = {}, client = maeve) =>
  client.post(`/claims/${NUMBER}/${what}`, { revision: await revision(), ...body });
const ask = (text: string, more: object = {}) => post('queries', { line: '1', kind: 'receipt', text, ...more });
const reply = async (client: Client, id: string, text = 'Here it is.') =>
  client.put(`/claims/${NUMBER}/queries/${id}`, { revision: await revision(), text });
const drop = async (id: string) => maeve.send('DELETE', `/claims/${NUMBER}/queries/${id}?revision=${await revision()}`);
const place = async () => {
  const { claims } = (await maeve.get('/claims')).body;
  return claims.findIndex((c: any) => c.number === NUMBER) / (claims.length - 1);
};
const row = async () => (await maeve.get('/claims')).body.claims.find((c: any) => c.number === NUMBER);
/** Whether the list of one's own claims says that a question waits there. */
const asks = async (client: Client) =>
  (await client.get('/claims/own')).body.claims.find((c: any) => c.number === NUMBER).asked;
const heard = async (client: Client, subject: string) =>
  (await client.get('/messages')).body.messages.filter((m: any) => m.number === NUMBER && m.subject.includes(subject))
    .length;

describe('a question', () => {
  it('is pinned by finance, and nobody else reads it before it is sent', async () => {
    expect((await ask('Where is the ticket?')).status).toBe(200);
    expect((await ask('Why two nights?', { kind: null })).status).toBe(200);
    expect((await view(claimant)).queries).toEqual([]);
    expect((await view(approver)).queries).toEqual([]);
    expect((await view()).claim.waitsFor).toEqual([]);
    expect([await heard(claimant, 'asks something about'), await asks(claimant)]).toEqual([0, false]);
  });
  it('goes out with the others, and the claim stays in review and waits', async () => {
    const { body } = await post('send-queries');
    expect([body.claim.state, body.claim.waitsFor.length]).toEqual(['in review', 1]);
    expect(await row()).toMatchObject({ waiting: 2, answered: 0 });
    expect(await asks(claimant)).toBe(true);
    expect(await place()).toBe(1);
    expect((await view(claimant)).queries.map((q: any) => [q.text, q.answer])).toEqual([
      ['Where is the ticket?', null],
      ['Why two nights?', null],
    ]);
    expect(await heard(claimant, 'asks something about')).toBe(1);
    expect((await post('send-queries')).body.code).toBe('nothing-asked');
  });
  it('is answered by whom it asks alone, with files, while the claim cannot be cleared', async () => {
    const [first, second] = (await view(claimant)).queries;
    expect((await clear(maeve, NUMBER)).body).toMatchObject({ code: 'question-open', numbers: { line: '1' } });
    for (const other of [approver, maeve])
      expect((await reply(other, first.id)).body.code).toMatch(/not-yours|not-allowed/);
    expect((await reply(stranger, first.id)).body.code).toBe('not-found');
    const path = `/claims/${NUMBER}/queries/${first.id}/files?revision=${await revision()}`;
    const added = await sendFile(claimant, path, await picture(31), 'ticket.png');
    expect([added.status, added.body.queries[0].files[0].name]).toEqual([201, 'ticket.png']);
    const file = `/attachments/${added.body.queries[0].files[0].id}/pages/1`;
    const sees = async (who: Client) => (await who.get(file)).status;
    expect([await sees(claimant), await sees(maeve), await sees(approver), await sees(stranger)]).toEqual([
      200, 200, 200, 404,
    ]);
    expect((await reply(claimant, first.id)).status).toBe(200);
    expect(await row()).toMatchObject({ waiting: 1, answered: 1 });
    expect((await reply(claimant, first.id, 'Once more')).body.code).toBe('not-found');
    await reply(claimant, second.id, 'The boat did not go.');
    expect(await row()).toMatchObject({ waiting: 0, answered: 2 });
    expect(await asks(claimant)).toBe(false);
    expect(await place()).toBeLessThan(1);
    expect((await view()).queries.map((q: any) => q.answer?.text)).toEqual(['Here it is.', 'The boat did not go.']);
    expect(await heard(maeve, 'answered a question')).toBe(2);
    expect(await heard(ines, 'answered a question')).toBe(0);
    expect((await reply(claimant, second.id)).body.code).toBe('not-yours');
  });
  it('to who approved it is not for its claimant, nor is the answer', async () => {
    await ask('Did you see the boat?', { asks: 'approver' });
    await post('send-queries');
    const [asked] = (await view(approver)).queries.filter((q: any) => q.asks === 'approver');
    expect(asked.text).toBe('Did you see the boat?');
    expect(await asks(claimant)).toBe(false);
    expect((await reply(claimant, asked.id)).body.code).toBe('not-yours');
    const path = `/claims/${NUMBER}/queries/${asked.id}/files?revision=${await revision()}`;
    const file = (await sendFile(approver, path, await picture(32), 'boat.png')).body.queries.at(-1).files[0].id;
    await reply(approver, asked.id, 'I sailed it.');
    const seen = await view(claimant);
    expect(JSON.stringify([seen.queries, seen.history])).not.toMatch(/boat\?|sailed/);
    expect((await claimant.get(`/attachments/${file}/pages/1`)).status).toBe(404);
    expect((await maeve.get(`/attachments/${file}/pages/1`)).status).toBe(200);
    expect(JSON.stringify((await view()).history)).toMatch(/sailed/);
  });
  it('is answered by those it asks, not by others who are asked something else, nor before it is sent', async () => {
    await ask('For the claimant');
    await ask('For who approved', { asks: 'approver' });
    await post('send-queries');
    await ask('Not sent yet');
    const [mine, theirs, unsent] = (await view()).queries.slice(-3);
    expect((await reply(approver, mine.id)).body.code).toBe('not-found');
    expect((await reply(claimant, theirs.id)).body.code).toBe('not-found');
    expect((await reply(claimant, unsent.id)).body.code).toBe('not-found');
    await drop(unsent.id);
    expect([(await reply(claimant, mine.id)).status, (await reply(approver, theirs.id)).status]).toEqual([200, 200]);
  });
  it('is taken back: gone when nobody saw it, on record when they did; what was answered stays', async () => {
    await ask('Never mind?');
    const [unsent] = (await view()).queries.filter((q: any) => !q.sent);
    expect((await drop(unsent.id)).body.queries.some((q: any) => q.id === unsent.id)).toBe(false);
    await ask('And this?');
    await post('send-queries');
    const sent = (await view(claimant)).queries.at(-1);
    expect((await drop(sent.id)).body.queries.at(-1)).toMatchObject({ text: 'And this?', takenBack: true });
    expect((await view(claimant)).queries.some((q: any) => q.id === sent.id)).toBe(false);
    expect(await row()).toMatchObject({ waiting: 0 });
    expect((await reply(claimant, sent.id)).body.code).toBe('not-yours');
    const answered = (await view()).queries[0];
    expect((await drop(answered.id)).body.code).toBe('not-found');
  });
  it('that nobody answered comes back with a returned claim, to its makers', async () => {
    await ask('Still open, for whoever approved', { asks: 'approver' });
    await post('send-queries');
    await post('return', { reason: 'Please look again.' });
    const back = await view(claimant);
    expect(back.claim).toMatchObject({ state: 'returned', waitsFor: [] });
    expect(back.queries.at(-1)).toMatchObject({ text: 'Still open, for whoever approved', asks: 'claimant' });
  });
});

describe('a claim that goes back to who approved it', () => {
  const OTHER = 'C-1010';
  it('waits for their decision again, with what was asked, and comes back as it was', async () => {
    const of = (client = maeve) => viewOf(client, OTHER);
    const seen = await of();
    const need = { record_kind: 'claim', record_id: OTHER, asks: 'record' };
    const ids = await api.owner('approval_needs').where(need).whereNotNull('decided_by').distinct().pluck('decided_by');
    const { email } = await api
      .owner('people')
      .where({ id: ids.at(-1) })
      .first('email');
    const theirs = await api.as(email.split('@')[0]);
    const question = { revision: seen.claim.revision, line: '1', text: 'Was this agreed?', asks: 'approver' };
    await maeve.post(`/claims/${OTHER}/queries`, question);
    const later = { line: '1', text: 'For the claimant, later', revision: (await of()).claim.revision };
    await maeve.post(`/claims/${OTHER}/queries`, later);
    const back = async (client: Client, reason = 'Please look at the hotel again') =>
      client.post(`/claims/${OTHER}/return-to-approver`, { revision: (await of()).claim.revision, reason });
    expect((await back(claimant)).status).toBeGreaterThanOrEqual(403);
    expect((await back(maeve, ' ')).body.code).toBe('invalid');
    const { body } = await back(maeve);
    expect([body.claim.state, body.claim.deciders.length]).toEqual(['with approver', 1]);
    const asked = await of(theirs);
    expect(asked.may).toEqual(expect.arrayContaining(['approve', 'answer']));
    expect(asked.history.at(-1)).toMatchObject({ kind: 'sent back to the approver' });
    expect(asked.queries.map((q: any) => q.text)).toEqual(['Was this agreed?']);
    const { id } = asked.queries.at(-1);
    const revision = async () => (await of()).claim.revision;
    await theirs.put(`/claims/${OTHER}/queries/${id}`, { revision: await revision(), text: 'Yes, by mail.' });
    const again = await theirs.post(`/claims/${OTHER}/approve`, { revision: await revision() });
    expect(again.body.claim.state).toBe('in review');
    expect((await of()).document.claim.version).toBe(seen.document.claim.version);
    expect((await of()).queries.map((q: any) => [q.sent, q.answer?.text])).toEqual([
      [true, 'Yes, by mail.'],
      [false, undefined],
    ]);
  });
  it('asks nobody any more once its makers take it back', async () => {
    const third = 'C-1004';
    const seen = async () => viewOf(maeve, third);
    const pin = { line: '1', text: 'And this?', asks: 'approver', revision: (await seen()).claim.revision };
    await maeve.post(`/claims/${third}/queries`, pin);
    const { body } = await maeve.post(`/claims/${third}/return-to-approver`, {
      revision: (await seen()).claim.revision,
      reason: 'Please look again',
    });
    expect(body.claim.waitsFor.length).toBeGreaterThan(0);
    const withdrawn = await stranger.post(`/claims/${third}/call-back`, { revision: body.claim.revision });
    expect(withdrawn.body.claim).toMatchObject({ state: 'draft', waitsFor: [] });
  });
  it('is about a line that is there, and asks an approver only where somebody approved', async () => {
    const number = 'C-1012';
    const { revision } = (await viewOf(maeve, number)).claim;
    const pin = (more: object) =>
      maeve.post(`/claims/${number}/queries`, { line: '1', text: 'Why?', revision, ...more });
    expect((await pin({ line: '99', asks: 'claimant' })).body.code).toBe('not-found');
    await api.owner('approval_needs').where({ record_kind: 'claim', record_id: number }).delete();
    expect((await pin({ asks: 'approver' })).body.code).toBe('nobody-approved');
    expect((await pin({ asks: 'claimant' })).body.queries).toHaveLength(1);
  });
});
