import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { remindAdvances } from '../advances/remind.service.ts';
import { tellSubstitutes } from './substitutes.service.ts';
import { handIn, viewOf } from '../../../test/fixtures/acts.ts';
import { advanceActs, DAY, inDays, type Who } from '../../../test/fixtures/advances.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

let api: TestApi;
let { by, act, asked, granted, paidOut } = {} as Awaited<ReturnType<typeof advanceActs>>;
beforeAll(async () => {
  api = await startApi('messages');
  ({ by, act, asked, granted, paidOut } = await advanceActs(api));
});
afterEach(async () => {
  await api.owner('substitutes').delete();
  await api.owner('messages').delete();
});
afterAll(() => api.close());

const heard = async (who: Who, number?: string): Promise<any[]> =>
  (await by[who].get('/messages')).body.messages.filter((m: any) => number === undefined || m.number === number);
const subjects = async (who: Who, number: string) => (await heard(who, number)).map((m) => m.subject);
const CODING = { costCentre: '430', fund: '10' };
async function claimOf(amount: string): Promise<string> {
  const { number } = (await by.tomas.post('/drafts', { purpose: 'Nets', coding: CODING })).body;
  const line = { date: inDays(-2), amount: { amount, currency: 'EUR' }, category: 'supplies', coding: CODING };
  await by.tomas.post(`/drafts/${number}/lines`, { revision: 1, lines: [{ ...line, merchant: `Quay ${amount}` }] });
  expect((await handIn(by.tomas, number)).body.code).toBeUndefined();
  return number;
}
async function claimAct(who: Who, number: string, name: string, more: object = {}) {
  const { revision } = (await viewOf(by[who], number)).claim;
  return by[who].post(`/claims/${number}/${name}`, { revision, ...more });
}

describe('whoever an act concerns', () => {
  it('hears of it: who decides next, then whose claim it is; not who did it, nor strangers', async () => {
    const number = await claimOf('23.50');
    const [asks] = await heard('siobhan', number);
    expect(asks).toMatchObject({
      subject: `${number} waits for your decision`,
      says: `The claim ${number} of Tomás Brandão: Nets, 23.50 EUR to pay.`,
      read: false,
    });
    expect([await heard('tomas', number), await heard('wanjiru', number), await heard('maeve', number)]).toEqual([
      [],
      [],
      [],
    ]);
    await claimAct('siobhan', number, 'approve');
    expect(await heard('tomas', number)).toMatchObject([
      { subject: `Siobhán O’Dowd approved ${number}`, next: 'Finance looks at it next.' },
    ]);
    // what was asked of her is dealt with: it no longer asks, nor counts
    expect(await heard('siobhan', number)).toMatchObject([
      { subject: `${number} no longer waits for you`, next: null, read: true },
    ]);
    expect((await by.siobhan.get('/messages/unread')).body.unread).toBe(0);
    await claimAct('maeve', number, 'return', { reason: 'The receipt is missing.' });
    const [returned] = await heard('tomas', number);
    expect(returned).toMatchObject({ subject: `Maeve Tarrant returned ${number}` });
    expect(JSON.stringify(returned)).not.toContain('receipt');
  });

  it('hears as the substitute of the day what waited before, and says for whom; once, and only within the dates', async () => {
    const ren = await api.as('ren.isshiki');
    const listed = async (who: Client, number: string) =>
      (await who.get('/messages')).body.messages.filter((m: any) => m.number === number);
    const number = await claimOf('24.50');
    const put = async (substitute_id: string, from: number, to: number) => {
      await api.owner('substitutes').delete();
      const dates = { valid_from: inDays(from), valid_to: inDays(to) };
      await api.owner('substitutes').insert({ person_id: 'P09', substitute_id, ...dates });
      await Promise.all([tellSubstitutes(api.services), tellSubstitutes(api.services)]);
    };
    await put('P07', 1, 5);
    await put('P07', -5, -1);
    expect(await listed(ren, number)).toEqual([]);
    await put('P07', 0, 0);
    await tellSubstitutes(api.services);
    expect(await listed(ren, number)).toMatchObject([
      { says: `The claim ${number} of Tomás Brandão: Nets, 24.50 EUR to pay. You stand in for Siobhán O’Dowd.` },
    ]);
    // neither whose record it is, nor who holds no role that decides
    await api.owner('person_roles').insert({ person_id: 'P05', role: 'approver' });
    await put('P05', 0, 0);
    await api.owner('person_roles').where({ person_id: 'P05', role: 'approver' }).delete();
    await put('P13', 0, 0);
    expect([await heard('tomas', number), await heard('hedda', number)]).toEqual([[], []]);
    await api.owner('substitutes').delete();
    await claimAct('siobhan', number, 'approve');
    await api.owner('messages').where({ person_id: 'P07' }).delete();
    await put('P07', 0, 0);
    expect(await listed(ren, number)).toEqual([]);
  });

  it('hears what became of an advance, and what to do about it', async () => {
    const number = await granted({}, { amount: '200.00', reason: 'Less.' });
    expect(await subjects('siobhan', number)).toEqual([`${number} no longer waits for you`]);
    expect(await heard('tomas', number)).toMatchObject([
      {
        subject: `Maeve Tarrant granted 200.00 EUR of ${number}`,
        next: `It is paid out next. It is to be accounted for by ${inDays(20)}.`,
      },
      { subject: `Siobhán O’Dowd approved ${number}`, next: 'A reviewer grants it next.' },
    ]);
    await act('odd', number, 'pay-out', { date: DAY });
    expect((await heard('tomas', number))[0]).toMatchObject({ subject: `${number} is paid out` });
    await act('odd', number, 'give-back', { date: DAY, amount: '200.00' });
    expect((await subjects('tomas', number)).slice(0, 2)).toEqual([
      `${number} is settled`,
      `What you gave back of ${number} is recorded`,
    ]);
  });

  it('is reminded before the day, on it and after it, each once', async () => {
    const number = await paidOut({ amount: '40.00' });
    await api.owner('messages').delete();
    const run = async (dueBy: string) => {
      await api.owner('advances').where({ id: number }).update({ due_by: dueBy, reminded_for: null });
      await Promise.all([remindAdvances(api.services), remindAdvances(api.services)]);
      await remindAdvances(api.services);
      return subjects('tomas', number);
    };
    expect(await run(inDays(8))).toEqual([]);
    expect(await run(inDays(7))).toEqual([`${number} is to be accounted for soon`]);
    expect(await run(inDays(0))).toHaveLength(2);
    expect(await run(inDays(-7))).toEqual([
      `${number} is overdue`,
      ...Array(2).fill(`${number} is to be accounted for soon`),
    ]);
    expect((await heard('tomas', number))[0].next).toContain('40.00 EUR of it are open.');
    await act('odd', number, 'give-back', { date: DAY, amount: '40.00' });
    await api.owner('messages').delete();
    expect(await run(inDays(-14))).toEqual([]);
  });

  it('as the owner of a code hears of being asked, and the corrector of the answer', async () => {
    const number = await claimOf('25.50');
    await claimAct('siobhan', number, 'approve');
    await api.owner('dimension_values').where({ code: 'FLAT-07' }).update({ owner_id: 'P03' });
    const { revision } = (await viewOf(by.maeve, number)).claim;
    const coding = { ...CODING, project: 'FLAT-07', spendType: 'materials' };
    await by.maeve.put(`/claims/${number}/lines/1`, { revision, set: { coding } });
    expect(await subjects('odd', number)).toEqual([`${number} is charged to a code of yours`]);
    // who no longer looks at claims there hears of them no longer
    const role = api.owner('person_roles').where({ person_id: 'P01', role: 'reviewer' });
    await role.clone().update({ entity_id: 'JP' });
    await claimAct('odd', number, 'refuse-code', { reason: 'Not ours.' });
    expect(await heard('maeve', number)).toEqual([]);
    await role.clone().update({ entity_id: null });
    await claimAct('odd', number, 'agree-code');
    expect(await subjects('maeve', number)).toEqual([`Odd Fjellheim agreed to the codes of ${number}`]);
  });
});

describe('what was heard', () => {
  it('is one’s own, counted until it is read, up to what was seen', async () => {
    const number = await asked({ amount: '10.00' });
    const [first] = await heard('siobhan', number);
    const second = await asked({ amount: '11.00' });
    const unread = async (who: Who) => (await by[who].get('/messages/unread')).body.unread;
    expect([await unread('siobhan'), await unread('tomas')]).toEqual([2, 0]);
    await by.tomas.post('/messages/read', { upTo: first.id });
    expect(await unread('siobhan')).toBe(2);
    expect((await by.siobhan.post('/messages/read', { upTo: first.id })).body.unread).toBe(1);
    expect((await heard('siobhan')).map((m) => [m.number, m.read])).toEqual([
      [second, false],
      [number, true],
    ]);
    expect((await api.anonymous().get('/messages')).status).toBe(401);
  });

  it('comes in pages, the newest first', async () => {
    const row = {
      person_id: 'P05',
      hears_as: 'maker',
      record_kind: 'claim',
      event: 'cleared',
      mail: 'none',
      at: new Date(),
    };
    const facts = JSON.stringify({ whose: 'P05', purpose: 'Nets', amount: '1.00', currency: 'EUR' });
    await api.owner('messages').insert(Array.from({ length: 53 }, (_, i) => ({ ...row, record_id: `C-${i}`, facts })));
    const { messages, next } = (await by.tomas.get('/messages')).body;
    expect([messages.length, messages[0].number]).toEqual([50, 'C-52']);
    const older = (await by.tomas.get(`/messages?before=${next}`)).body;
    expect([older.messages.map((m: any) => m.number), older.next]).toEqual([['C-2', 'C-1', 'C-0'], null]);
    expect((await by.tomas.get('/messages?before=x')).status).toBe(400);
  });
});

describe('a stream', () => {
  /** Events as they come, until it is closed. */
  async function listen(url: string, mail: string) {
    const answer = await fetch(`${url}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ email: `${mail}@saltmarsh.example`, password: 'saltmarsh' }),
    });
    const cookie = answer.headers
      .getSetCookie()
      .map((c) => c.split(';')[0])
      .join('; ');
    const closing = new AbortController();
    const stream = await fetch(`${url}/api/messages/live`, { headers: { cookie }, signal: closing.signal });
    let changes = 0;
    const reading = (async () => {
      for await (const part of stream.body as unknown as AsyncIterable<Uint8Array>)
        changes += new TextDecoder().decode(part).split('event: change').length - 1;
    })().catch(() => undefined);
    const reach = async (n: number) => {
      for (let i = 0; i < 100 && changes < n; i += 1) await new Promise((done) => setTimeout(done, 50));
      return changes;
    };
    return {
      type: stream.headers.get('content-type'),
      reach,
      count: () => changes,
      close: () => (closing.abort(), reading),
    };
  }

  it('wakes whoever has a claim open when somebody else acts on it, as long as it is open', async () => {
    const maeve = await listen(api.second, 'maeve.tarrant');
    const [open, other] = [await api.as('maeve.tarrant'), await api.as('noor.aldosari')];
    const act = async (name: string, more: object = {}) => {
      const { revision } = (await other.get('/claims/C-1010')).body.claim;
      const { status, body } = await other.post(`/claims/C-1010/${name}`, { revision, ...more });
      expect(status, body.says).toBe(200);
    };
    await open.post('/claims/C-1010/here');
    const before = await maeve.reach(1);
    await act('hold', { reason: 'Waits for the bank', until: inDays(3) });
    expect(await maeve.reach(before + 1)).toBe(before + 1);
    await open.send('DELETE', '/claims/C-1010/here');
    await act('release');
    await new Promise((done) => setTimeout(done, 500));
    expect(maeve.count()).toBe(before + 1);
    await maeve.close();
  });
  it('wakes the person whichever server process did it, and again after the database broke off', async () => {
    const siobhan = await listen(api.second, 'siobhan.odowd');
    const wanjiru = await listen(api.second, 'wanjiru.mbaya');
    expect([siobhan.type?.split(';')[0], await siobhan.reach(1), await wanjiru.reach(1)]).toEqual([
      'text/event-stream',
      1,
      1,
    ]);
    await asked({ amount: '12.00' });
    expect(await siobhan.reach(2)).toBe(2);
    expect(wanjiru.count()).toBe(1);
    await api.owner.raw(
      `select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and query ilike 'listen messages%'`,
    );
    expect(await siobhan.reach(3)).toBe(3);
    await asked({ amount: '13.00' });
    expect(await siobhan.reach(4)).toBe(4);
    await siobhan.close();
    await wanjiru.close();
  });

  it('and the count are no use of a session: asked by the page alone, it ends as if nobody were there', async () => {
    const expiry = async () => (await api.owner('sessions').max('expire as at').first())!.at;
    const tomas = await api.as('tomas.brandao');
    const before = await expiry();
    await new Promise((done) => setTimeout(done, 1100));
    await tomas.get('/messages/unread');
    expect(await expiry()).toEqual(before);
    await tomas.get('/messages');
    expect(await expiry()).not.toEqual(before);
  });
});
