import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { clear, handIn, post, viewOf } from '../../../test/fixtures/acts.ts';
import { advanceActs, DAY, inDays } from '../../../test/fixtures/advances.ts';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';

let api: TestApi;
let { by, view, act, granted, paidOut } = {} as Awaited<ReturnType<typeof advanceActs>>;
beforeAll(async () => {
  api = await startApi('carried');
  ({ by, view, act, granted, paidOut } = await advanceActs(api));
});
afterAll(() => api.close());

/*
 * The whole life of an advance in a currency of three decimals, by hand. 1 EUR in BHD: 0.41 twenty days ago, 0.42 ten days
 * ago, 0.40 today. 500.000 BHD are paid out for 1,201.37 EUR.
 *   First claim, BHD 200.125: 200.125 / 0.41 = 488.11 EUR; unit for unit it takes 200.125, at 1,201.37 × 200.125 / 500.000 =
 *   480.85 (480.8483…); exchange gain 7.26. Left 299.875 and 720.52.
 *   Second claim, BHD 99.875 and EUR 50.00: 99.875 / 0.42 = 237.80; the 50.00 by today's rate are 20.000 BHD. It takes
 *   119.875, at 720.52 × 119.875 / 299.875 = 288.03 (288.0278…), for 287.80; exchange loss 0.23. Left 180.000 and 432.49.
 *   100.000 given back for 245.00: booked 432.49 × 100 / 180 = 240.27 (240.2722…), gain 4.73. Left 80.000 and 192.22.
 *   80.000 given back by today's rate, 200.00: gain 7.78. Left 0.000 and 0.00.
 */
describe('an advance in a currency of three decimals, from the request to zero', () => {
  const CODING = { costCentre: '430', fund: '10' };
  const line = (days: number, amount: string, currency: string) => ({
    ...{ date: inDays(days), amount: { amount, currency }, category: 'supplies', merchant: `Souq ${amount}` },
    coding: CODING,
  });
  async function postedClaim(number: string): Promise<any> {
    await handIn(by.tomas, number);
    const { revision } = (await viewOf(by.siobhan, number)).claim;
    await by.siobhan.post(`/claims/${number}/approve`, { revision });
    expect((await clear(by.maeve, number)).body.code).toBeUndefined();
    const posted = await post(by.odd, number, { date: DAY });
    expect(posted.body.code).toBeUndefined();
    return posted.body;
  }
  async function draft(lines: object[]): Promise<string> {
    const { number } = (await by.tomas.post('/drafts', { purpose: 'Manama', coding: CODING })).body;
    await by.tomas.post(`/drafts/${number}/lines`, { revision: 1, lines });
    return number;
  }
  const exchangeOf = async (journal: string) =>
    (await by.odd.get(`/journals/${journal}`)).body.rows
      .filter((r: any) => r.account === '7990')
      .map((r: any) => [r.debit, r.credit]);

  it('comes to exactly zero in both currencies, and opens again with a reversal', async () => {
    for (const [days, rate] of [
      [-20, '0.41'],
      [-10, '0.42'],
      [0, '0.40'],
    ] as const)
      await api
        .owner('rates')
        .insert({ from_currency: 'EUR', to_currency: 'BHD', date: inDays(days), rate, source: 'By hand' })
        .onConflict(['from_currency', 'to_currency', 'date'])
        .merge();
    const number = await granted(
      { amount: '600.000', currency: 'BHD' },
      { amount: '500.000', reason: 'Less is enough.' },
    );
    await act('odd', number, 'pay-out', { date: DAY, bank: '1201.37' });
    // both claims are begun before either is posted: each is set against the advance without being told
    const first = await draft([line(-20, '200.125', 'BHD')]);
    const second = await draft([line(-10, '99.875', 'BHD'), line(-3, '50.00', 'EUR')]);
    const { settlement, advances } = await viewOf(by.tomas, second);
    expect(settlement).toMatchObject({ claimed: '287.80', advances: '287.80', toPay: '0.00' });
    expect(advances).toMatchObject([
      { number, open: '500.000', paidOut: '500.000', accountedFor: '0.000', here: { upTo: null } },
    ]);

    const one = await postedClaim(first);
    expect(await exchangeOf(one.journal)).toEqual([['0.00', '7.26']]);
    expect((await view(number)).standing).toEqual({
      paidOut: { amount: '500.000', ledger: '1201.37' },
      accountedFor: { amount: '200.125', ledger: '480.85' },
      givenBack: { amount: '0.000', ledger: '0.00' },
      open: { amount: '299.875', ledger: '720.52' },
    });
    const two = await postedClaim(second);
    expect(await exchangeOf(two.journal)).toEqual([['0.23', '0.00']]);
    expect((await view(number)).standing.open).toEqual({ amount: '180.000', ledger: '432.49' });

    const part = await act('odd', number, 'give-back', { date: DAY, amount: '100.000', bank: '245.00' });
    expect(part.body.standing.open).toEqual({ amount: '80.000', ledger: '192.22' });
    expect(await exchangeOf(part.body.payments[1].journal)).toEqual([['0.00', '4.73']]);
    const last = await act('odd', number, 'give-back', { date: DAY, amount: '80.000' });
    expect(await exchangeOf(last.body.payments[2].journal)).toEqual([['0.00', '7.78']]);
    expect(last.body.advance).toMatchObject({ state: 'settled', open: { amount: '0.000', ledger: '0.00' } });
    expect(last.body.uses.map((u: any) => [u.claim, u.applied, u.ledger, u.posted])).toEqual([
      [first, '200.125', '480.85', true],
      [second, '119.875', '288.03', true],
    ]);
    const register = (await by.odd.get('/advances/register?entity=IE')).body;
    expect(register.rows.map((r: any) => r.number)).not.toContain(number);
    expect(register.entities[0].open).toBe(register.entities[0].balance);

    const reversed = await by.odd.post(`/journals/${two.journal}/reversal`, {
      ...{ date: DAY, reason: 'Wrong day' },
    });
    expect(reversed.body.code).toBeUndefined();
    const again = await view(number);
    expect(again.advance.state).toBe('paid out');
    expect(again.standing).toEqual({
      paidOut: { amount: '500.000', ledger: '1201.37' },
      accountedFor: { amount: '200.125', ledger: '480.85' },
      givenBack: { amount: '180.000', ledger: '432.49' },
      open: { amount: '119.875', ledger: '288.03' },
    });
    expect(again.uses.map((u: any) => u.claim)).toEqual([first]);
  });

  it('is paid out by the rate of the day the money went, not of the day somebody writes it down', async () => {
    await api.owner('periods').where({ entity_id: 'IE' }).update({ state: 'open' });
    const paid = async (date: string) => {
      const number = await granted({ amount: '123.456', currency: 'BHD' });
      const answer = await act('odd', number, 'pay-out', { date });
      expect(answer.body.code).toBeUndefined();
      return answer.body.standing.open.ledger;
    };
    // by hand: 123.456 / 0.41, / 0.42 and / 0.40, each rounded half up to the cent
    expect([await paid(inDays(-20)), await paid(inDays(-10)), await paid(DAY)]).toEqual(['301.11', '293.94', '308.64']);
  });

  it('is set against claims of its own entity alone, without being told', async () => {
    const number = await paidOut({ amount: '60.00' });
    const leilani = await api.as('leilani.kahue');
    const terms = { person: 'P05', entity: 'JP', currencies: ['JPY'] };
    const added = await leilani.post('/setup/payee-terms', {
      revision: 0,
      row: terms,
      validFrom: '2026-01-01',
      validTo: null,
    });
    expect(added.status).toBe(201);
    const begun = async (more: object) => {
      const { body } = await by.tomas.post('/drafts', { purpose: 'Tern count', coding: CODING, ...more });
      const { advances } = await viewOf(by.tomas, body.number);
      return advances.filter((a: any) => a.here).map((a: any) => a.number);
    };
    expect(await begun({})).toContain(number);
    expect(await begun({ entity: 'JP', currency: 'JPY' })).toEqual([]);
  });

  it('is taken off a claim, limited, and set in order; not one of somebody else', async () => {
    const number = await paidOut({ amount: '90.00' });
    const claim = await draft([line(-2, '70.00', 'EUR')]);
    const set = async (advances: object[]) => {
      const { revision } = (await viewOf(by.tomas, claim)).claim;
      return by.tomas.put(`/drafts/${claim}`, { revision, set: { advances } });
    };
    const upTo = async (wanted: object[]) => (await set(wanted)).body.settlement?.toPay;
    expect(await upTo([])).toBe('70.00');
    expect(await upTo([{ advance: number, upTo: '25.50' }])).toBe('44.50');
    expect(await upTo([{ advance: number, upTo: null }])).toBe('0.00');
    expect((await set([{ advance: 'A-031', upTo: null }])).body).toMatchObject({
      code: 'invalid',
      numbers: { path: 'set.advances.0.advance' },
    });
    expect(
      (
        await set([
          { advance: number, upTo: null },
          { advance: number, upTo: null },
        ])
      ).status,
    ).toBe(400);
    expect((await set([{ advance: number, upTo: '-1.00' }])).status).toBe(400);
    expect((await set([{ advance: number, upTo: '1.001' }])).status).toBe(400);
    const seen = (await viewOf(by.tomas, claim)).advances.find((a: any) => a.number === number);
    expect(seen.here).toEqual({ position: 0, upTo: null });
  });
});
