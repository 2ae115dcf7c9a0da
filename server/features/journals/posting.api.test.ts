import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Db } from '../../platform/db/connect.ts';
import { systemClock } from '../../platform/ports/clock.ts';
import { rebuildBook } from '../../records/book/sharedBook.ts';
import { clear as clearAs, mark as markAs, post, ownersAgree } from '../../../test/fixtures/acts.ts';
import { startApi, type Answer, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { assessAgain } from '../claims/reassess.service.ts';

let api: TestApi;
let maeve: Client;
let odd: Client;
beforeAll(async () => {
  api = await startApi('posting');
  [maeve, odd] = [await api.as('maeve.tarrant'), await api.as('odd.fjellheim')];
  for (const number of ['C-1003', 'C-1012', 'C-1013']) await clear(number);
  expect((await post(odd, 'C-1003')).status).toBe(201);
});
afterAll(() => api.close());

const view = async (number: string) => (await maeve.get(`/claims/${number}`)).body;
const clear = async (number: string) => expect((await clearAs(maeve, number)).status).toBe(200);

describe('posting again looks at everything', () => {
  it('and refuses a claim that no longer could be cleared', async () => {
    const rule = { severity: 'stop', require: ['spendType'], says: 'A spend type is needed.' };
    await api.owner('coding_rules').insert({ id: 'late-rule', rule: JSON.stringify(rule) });
    await api.owner.transaction((trx) => rebuildBook(trx, 'IE'));
    expect((await post(odd, 'C-1013')).body).toMatchObject({ code: 'has-stops' });
    await api.owner('coding_rules').where({ id: 'late-rule' }).delete();
    await api.owner.transaction((trx) => rebuildBook(trx, 'IE'));
  });
  /** Another claim under review with a line as one of a claim's, so that the two are duplicates. */
  async function addTwin(number: string, of: string) {
    const line = await api
      .owner('lines')
      .whereRaw('claim_id = (select id from claims where number = ?)', [of])
      .orderBy('position')
      .first();
    const { entity_id } = await api.owner('claims').where({ number: of }).first();
    const [other] = await api
      .owner('claims')
      .insert({
        number,
        entity_id,
        claimant_id: 'P10',
        preparer_id: 'P10',
        currency: 'EUR',
        state: 'in review',
        purpose: 'Twin',
        begun_on: line.date,
        submitted_on: line.date,
        submitted_version: 1,
      })
      .returning('id');
    const key = { claim_id: other.id, version: 1 };
    await api.owner('claim_versions').insert(key);
    const { date, category, amount, currency, merchant } = line;
    const copy = { date, category, amount, currency, merchant };
    await api.owner('lines').insert({ ...key, ...copy, id: '1', position: 0, paid_by: 'own' });
    return line.id as string;
  }
  const takeBack = (number: string) => api.owner('claims').where({ number }).update({ state: 'declined' });

  it('and refuses a comparison that is off by now and was never waived', async () => {
    const line = await addTwin('X-TWIN', 'C-1013');
    const { body } = await post(odd, 'C-1013');
    expect(body).toMatchObject({ code: 'ties-open', numbers: { cells: `line ${line} duplicate` } });
    await takeBack('X-TWIN');
  });
  it('and refuses one that was waived when there was less to it', async () => {
    const line = await addTwin('X-ONE', 'C-1002');
    await assessAgain({ db: api.app, clock: systemClock }, 'only:C-1002');
    await clear('C-1002');
    await addTwin('X-TWO', 'C-1002');
    const { body } = await post(odd, 'C-1002');
    expect(body).toMatchObject({ code: 'ties-open', numbers: { cells: `line ${line} duplicate` } });
    await takeBack('X-TWO');
    expect((await post(odd, 'C-1002')).status).toBe(201);
  });
  it('refuses a line charged to an account that only payments move', async () => {
    const { claim } = await view('C-1005');
    const set = { coding: { account: '2110' } };
    const corrected = await maeve.put('/claims/C-1005/lines/1', { revision: claim.revision, set });
    expect(corrected.status).toBe(200);
    const refused = await clearAs(maeve, 'C-1005');
    expect(refused.body).toMatchObject({ code: 'control-account', numbers: { account: '2110', line: '1' } });
  });
});

/** Starts a request while another transaction is open, and ends that one as soon as the request waits for it. */
async function meanwhile(
  change: (trx: Db) => Promise<unknown>,
  request: () => Promise<Answer>,
  whileWaiting: (trx: Db) => Promise<unknown> = async () => {},
): Promise<Answer> {
  let pending: Promise<Answer> | undefined;
  await api.owner.transaction(async (trx) => {
    await change(trx as unknown as Db);
    let answered = false;
    pending = request().finally(() => (answered = true));
    while (!answered && !(await isSomebodyWaiting())) await new Promise((resolve) => setTimeout(resolve, 20));
    expect(answered).toBe(false);
    await whileWaiting(trx as unknown as Db);
  });
  return pending!;
}

async function isSomebodyWaiting(): Promise<boolean> {
  const { rows } = await api.app.raw(
    `select 1 from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'`,
  );
  return rows.length > 0;
}

describe('what another transaction has taken by the time it is done counts', () => {
  const budget = () => api.owner('budgets').where({ code: 'G-118', entity_id: 'IE' });
  const spend = (amount: number) => (trx: Db) => trx('budgets').update({ amount });

  it('of a budget, for clearing and for posting', async () => {
    const { claim } = await view('C-1012');
    if (claim.state === 'cleared') await maeve.post('/claims/C-1012/reopen', { revision: claim.revision });
    const now = await view('C-1012');
    await maeve.put('/claims/C-1012/lines/1', {
      revision: now.claim.revision,
      set: { coding: { grant: 'G-118', fund: '20' } },
    });
    await ownersAgree(api, 'C-1012');
    await budget().update({ amount: 100_000_000 });
    const { ties } = await view('C-1012');
    for (const { line, kind } of ties.filter((t: any) => t.shown === 'off' || t.shown === 'open'))
      await markAs(maeve, 'C-1012', { line, kind, mark: 'waived', reason: 'Agreed' });
    const { revision } = (await view('C-1012')).claim;
    const clearing = () => maeve.post('/claims/C-1012/clear', { revision });
    expect((await meanwhile(spend(0), clearing)).body.code).toBe('has-stops');
    expect((await meanwhile(spend(100_000_000), clearing)).status).toBe(200);
    const held = await budget().first();
    expect(held.cleared > 0n).toBe(true);

    const { document, digest, claim: cleared } = await view('C-1012');
    const asked = { revision: cleared.revision, date: document.postingDate, digest };
    const posting = () => odd.post('/claims/C-1012/post', asked);
    expect((await meanwhile(spend(0), posting)).body.code).toBe('has-stops');
    expect((await meanwhile(spend(100_000_000), posting)).status).toBe(201);
    const posted = await budget().first();
    expect([posted.cleared, posted.posted]).toEqual([0n, held.cleared]);
  });

  it('of an advance, for posting; a reversal waits for it before it takes a number', async () => {
    const lock = (trx: Db) =>
      trx.raw(`select 1 from open_items where kind = 'staff advance' and source_id = 'A-031' for update`);
    const take = (trx: Db) =>
      trx.raw(`update open_items set amount = 100 where kind = 'staff advance' and source_id = 'A-031'`);
    const { number } = (await view('C-1003')).journals.findLast((j: any) => j.live);
    const reversal = { date: new Date().toISOString().slice(0, 10), reason: 'Lock' };
    const takeNumber = (trx: Db) => trx.raw(`select 1 from journal_numbers where entity_id = 'IE' for update nowait`);
    const reversed = await meanwhile(lock, () => odd.post(`/journals/${number}/reversal`, reversal), takeNumber);
    expect(reversed.status).toBe(201);

    const { claim } = await view('C-1003');
    await maeve.post('/claims/C-1003/reopen', { revision: claim.revision });
    await clear('C-1003');
    const { document, digest, claim: cleared } = await view('C-1003');
    const asked = { revision: cleared.revision, date: document.postingDate, digest };
    const whole = (await api.owner('open_items').where({ kind: 'staff advance', source_id: 'A-031' }).first())!.amount;
    const late = await meanwhile(take, () => odd.post('/claims/C-1003/post', asked));
    expect(late.body.code).toBe('figures-changed');
    await api.owner('open_items').where({ kind: 'staff advance', source_id: 'A-031' }).update({ amount: whole });
    expect((await post(odd, 'C-1003')).status).toBe(201);
  });
});
