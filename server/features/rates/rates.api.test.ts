import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { claimsOfTomas, daysAgo } from '../../../test/fixtures/claimsOfTomas.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { assessAgain } from '../claims/reassess.service.ts';
import { useOfRate } from '../../records/claims/usesOf.ts';

/** A published rate that was entered wrongly is put right by two people; what was posted stays. */
let api: TestApi;
let of: Awaited<ReturnType<typeof claimsOfTomas>>;
let leilani: Client;
let other: Client;
let LEILANI: string;
beforeAll(async () => {
  api = await startApi('rates');
  of = await claimsOfTomas(api);
  leilani = of.by.leilani;
  await api.owner('budgets').update({ amount: 90_000_000 });
  await api.owner('person_roles').insert({ person_id: 'P04', role: 'administrator', entity_id: null });
  other = await api.as('noor.aldosari');
  LEILANI = (await api.owner('people').where({ email: 'leilani.kahue@saltmarsh.example' }).first('id')).id;
});
afterAll(() => api.close());

/** A day of the demo that has a rate, so many of them ago: none is published at weekends. */
const rated = async (ago: number): Promise<string> =>
  (
    await api
      .owner('rates')
      .where({ from_currency: 'EUR', to_currency: 'NOK' })
      .where('date', '<', daysAgo(1))
      .orderBy('date', 'desc')
      .offset(ago)
      .first('date')
  ).date;
const rateOf = async (date: string) =>
  (await api.owner('rates').where({ from_currency: 'EUR', to_currency: 'NOK', date }).first('rate'))?.rate;
const asking = (date: string, more: object = {}) => ({
  ...{
    from: 'EUR',
    to: 'NOK',
    date,
    becomes: '11.630',
    source: 'Norges Bank',
    reason: 'A digit was left out.',
    ...more,
  },
});

describe('a correction of a published rate', () => {
  it('is asked for by one and let be by another; open claims are assessed again, posted ones stay', async () => {
    const date = await rated(3);
    await api.owner('rates').where({ from_currency: 'EUR', to_currency: 'NOK', date }).delete();
    await api
      .owner('rates')
      .insert({ from_currency: 'EUR', to_currency: 'NOK', date, rate: '116.30', source: 'typed' });
    const kroner = { date, amount: { amount: '1163.00', currency: 'NOK' }, country: 'NO' };
    const posted = await of.inReview([of.line('', kroner)]);
    await of.clear(posted);
    expect((await of.post(posted)).status).toBe(201);
    const open = await of.inReview([of.line('', kroner)]);
    expect((await of.view(open)).assessment.settlement.due).toBe('10.00');

    const cleared = await of.inReview([of.line('', kroner)]);
    expect((await of.clear(cleared)).status).toBe(200);

    const asked = await leilani.post('/rate-corrections', asking(date));
    expect(asked.status).toBe(201);
    const [{ id, was, becomes, own }] = asked.body.corrections;
    expect([Number(was), becomes, own]).toEqual([116.3, '11.630', true]);
    expect(Number(await rateOf(date))).toBe(116.3);
    expect((await leilani.post(`/rate-corrections/${id}/confirm`, { revision: 1 })).body.code).toBe('own-record');
    expect((await of.by.maeve.post(`/rate-corrections/${id}/confirm`, { revision: 1 })).body.code).toBe('not-allowed');
    expect((await other.post(`/rate-corrections/${id}/confirm`, { revision: 4 })).body.code).toBe('stale');
    const done = await other.post(`/rate-corrections/${id}/confirm`, { revision: 1 });
    expect(done.body.corrections[0]).toMatchObject({ state: 'done', decidedBy: 'Noor Al-Dosari' });
    expect(Number(await rateOf(date))).toBe(11.63);
    expect((await other.post(`/rate-corrections/${id}/confirm`, { revision: 2 })).body.code).toBe('wrong-state');

    await assessAgain(api.services, useOfRate('NOK'));
    expect((await of.view(open)).assessment.settlement.due).toBe('100.00');
    expect((await of.view(posted)).assessment.settlement.due).toBe('10.00');
    // ten times what was approved goes back to who approves
    await api.owner('claims').where({ number: open }).update({ code_owners: [] });
    expect((await of.clear(open)).body.code).toBe('more-than-approved');
    // and what was cleared before is not posted either
    expect((await of.post(cleared)).body.code).toBe('ties-open');
    const events = await api.owner('events').where({ record_kind: 'rate correction', record_id: id }).orderBy('seq');
    expect(events.map((e: any) => [e.kind, e.actor_id, JSON.parse(e.facts).becomes])).toEqual([
      ['asked for', LEILANI, '11.630'],
      ['rate corrected', 'P04', '11.630'],
    ]);
  });
  it('is dropped by either, and the rate stays', async () => {
    const date = await rated(2);
    const before = await rateOf(date);
    const { corrections } = (await leilani.post('/rate-corrections', asking(date, { becomes: '12' }))).body;
    expect((await leilani.post('/rate-corrections', asking(date, { becomes: '13' }))).body.code).toBe(
      'changed-meanwhile',
    );
    expect((await leilani.post(`/rate-corrections/${corrections[0].id}/drop`, { revision: 1 })).status).toBe(200);
    expect(await rateOf(date)).toBe(before);
  });
  it('is refused without a reason, of a rate that is not there, and of what it is already', async () => {
    const date = await rated(1);
    expect((await leilani.post('/rate-corrections', asking(date, { reason: ' ' }))).status).toBe(400);
    expect((await leilani.post('/rate-corrections', asking(date, { becomes: '0' }))).status).toBe(400);
    expect((await leilani.post('/rate-corrections', asking('1999-01-04'))).body.code).toBe('not-found');
    expect(
      (await leilani.post('/rate-corrections', asking(date, { becomes: String(await rateOf(date)) }))).body.code,
    ).toBe('invalid');
  });
  it('is done past the two by nobody who has the application’s role', async () => {
    const date = (await api
      .owner('rates')
      .where({ from_currency: 'EUR', to_currency: 'NOK' })
      .max('date as at')
      .first())!.at;
    const [{ id }] = (await leilani.post('/rate-corrections', asking(date))).body.corrections;
    await expect(api.app.raw('update rates set rate = 1')).rejects.toMatchObject({ code: '42501' });
    const sid = (await api.owner('session_people').where({ person_id: LEILANI }).first()).sid;
    for (const proof of ['', 'made up', sid])
      await expect(api.app.raw('select correct_rate(?, ?, ?)', [id, 'P04', proof])).rejects.toMatchObject({
        code: 'EB007',
      });
    await expect(api.app.raw('select correct_rate(?, ?, ?)', [id, LEILANI, sid])).rejects.toMatchObject({
      code: '23001',
    });
    await expect(
      api.app.raw(`update rate_corrections set state = 'done', decided_by = 'P04', decided_at = now() where id = ?`, [
        id,
      ]),
    ).rejects.toMatchObject({ code: '23001' });
  });
});
