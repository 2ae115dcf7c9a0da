import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { statementOf, type Book } from '../../../standins/bank/book.ts';
import { writeCamt053 } from '../../../standins/bank/write.ts';

/** Imports that are taken back, and months that run by a card's cycle; in days that no other test looks at. */
let api: TestApi;
let maeve: Client;
let leilani: Client;
beforeAll(async () => {
  api = await startApi('takeback');
  maeve = await api.as('maeve.tarrant');
  leilani = await api.as('leilani.kahue');
});
afterAll(() => api.close());

const book: Book = { cards: [{ id: '4427', currency: 'EUR', owed: 0 }], purchases: [] };
function buy(reference: string, day: string, settled: number) {
  book.purchases.push({
    reference,
    card: '4427',
    purchasedOn: day,
    bookedOn: day,
    settled,
    merchant: 'QUAY STORES',
    country: 'IE',
    categoryCode: '5411',
  });
}
async function bring(from: string, to: string, by = maeve) {
  const form = new FormData();
  const text = writeCamt053([statementOf(book, '4427', from, to)], `${to}T23:00:00`);
  form.append('file', new Blob([text]), `${from}.xml`);
  return (await by.send('POST', '/statements', form)).body.outcomes[0];
}
const idOf = async (from: string, to: string) =>
  (await maeve.get('/statements')).body.statements.find(
    (s: { from: string; to: string; state: string }) => s.from === from && s.to === to && s.state === 'imported',
  )?.id;
const references = () => api.owner('charges').whereLike('reference', 'B%').orderBy('reference').pluck('reference');
const takeBack = (id: string, by = maeve) => by.post(`/statements/${id}/taken-back`, {});

describe('an import', () => {
  beforeAll(async () => {
    for (const [r, day, cents] of [
      ['B1', '2033-03-02', 500],
      ['B2', '2033-03-09', 600],
      ['B3', '2033-03-20', 700],
    ] as const)
      buy(r, day, cents);
    await bring('2033-03-01', '2033-03-10');
    await bring('2033-03-05', '2033-03-31');
  });

  it('that is taken back leaves what another statement tells of', async () => {
    const id = await idOf('2033-03-05', '2033-03-31');
    expect(await takeBack(id)).toMatchObject({ status: 200, body: { removed: 1 } });
    expect(await references()).toEqual(['B1', 'B2']);
    const { body } = await maeve.get('/statements');
    expect(body.statements.find((s: { id: string }) => s.id === id)).toMatchObject({ state: 'taken back', may: [] });
    expect((await takeBack(id)).body.code).toBe('wrong-state');
    const events = await api.owner('events').where({ record_kind: 'statement', record_id: id }).pluck('kind');
    expect(events).toEqual(['imported', 'import taken back']);
  });

  it('is brought again afterwards, once', async () => {
    expect(await bring('2033-03-05', '2033-03-31')).toMatchObject({ state: 'imported', added: 1, known: 1 });
    expect(await bring('2033-03-05', '2033-03-31')).toMatchObject({ state: 'there already' });
  });

  it('of which something is used stays, and says what', async () => {
    const id = await idOf('2033-03-05', '2033-03-31');
    const { id: charge } = await api.owner('charges').where({ reference: 'B3' }).first('id');
    const mark = (revision: number, reason: string | null) =>
      leilani.send('PUT', `/charges/${charge}/mark`, { revision, reason });
    expect((await mark(1, 'Petty cash')).status).toBe(200);
    const refused = await takeBack(id);
    expect([refused.status, refused.body.code, refused.body.numbers.uses]).toEqual([
      409,
      'import-used',
      '1 marked as claimed already',
    ]);
    expect((await mark(2, null)).status).toBe(200);
    const wish = { claim: null, purpose: 'Stores for the hide', take: [{ charge: String(charge) }] };
    const taken = await leilani.post('/drafts/lines', wish);
    expect(taken.status).toBeLessThan(300);
    expect((await takeBack(id)).body.numbers.uses).toBe(`on claim ${taken.body.number}`);
    expect(await references()).toEqual(['B1', 'B2', 'B3']);
  });

  it('is taken back by nobody for their own card, for another entity, or without the role', async () => {
    const id = await idOf('2033-03-01', '2033-03-10');
    expect((await takeBack(id, await api.as('leilani.kahue'))).status).toBe(403);
    expect((await takeBack(id, await api.as('aoi.kuramochi'))).status).toBe(403);
    await api.owner('cards').where({ id: '4427' }).update({ holder_id: 'P01' });
    expect((await takeBack(id)).body.code).toBe('own-record');
    await api.owner('cards').where({ id: '4427' }).update({ holder_id: 'P11' });
  });

  it('goes by no other way, for the owner of the tables neither', async () => {
    for (const db of [api.app, api.owner]) {
      await expect(db('charges').where({ reference: 'B1' }).delete()).rejects.toThrow(/cannot be changed/);
      await expect(db('statement_charges').delete()).rejects.toThrow(/stays/);
      await expect(db('statements').update({ name: 'x' })).rejects.toThrow(/stays as it came|permission denied/);
    }
  });
});

describe('a card whose statement closes within the month', () => {
  it('has months by its cycle, proved by the statements of those days', async () => {
    await api.owner('cards').where({ id: '4427' }).update({ closes_on: 24 });
    buy('C1', '2034-02-24', 100);
    buy('C2', '2034-02-25', 200);
    buy('C3', '2034-03-24', 300);
    await bring('2034-01-25', '2034-02-24');
    await bring('2034-02-25', '2034-03-24');
    const { cards } = (await maeve.get('/cards')).body;
    const card = cards.find((c: { id: string }) => c.id === '4427');
    expect(card.closesOn).toBe(24);
    expect(card.months.slice(0, 2)).toMatchObject([
      { month: '2034-03', charges: 2 },
      { month: '2034-02', charges: 1 },
    ]);
    const { body } = await maeve.get('/cards/4427/months/2034-03');
    expect([body.days, body.proof.spent]).toEqual([{ from: '2034-02-25', to: '2034-03-24' }, '5.00']);
    expect(body.proof.problems).toEqual(['the month ends on 2034-03-24', '2 charges are not accounted for']);
  });

  it('keeps its cycle while a month is closed', async () => {
    const month = { card_id: '4427', month: '2034-02', state: 'closed', closed_by: 'P02', closed_at: new Date() };
    await api.owner('card_months').insert(month);
    await expect(api.app('cards').where({ id: '4427' }).update({ closes_on: 20 })).rejects.toMatchObject({
      code: 'EB008',
    });
    const id = await idOf('2034-01-25', '2034-02-24');
    expect((await takeBack(id)).body.numbers.uses).toBe('in the closed month 2034-02');
  });
});
