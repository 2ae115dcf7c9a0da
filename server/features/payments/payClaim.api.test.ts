import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { actorOf } from '../../../demo/actors.ts';
import type { Actor, Context } from '../../platform/context.ts';
import { systemClock, today } from '../../platform/ports/clock.ts';
import { rebuildBook } from '../../records/book/sharedBook.ts';
import { clear, post, viewOf } from '../../../test/fixtures/acts.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { payClaim } from './payClaim.service.ts';

/** Payments have no route yet; the act is tried as a payment run will use it. */
let api: TestApi;
let maeve: Client;
let context: Context;
let controller: Actor;
const date = today(systemClock);
beforeAll(async () => {
  api = await startApi('payments');
  maeve = await api.as('maeve.tarrant');
  context = { db: api.app, clock: systemClock, jobs: { ask: async () => {} } };
  const odd = await api.as('odd.fjellheim');
  const { sid } = await api.owner('sessions').whereRaw(`sess ->> 'personId' = 'P03'`).first();
  controller = { ...actorOf('P03'), proof: sid };
  for (const number of ['C-1002', 'C-1014']) {
    await clear(maeve, number);
    expect((await post(odd, number)).status).toBe(201);
  }
});
afterAll(() => api.close());

const pay = async (number: string, amount: bigint | null, actor = controller) => {
  const { revision } = (await viewOf(maeve, number)).claim;
  return payClaim(context, actor, { number, revision, date, amount });
};
const openOf = async (number: string) => {
  const where = { source_kind: 'claim', source_id: `${number}/1`, kind: 'payable' };
  const { amount, ledger_amount } = await api.owner('open_items').where(where).first();
  return [-amount, -ledger_amount] as unknown as [bigint, bigint];
};
const stateOf = async (number: string) => (await viewOf(maeve, number)).claim.state;
const refused = async (attempt: Promise<unknown>, code: string) =>
  expect(await attempt.catch((error: { code: string }) => error.code)).toBe(code);

describe('paying a posted claim', () => {
  it('takes a part, then all that is left, each in a journal; nothing is open afterwards and nothing is paid twice', async () => {
    const [open] = await openOf('C-1014');
    const first = await pay('C-1014', 100n);
    expect([await stateOf('C-1014'), (await openOf('C-1014'))[0]]).toEqual(['part paid', open - 100n]);
    const second = await pay('C-1014', null);
    expect([await stateOf('C-1014'), ...(await openOf('C-1014'))]).toEqual(['paid', 0n, 0n]);
    const rows = await api.owner('journal_rows as r').join('journals as j', 'j.id', 'r.journal_id');
    const bank = rows.filter((r) => [first, second].includes(r.number) && r.account === '1010');
    expect(bank.map((r) => r.credit)).toEqual([100n, open - 100n]);
    await refused(pay('C-1014', null), 'wrong-state');
  });
  it('takes no part of nothing, of all or of more', async () => {
    const [open] = await openOf('C-1002');
    for (const amount of [0n, -1n, open, open + 1n]) await refused(pay('C-1002', amount), 'no-part');
    expect([await stateOf('C-1002'), (await openOf('C-1002'))[0]]).toEqual(['posted', open]);
  });
  it('needs a controller who is not the claimant', async () => {
    await refused(pay('C-1002', null, actorOf('P02')), 'not-allowed');
    const claimant = { ...controller, id: (await api.owner('claims').where({ number: 'C-1002' }).first()).claimant_id };
    await refused(pay('C-1002', null, claimant), 'own-record');
  });
  it('needs a rate of the day, and a bank account', async () => {
    await api.owner('claims').where({ number: 'C-1002' }).update({ currency: 'ISK' });
    await refused(pay('C-1002', null), 'no-rate');
    await api.owner('claims').where({ number: 'C-1002' }).update({ currency: 'JPY' });
    const accounts = api.owner.raw(`accounts - 'bank'`);
    await api.owner('entity_terms').where({ entity_id: 'JP' }).update({ accounts });
    await api.owner.transaction((trx) => rebuildBook(trx, 'JP'));
    await refused(pay('C-1002', null), 'no-account');
  });
});
