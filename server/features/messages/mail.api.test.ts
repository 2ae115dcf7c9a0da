import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Letter, Mailer } from '../../platform/ports/mail.ts';
import type { Services } from '../../platform/context.ts';
import { advanceActs } from '../../../test/fixtures/advances.ts';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';
import { sendDigests, sendMail } from './mail.service.ts';

let api: TestApi;
let { by, act, asked } = {} as Awaited<ReturnType<typeof advanceActs>>;
const sent: Letter[] = [];
/** What the post office says next; null takes everything. */
let refuses: ((letter: Letter) => Error | null) | null = null;
const mailer: Mailer = {
  async send(letter) {
    await new Promise((done) => setTimeout(done, 5));
    const no = refuses?.(letter);
    if (no) throw no;
    sent.push(letter);
  },
};
beforeAll(async () => {
  api = await startApi('mail', { mailer });
  ({ by, act, asked } = await advanceActs(api));
});
beforeEach(async () => {
  sent.length = 0;
  refuses = null;
  await api.owner('messages').delete();
});
afterAll(() => api.close());

const at = (now: string): Services => ({ ...api.services, clock: { now: () => new Date(now) } });
const to = () => sent.map((l) => l.to).sort();

describe('mail', () => {
  it('says what it is about, how much, what to do and where, as text and as HTML; once, whoever sends', async () => {
    const number = await asked({ amount: '21.00', purpose: 'Ropes <b>&</b> stakes' });
    await Promise.all([sendMail(api.services), sendMail(api.services), sendMail(api.services)]);
    expect(sent).toHaveLength(1);
    const [letter] = sent;
    expect(letter).toMatchObject({
      to: 'siobhan.odowd@saltmarsh.example',
      subject: `${number} waits for your decision`,
    });
    expect(letter!.text).toContain(`The advance ${number} of Tomás Brandão: Ropes <b>&</b> stakes, 21.00 EUR.`);
    expect(letter!.text).toContain(`http://ebbet.example/advances/${number}`);
    expect(letter!.html).toContain('Ropes &lt;b&gt;&amp;&lt;/b&gt; stakes');
    expect(letter!.html).not.toContain('<b>');
    expect(letter!.messageId).toMatch(/^<message-\d+@ebbet\.example>$/);
    await sendMail(api.services);
    expect(sent).toHaveLength(1);
  });

  it('is asked for in the transaction of the act: what is refused is not mailed', async () => {
    const { rows: before } = await api.owner.raw(`select count(*) from pgboss.job where name = 'send-mail'`);
    const number = await asked({ amount: '22.00' });
    const { rows: after } = await api.owner.raw(`select count(*) from pgboss.job where name = 'send-mail'`);
    expect(Number(after[0].count)).toBe(Number(before[0].count) + 1);
    expect((await act('maeve', number, 'grant', { dueBy: '2099-01-01' })).body.code).toBe('wrong-state');
    expect(await api.owner('messages').where({ record_id: number })).toHaveLength(1);
  });

  it('goes as each person chose: at once, once in their morning, or not at all', async () => {
    const choose = async (mail: string) => (await by.siobhan.put('/messages/mail', { mail })).body.mail;
    expect(await choose('none')).toBe('none');
    const silent = await asked({ amount: '23.00' });
    expect(await choose('daily')).toBe('daily');
    const daily = [await asked({ amount: '24.00' }), await asked({ amount: '25.00' })];
    await sendMail(api.services);
    expect(sent).toEqual([]);
    expect((await by.siobhan.get('/messages')).body.messages.map((m: any) => m.number)).toContain(silent);
    // 05:59 and 06:00 UTC in summer are one before and seven in the morning of Dublin
    await sendDigests(at('2031-07-01T05:59:00Z'));
    expect(sent).toEqual([]);
    await Promise.all([sendDigests(at('2031-07-01T06:00:00Z')), sendDigests(at('2031-07-01T06:00:00Z'))]);
    expect(sent).toHaveLength(1);
    expect(sent[0]).toMatchObject({
      subject: '2 messages from Ebbet',
      messageId: '<digest-P09-2031-07-01@ebbet.example>',
    });
    for (const number of daily) expect(sent[0]!.text).toContain(number);
    expect(sent[0]!.text).not.toContain(silent);
    await asked({ amount: '26.00' });
    await sendDigests(at('2031-07-01T20:00:00Z'));
    expect(sent).toHaveLength(1);
    await sendDigests(at('2031-07-02T20:00:00Z'));
    expect(sent).toHaveLength(2);
    expect(await choose('at once')).toBe('at once');
    expect((await by.siobhan.put('/messages/mail', { mail: 'never' })).status).toBe(400);
  });

  it('that is refused for good keeps back no other, is tried again later, and given up in the end', async () => {
    await asked({ amount: '27.00' });
    await api.owner('people').where({ id: 'P09' }).update({ usual_approver: 'P03' });
    await api.owner('messages').insert({
      ...{
        person_id: 'P01',
        hears_as: 'maker',
        record_kind: 'claim',
        record_id: 'C-1',
        event: 'cleared',
        mail: 'at once',
      },
      ...{ at: new Date(), facts: JSON.stringify({ whose: 'P01', purpose: 'x', amount: null, currency: 'EUR' }) },
    });
    refuses = ({ to }) =>
      to.startsWith('siobhan') ? Object.assign(new Error('no such box'), { responseCode: 550 }) : null;
    await sendMail(at('2031-01-01T00:00:00Z'));
    expect(to()).toEqual(['maeve.tarrant@saltmarsh.example']);
    refuses = null;
    await sendMail(at('2031-01-01T00:00:59Z'));
    expect(sent).toHaveLength(1);
    await sendMail(at('2031-01-01T00:01:00Z'));
    expect(sent).toHaveLength(2);
    await api.owner('messages').update({ mailed_at: null, mail_tries: 20, mail_after: null });
    await sendMail(api.services);
    expect(sent).toHaveLength(2);
  });

  it('waits where the post office cannot be reached, and the job is tried again', async () => {
    await asked({ amount: '28.00' });
    refuses = () => new Error('connect ECONNREFUSED');
    await expect(sendMail(api.services)).rejects.toThrow('ECONNREFUSED');
    refuses = () => Object.assign(new Error('try later'), { responseCode: 451 });
    await expect(sendMail(api.services)).rejects.toThrow('try later');
    refuses = null;
    await sendMail(api.services);
    expect(sent).toHaveLength(1);
  });
});
