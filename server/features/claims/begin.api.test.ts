import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { handIn } from '../../../test/fixtures/acts.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

/** With what a claim is begun: as a copy, for another entity, in another currency, for somebody else. */
let api: TestApi;
let tomas: Client;
let hedda: Client;
let leilani: Client;
beforeAll(async () => {
  api = await startApi('begin');
  tomas = await api.as('tomas.brandao');
  hedda = await api.as('hedda.vestergaard');
  leilani = await api.as('leilani.kahue');
  const terms = (row: object, validTo: string | null = null) =>
    leilani.post('/setup/payee-terms', { revision: 0, row, validFrom: '2026-01-01', validTo });
  expect((await terms({ person: 'P05', entity: 'IE', currencies: ['GBP', 'JPY'] })).status).toBe(201);
  expect((await terms({ person: 'P05', entity: 'JP', currencies: ['JPY'] })).status).toBe(201);
  expect((await terms({ person: 'P09', entity: 'IE', currencies: ['USD'] }, '2026-01-31')).status).toBe(201);
});
afterAll(() => api.close());

const beginnings = async (who: Client, claimant?: string) =>
  who.get(`/drafts/beginnings${claimant ? `?claimant=${claimant}` : ''}`);
const view = async (number: string, who = tomas) => (await who.get(`/claims/${number}`)).body;
const begin = (fields: object, who = tomas) => who.post('/drafts', { purpose: 'Tern count', ...fields });

describe('where somebody is paid', () => {
  it('is their own entity and currency first, and what their terms of today add', async () => {
    const { payable } = (await beginnings(tomas)).body;
    expect(payable.map((p: any) => [p.entity, p.currencies])).toEqual([
      ['IE', ['EUR', 'GBP', 'JPY']],
      ['JP', ['JPY']],
    ]);
    const siobhan = (await beginnings(await api.as('siobhan.odowd'))).body;
    expect(siobhan.payable.map((p: any) => p.currencies)).toEqual([['EUR']]);
  });

  it('decides for which entity and in what a claim can be', async () => {
    const number = (await begin({ entity: 'IE', currency: 'GBP' })).body.number;
    expect((await view(number)).claim).toMatchObject({ entity: 'IE', currency: 'GBP' });
    for (const fields of [{ currency: 'USD' }, { entity: 'JP', currency: 'EUR' }, { entity: 'NO' }]) {
      const refused = await begin(fields);
      expect([refused.status, refused.body.code]).toEqual([422, 'not-payable-there']);
    }
    // the role of a claimant is theirs for Ireland alone
    await api.owner('person_roles').where({ person_id: 'P05', role: 'claimant' }).update({ entity_id: 'IE' });
    expect((await begin({ entity: 'JP', currency: 'JPY' })).body.code).toBe('not-allowed');
    await api.owner('person_roles').where({ person_id: 'P05', role: 'claimant' }).update({ entity_id: null });
    expect((await begin({ entity: 'JP', currency: 'JPY' })).status).toBe(201);
  });

  it('lets a claim in preparation change its currency, and nothing else', async () => {
    const { number } = (await begin({})).body;
    const line = { date: '2026-11-02', amount: { amount: '12.30', currency: 'EUR' }, category: 'meal' };
    await tomas.post(`/drafts/${number}/lines`, { revision: (await view(number)).claim.revision, lines: [line] });
    const set = async (currency: string) =>
      tomas.put(`/drafts/${number}`, { revision: (await view(number)).claim.revision, set: { currency } });
    const yen = await set('JPY');
    expect(yen.body.claim.currency).toBe('JPY');
    expect(yen.body.settlement).toMatchObject({ currency: 'JPY' });
    expect(yen.body.document.lines[0]).toMatchObject({ amount: '12.30', currency: 'EUR' });
    expect((await set('USD')).body.code).toBe('not-payable-there');
    await api
      .owner('claims')
      .where({ number })
      .update({ plan: JSON.stringify({ number: 'T-1', approvedOn: '2026-01-01', estimates: [] }) });
    expect((await set('EUR')).body.code).toBe('not-payable-there');
  });
});

describe('a claim as a copy', () => {
  const lines = [
    { date: '2026-11-03', amount: { amount: '40.00', currency: 'EUR' }, category: 'taxi', merchant: 'Quay cabs' },
    {
      date: '2026-11-04',
      amount: { amount: '30.01', currency: 'EUR' },
      category: 'supplies',
      tax: [{ code: 'IE-23' }],
    },
  ];
  async function source(): Promise<string> {
    const begun = await begin({
      purpose: 'October',
      tripFrom: '2026-11-02',
      coding: { costCentre: '420', fund: '10' },
    });
    const { number } = begun.body;
    await tomas.post(`/drafts/${number}/lines`, { revision: 1, lines });
    return number;
  }
  it('has the lines as they were typed, as many days later as the trip, and the coding', async () => {
    const copyOf = await source();
    const { number } = (await begin({ copyOf, tripFrom: '2026-11-12' })).body;
    const copy = (await view(number)).document;
    expect(copy.coding).toEqual({ costCentre: '420', fund: '10' });
    expect(copy.lines.map((l: any) => [l.date, l.amount, l.merchant, l.tax?.length ?? 0])).toEqual([
      ['2026-11-13', '40.00', 'Quay cabs', 0],
      ['2026-11-14', '30.01', null, 1],
    ]);
    const same = (await view((await begin({ copyOf })).body.number)).document;
    expect(same.lines.map((l: any) => l.date)).toEqual(['2026-11-03', '2026-11-04']);
    expect((await beginnings(tomas)).body.claims.slice(0, 3).map((c: any) => c.number)).toContain(copyOf);
  });
  it('leaves out what a card paid, what is private, and receipts', async () => {
    const copyOf = await source();
    const { id, version } = await api.owner('claims').where({ number: copyOf }).first('id', 'version');
    const at = { claim_id: id, version };
    const card = { paid_by: 'card', rate_kind: 'card', settled_amount: 4000, settled_currency: 'EUR' };
    await api
      .owner('lines')
      .where({ ...at, id: '1' })
      .update(card);
    const receipt = await api.owner('receipts').where({ owner_id: 'P05' }).first('id');
    await api
      .owner('lines')
      .where({ ...at, id: '2' })
      .update({ receipt_id: receipt.id });
    const copy = await view((await begin({ copyOf })).body.number);
    expect(copy.document.lines.map((l: any) => l.category)).toEqual(['supplies']);
    expect(copy.receipts).toEqual({});
  });
  it('is of one’s own: another person’s, or one for another claimant, is not there', async () => {
    const copyOf = await source();
    const siobhan = await api.as('siobhan.odowd');
    expect((await begin({ copyOf }, siobhan)).status).toBe(404);
    expect((await begin({ claimant: 'P99' }, hedda)).status).toBe(404);
    expect((await begin({ copyOf, claimant: 'P09' }, hedda)).status).toBe(404);
    expect((await begin({ copyOf, claimant: 'P05' }, hedda)).status).toBe(404);
    const made = (await begin({ claimant: 'P05' }, hedda)).body.number;
    expect((await begin({ copyOf: made, claimant: 'P09' }, hedda)).status).toBe(404);
    expect((await begin({ copyOf: made, claimant: 'P05' }, hedda)).status).toBe(201);
    const maeve = await api.as('maeve.tarrant');
    await handIn(tomas, copyOf);
    expect((await begin({ copyOf, claimant: 'P05' }, maeve)).status).toBe(404);
  });
});

describe('whoever prepares', () => {
  it('sees of others what they made for them, and nothing of people they may not prepare for', async () => {
    const made = (await begin({ claimant: 'P05' }, hedda)).body.number;
    const own = (await begin({})).body.number;
    const shown = (await beginnings(hedda, 'P05')).body.claims.map((c: any) => c.number);
    expect(shown[0]).toBe(made);
    expect(shown).not.toContain(own);
    expect((await beginnings(tomas, 'P09')).status).toBe(404);
    await api.owner('person_roles').where({ person_id: 'P13', role: 'preparer' }).update({ entity_id: 'JP' });
    const scoped = await beginnings(hedda, 'P05');
    const payees = (await hedda.get('/payees')).body.people.map((p: any) => p.id);
    await api.owner('person_roles').where({ person_id: 'P13', role: 'preparer' }).update({ entity_id: null });
    expect(scoped.status).toBe(404);
    expect(payees).toEqual(expect.arrayContaining(['P06', 'P07', 'P13']));
    expect(payees).not.toContain('P05');
  });
});

describe('a note for finance alone', () => {
  it('is read by its makers and by finance, never by its approver', async () => {
    const { number } = (await begin({ coding: { costCentre: '410', fund: '10' } })).body;
    const line = { date: '2026-11-02', amount: { amount: '12.30', currency: 'EUR' }, category: 'supplies' };
    await tomas.post(`/drafts/${number}/lines`, { revision: 1, lines: [line] });
    const set = { financeNote: 'My card was stolen.', note: 'As agreed.' };
    await tomas.put(`/drafts/${number}`, { revision: 2, set });
    expect((await view(number)).claim.financeNote).toBe('My card was stolen.');
    await handIn(tomas, number);
    const siobhan = await api.as('siobhan.odowd');
    const approver = await view(number, siobhan);
    expect([approver.audience, approver.claim.financeNote, approver.claim.note]).toEqual([
      'approver',
      null,
      'As agreed.',
    ]);
    expect((await view(number, await api.as('maeve.tarrant'))).claim.financeNote).toBe('My card was stolen.');
  });
});
