import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

/** Claims that people write themselves: header, lines, their order; and what of it is refused. */
let api: TestApi;
let tomas: Client;
let number: string;
beforeAll(async () => {
  api = await startApi('drafts');
  tomas = await api.as('tomas.brandao');
});
afterAll(() => api.close());
beforeEach(async () => {
  ({ number } = (await tomas.post('/drafts', { purpose: 'Tern count' })).body);
});

const view = async () => (await tomas.get(`/claims/${number}`)).body;
const revision = async () => (await view()).claim.revision as number;
const at = (path: string) => `/drafts/${number}${path}`;
const supplies = (fields = {}) => ({
  date: '2026-11-02',
  amount: { amount: '12.50', currency: 'EUR' },
  category: 'supplies',
  ...fields,
});
const write = async (...lines: object[]) => tomas.post(at('/lines'), { revision: await revision(), lines });
const edit = async (line: string, set: object) => tomas.put(at(`/lines/${line}`), { revision: await revision(), set });

describe('a claim begun from nothing', () => {
  it('is a draft of one’s own, in one’s currency, with a history', async () => {
    const { claim, document, history } = await view();
    expect(claim).toMatchObject({ state: 'draft', purpose: 'Tern count', currency: 'EUR' });
    expect([document.lines, history.map((e: any) => e.kind)]).toEqual([[], ['drafted']]);
    expect((await tomas.post('/drafts', { purpose: '  ' })).status).toBe(400);
    expect((await tomas.post('/drafts', { purpose: 'x', tripFrom: '2026-11-05', tripTo: '2026-11-04' })).status).toBe(
      400,
    );
  });

  it('has a header that changes, and days in their order', async () => {
    const set = { purpose: 'Tern and plover count', tripFrom: '2026-11-02', coding: { costCentre: '420', fund: '10' } };
    const { status, body } = await tomas.put(at(''), { revision: await revision(), set });
    expect([status, body.document.coding, body.document.from]).toEqual([200, set.coding, '2026-11-02']);
    const before = await tomas.put(at(''), { revision: await revision(), set: { tripTo: '2026-11-01' } });
    expect([before.status, before.body.code]).toEqual([400, 'invalid']);
    expect((await tomas.put(at(''), { revision: 1, set: { purpose: 'x' } })).body.code).toBe('stale');
  });

  it('is nobody else’s to write on', async () => {
    for (const other of ['siobhan.odowd', 'aoi.kuramochi', 'leilani.kahue', 'maeve.tarrant']) {
      const client = await api.as(other);
      const lines = [supplies()];
      expect((await client.post(at('/lines'), { revision: 1, lines })).status).toBeGreaterThanOrEqual(403);
      expect((await client.put(at(''), { revision: 1, set: { purpose: 'x' } })).status).toBeGreaterThanOrEqual(403);
      expect((await client.put(at('/order'), { revision: 1, order: ['1'] })).status).toBeGreaterThanOrEqual(403);
    }
  });
});

describe('lines that are written', () => {
  it('are added in their order with the next numbers, all or none', async () => {
    const { status, body } = await write(supplies({ merchant: 'Quay Stores' }), supplies({ paidBy: 'central' }));
    expect(status).toBe(200);
    expect(body.document.lines.map((l: any) => [l.id, l.paidBy, l.merchant])).toEqual([
      ['1', 'own', 'Quay Stores'],
      ['2', 'central', null],
    ]);
    const refused = await write(supplies(), supplies({ category: 'yacht' }));
    expect([refused.status, refused.body.code]).toEqual([400, 'invalid']);
    expect((await view()).document.lines).toHaveLength(2);
    const items = [
      { id: 'a', category: 'supplies', amount: '10.00' },
      { id: 'b', category: 'meal', amount: '2.50' },
    ];
    expect((await write(supplies({ category: null }))).status).toBe(400);
    const parted = (await write(supplies({ items }))).body.document.lines[2];
    expect([parted.category, parted.items.map((i: any) => i.amount)]).toEqual([null, ['10.00', '2.50']]);
    await tomas.send('DELETE', `${at('/lines/3')}?revision=${await revision()}`);
    await tomas.send('DELETE', `${at('/lines/2')}?revision=${await revision()}`);
    expect((await write(supplies())).body.document.lines.map((l: any) => l.id)).toEqual(['1', '4']);
  });

  it('change in every field, and are assessed', async () => {
    await write(supplies());
    const set = {
      date: '2026-11-03',
      amount: { amount: '123.00', currency: 'EUR' },
      merchant: 'Wexford Chandlery',
      description: 'Rope',
      country: 'IE',
      category: 'meal',
      coding: { project: 'TIDE-04' },
      tax: [{ code: 'IE-23' }],
      split: { by: 'equal', shares: [{ coding: { costCentre: '410' } }, { coding: { costCentre: '420' } }] },
    };
    const { body } = await edit('1', set);
    const [line] = body.document.lines;
    expect(line).toMatchObject({ ...set, amount: '123.00', currency: 'EUR', tax: [{ code: 'IE-23' }] });
    expect(body.amounts['1']).toBe('123.00');
    expect(body.history.at(-1).facts.fields.sort()).toEqual(Object.keys(set).sort());
  });

  it('compute their amount from a quantity until another is typed, and not across currencies', async () => {
    await write(supplies({ quantity: { count: '3', unitPrice: '33.333333' } }));
    expect((await view()).document.lines[0]).toMatchObject({ amount: '100.00', quantity: { count: '3' } });
    const more = await edit('1', { quantity: { count: '4', unitPrice: '2.25' } });
    expect(more.body.document.lines[0].amount).toBe('9.00');
    const typed = await edit('1', { amount: { amount: '900', currency: 'JPY' } });
    expect(typed.body.document.lines[0]).toMatchObject({ amount: '900', currency: 'JPY', quantity: null });
  });

  it('cannot be what is not known: decimals, days, countries, codes of the wrong kind, too many', async () => {
    for (const wrong of [
      { amount: { amount: '12.5', currency: 'EUR' } },
      { amount: { amount: '12.50', currency: 'XXX' } },
      { date: '2026-02-31' },
      { country: 'Ireland' },
      { paidBy: 'card' },
      { tax: [{ code: 'none' }] },
      { description: 'x'.repeat(301) },
    ])
      expect((await write(supplies(wrong))).status, JSON.stringify(wrong)).toBe(400);
    const many = Array.from({ length: 2001 }, () => supplies());
    expect((await write(...many)).status).toBe(400);
    expect((await view()).document.lines).toEqual([]);
  });

  it('stand in the order that is wanted, as long as it names them all', async () => {
    await write(supplies(), supplies(), supplies());
    const order = async (...ids: string[]) => tomas.put(at('/order'), { revision: await revision(), order: ids });
    expect((await order('3', '1', '2')).body.document.lines.map((l: any) => l.id)).toEqual(['3', '1', '2']);
    for (const wrong of [
      ['1', '2'],
      ['1', '2', '4'],
    ])
      expect((await order(...wrong)).body.code).toBe('order-other');
    expect((await order('1', '2', '2')).body.code).toBe('invalid');
  });

  it('keep what the bank said', async () => {
    const { charges } = (await tomas.get('/charges')).body;
    const { id } = charges.find((c: any) => c.state === 'open');
    const claim = { number, revision: await revision() };
    const take = [{ charge: id, category: 'supplies' }];
    expect((await tomas.post('/drafts/lines', { claim, take })).status).toBe(201);
    for (const set of [{ paidBy: 'own' }, { date: '2026-11-01' }, { quantity: { count: '1', unitPrice: '1' } }])
      expect((await edit('1', set)).body.code).toBe('bank-facts');
    expect((await edit('1', { description: 'For the hide' })).status).toBe(200);
  });
});
