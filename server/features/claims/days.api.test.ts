import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { claimsOfTomas, daysAgo } from '../../../test/fixtures/claimsOfTomas.ts';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';
import { addDays } from '../../../core/numbers/isoDate.ts';
import { localDate } from '../../../core/numbers/localDate.ts';
import { entityToday, proposedPostingDate } from '../../records/book/postingDate.ts';
import { assessAgain } from './reassess.service.ts';
import { onlyClaim } from '../../records/claims/usesOf.ts';

/** Days: of lines, of the submission, of the posting, and what day it is where an entity is. */
let api: TestApi;
let of: Awaited<ReturnType<typeof claimsOfTomas>>;
/** The application's clock; the database has its own, so postings are of a day that has come. */
let ahead = 0;
const now = () => new Date(Date.now() + ahead);
beforeAll(async () => {
  api = await startApi('days', { clock: { now } });
  of = await claimsOfTomas(api);
  await api.owner('budgets').update({ amount: 90_000_000 });
});
afterAll(() => api.close());

const codes = (view: any, line: string) =>
  (view.assessment?.findings ?? view.findings)
    .filter((f: any) => f.line === line)
    .map((f: any) => [f.code, f.severity]);
const inDays = (days: number) => daysAgo(-days);

describe('a line of a day that has not come', () => {
  it('is asked about when it is handed in, and cannot be posted before its day', async () => {
    const number = await of.draft([of.line('12.00', { date: inDays(300) }), of.line('5.00')]);
    const asked = codes(await of.view(number, 'tomas'), '1');
    expect(asked).toContainEqual(['date-after-submission', 'ask']);
    // when it can be posted is no matter of who makes it
    expect(asked.map(([code]: string[]) => code)).not.toContain('posting-before-line');
    const submitted = await of.act('tomas', number, 'submit', { accepted: 'policy' });
    expect(submitted.body.code).toBe('word-wanted');
    const review = await of.inReview([of.line('12.00', { date: inDays(300) }), of.line('5.00')]);
    const seen = await of.view(review);
    expect(codes(seen, '1')).toEqual(
      expect.arrayContaining([
        ['date-after-submission', 'ask'],
        ['posting-before-line', 'stop'],
      ]),
    );
    expect(seen.ties.find((t: any) => t.line === '1' && t.kind === 'limit').shown).toBe('off');
    expect((await of.clear(review)).body.code).toBe('has-stops');
  });
  it('of a day after that of the posting is not posted then, but is on its own day', async () => {
    const number = await of.inReview([of.line('14.00', { date: daysAgo(2) })]);
    expect((await of.clear(number)).status).toBe(200);
    await api.owner('periods').where({ entity_id: 'IE' }).update({ state: 'open' });
    const early = await of.by.odd.get(`/claims/${number}/journal?date=${daysAgo(3)}`);
    expect(early.body.against).toContain(daysAgo(2));
    const closed = await of.by.odd.get(`/claims/${number}/journal?date=2020-01-15`);
    expect(closed.body.against).toContain('The period of 2020-01-15 is not open.');
    expect((await of.post(number, { date: daysAgo(3) })).body.code).toBe('has-stops');
    expect((await of.by.odd.get(`/claims/${number}/journal?date=${daysAgo(2)}`)).body.against).toBeNull();
    expect((await of.post(number, { date: daysAgo(2) })).status).toBe(201);
  });
});

describe('an advance', () => {
  const paidOut = (id: string, date: string) =>
    api.owner.raw(
      `update journals set date = ? where id = (select journal_id from advance_payments where advance_id = ? and kind = 'payout')`,
      [date, id],
    );
  it('accounts for nothing before it was paid out, in the application and in the database', async () => {
    // A-031 of Wanjirũ is paid out already; as if that was yesterday
    await api.owner('periods').update({ state: 'open' });
    await api.owner.raw('alter table journals disable trigger user');
    await paidOut('A-031', daysAgo(1));
    await api.owner.raw('alter table journals enable trigger user');
    const { document } = await of.view('C-1003');
    expect(document.claim.advances.map((a: any) => a.advance)).toContain('A-031');
    const lineDay = document.claim.lines
      .map((l: any) => l.date)
      .sort()
      .at(-1);
    expect(lineDay < daysAgo(1)).toBe(true);
    expect((await of.clear('C-1003')).status).toBe(200);
    const early = await of.post('C-1003', { date: lineDay });
    expect(early.body).toMatchObject({ code: 'advance-not-open', numbers: { advance: 'A-031', open: '0.00' } });
    // the same said by the database, to who goes past the application
    const item = await api.owner('open_items').where({ kind: 'staff advance', source_id: 'A-031' }).first();
    const [head] = await api.owner('journals').where({ source_id: 'A-031' }).limit(1);
    const { made_in: _, id: __, document: ___, ...fields } = head;
    const period = await api
      .owner('periods')
      .where({ entity_id: head.entity_id })
      .whereRaw('? between from_date and to_date', [lineDay])
      .first('id');
    const journal = {
      ...fields,
      number: 'X-1',
      date: lineDay,
      period_id: period.id,
      purpose: 'advance returned',
      source_id: 'X',
    };
    const rows = [
      {
        position: 1,
        account: item.account,
        coding: {},
        debit: 0,
        credit: 100,
        currency: 'KES',
        amount: -100,
        text: '',
      },
      { position: 2, account: '1010', coding: {}, debit: 100, credit: 0, currency: 'EUR', amount: 100, text: '' },
    ];
    const { kind, account, currency, person_id, source_kind, source_id } = item;
    const moves = [
      { position: 1, kind, account, currency, person_id, source_kind, source_id, amount: -100, ledger_amount: -100 },
    ];
    const args = [journal, rows, moves, []].map((arg) =>
      JSON.stringify(arg, (_k, v) => (typeof v === 'bigint' ? String(v) : v)),
    );
    await expect(
      api.owner.raw('select id from post_journal(?::jsonb, ?::jsonb, ?::jsonb, ?::jsonb, null)', args),
    ).rejects.toMatchObject({ code: 'EB009' });
    expect((await of.post('C-1003', { date: daysAgo(1) })).status).toBe(201);
  });
});

describe('today', () => {
  const ZONES = ['Pacific/Kiritimati', 'Asia/Tokyo', 'Europe/Dublin', 'Pacific/Pago_Pago'];
  it.each(ZONES)('is the day where the entity is, at the edges of the day: %s', async (zone) => {
    await api.owner('entities').where({ id: 'IE' }).update({ time_zone: zone });
    for (const hour of ['00:05', '09:59', '10:01', '11:05', '14:59', '15:01', '23:55']) {
      const at = new Date(`2026-06-15T${hour}:00Z`);
      const clock = { now: () => at };
      const day = localDate(at, zone);
      expect([hour, await entityToday(api.owner, clock, 'IE')]).toEqual([hour, day]);
      await api.owner('periods').where({ entity_id: 'IE' }).update({ state: 'open' });
      expect([hour, await proposedPostingDate(api.owner, clock, 'IE')]).toEqual([hour, day]);
    }
    await api.owner('entities').where({ id: 'IE' }).update({ time_zone: 'Europe/Dublin' });
  });
  it('where nothing is open that day is the end of the latest open period before, for a posting alone', async () => {
    const clock = { now: () => new Date() };
    const first = `${inDays(0).slice(0, 7)}-01`;
    await api.owner('periods').where({ entity_id: 'IE' }).update({ state: 'open' });
    await api.owner('periods').where({ entity_id: 'IE' }).where('to_date', '>=', first).update({ state: 'closed' });
    expect(await proposedPostingDate(api.owner, clock, 'IE')).toBe(addDays(first, -1));
    expect(await entityToday(api.owner, clock, 'IE')).toBe(localDate(new Date(), 'Europe/Dublin'));
    // whoever writes a draft then is not told that its lines are of later
    const number = await of.draft([of.line('9.00', { date: inDays(0) })]);
    expect(codes(await of.view(number, 'tomas'), '1').map(([code]: string[]) => code)).not.toContain(
      'date-after-submission',
    );
    await api.owner('periods').where({ entity_id: 'IE' }).update({ state: 'open' });
  });
  it('of a submission, a clearing and a hold is that of the entity', async () => {
    const zone = 'Pacific/Kiritimati';
    await api.owner('entities').where({ id: 'IE' }).update({ time_zone: zone });
    // 20:00 UTC is tomorrow there
    const at = new Date(`${inDays(0)}T20:00:00Z`);
    ahead = at.getTime() - Date.now();
    const there = addDays(inDays(0), 1);
    const number = await of.inReview([of.line('22.00')]);
    expect(await api.owner('claims').where({ number }).first('submitted_on', 'begun_on')).toEqual({
      submitted_on: there,
      begun_on: there,
    });
    expect((await of.view(number)).document.postingDate).toBe(there);
    expect((await of.view(number)).proposedDate).toBe(there);
    // a hold until the day it is there is over
    of.fine(await of.act('maeve', number, 'hold', { reason: 'Bank', until: there }));
    expect((await api.owner('claims').where({ number }).first('priority')).priority).not.toBe(2n);
    of.fine(await of.act('maeve', number, 'release'));
    expect((await of.clear(number)).status).toBe(200);
    ahead = 0;
    await api.owner('entities').where({ id: 'IE' }).update({ time_zone: 'Europe/Dublin' });
  });
});

describe('the date a posting would carry', () => {
  it('is that of today though the claim was assessed before', async () => {
    const number = await of.inReview([of.line('23.00')]);
    await api.owner.raw(
      `update assessments a set document = jsonb_set(a.document, '{postingDate}', to_jsonb(?::text)) from claims c where c.id = a.claim_id and c.number = ?`,
      [daysAgo(40), number],
    );
    const view = await of.view(number);
    expect([view.document.postingDate, view.proposedDate]).toEqual([
      daysAgo(40),
      localDate(new Date(), 'Europe/Dublin'),
    ]);
  });
});

describe('a waiver where rates are those of the posting', () => {
  it('holds on another day as well, and falls away where more than the rates changed', async () => {
    await api.owner('entity_terms').where({ entity_id: 'IE' }).update({ rate_date: 'posting' });
    const { rebuildBook } = await import('../../records/book/sharedBook.ts');
    await api.owner.transaction((trx) => rebuildBook(trx as never, 'IE'));
    const meal = { amount: { amount: '900.00', currency: 'GBP' }, category: 'lodging', country: 'GB', nights: 1 };
    const number = await of.inReview([of.line('', meal)]);
    const off = (view: any) =>
      view.ties.filter((t: any) => t.shown === 'off' || t.shown === 'open').map((t: any) => t.kind);
    expect(off(await of.view(number))).toContain('limit');
    expect((await of.clear(number)).status).toBe(200);
    // tomorrow the pound is another
    const yesterday = daysAgo(1);
    await api
      .owner('rates')
      .where({ to_currency: 'GBP', date: inDays(0) })
      .delete();
    await api
      .owner('rates')
      .insert({ from_currency: 'EUR', to_currency: 'GBP', date: inDays(0), rate: '0.7', source: 'test' });
    await assessAgain(api.services, onlyClaim(number));
    const view = await of.view(number);
    expect(view.marks.find((m: any) => m.kind === 'limit')).toMatchObject({ mark: 'waived' });
    expect(off(view)).toEqual([]);
    const { body } = await of.by.odd.get(`/claims/${number}/journal?date=${yesterday}`);
    expect(body.against).toBeNull();
    expect((await of.post(number, { date: yesterday })).status).toBe(201);
  });
  it('falls away where the claim itself is another, on whatever day', async () => {
    const meal = { amount: { amount: '900.00', currency: 'GBP' }, category: 'lodging', country: 'GB', nights: 1 };
    const number = await of.inReview([of.line('', meal)]);
    const waived = async () =>
      (await of.view(number)).marks.some((m: any) => m.kind === 'limit' && m.mark === 'waived');
    of.fine(await of.mark(number, { line: '1', kind: 'limit', mark: 'waived', reason: 'Agreed' }));
    expect(await waived()).toBe(true);
    of.fine(await of.correct(number, '1', { cut: { amount: '1.00', reason: 'Bar' } }));
    expect(await waived()).toBe(false);
  });
});
