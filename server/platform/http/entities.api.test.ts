import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { clear, post } from '../../../test/fixtures/acts.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { statementOf } from '../../../standins/bank/book.ts';
import { writeCsv, writeMt940 } from '../../../standins/bank/write.ts';

/** Somebody of the Irish entity who holds every role of finance and administration, for Japan alone. */
let api: TestApi;
let tomas: Client;
let maeve: Client;
let leilani: Client;
beforeAll(async () => {
  api = await startApi('entities');
  const { id } = await api.owner('people').where({ email: 'tomas.brandao@saltmarsh.example' }).first();
  for (const role of ['reviewer', 'controller', 'auditor', 'administrator'])
    await api.owner('person_roles').insert({ person_id: id, role, entity_id: 'JP' });
  tomas = await api.as('tomas.brandao');
  maeve = await api.as('maeve.tarrant');
  leilani = await api.as('leilani.kahue');
});
afterAll(() => api.close());

const lines = (text: string) =>
  text
    .split('\n')
    .filter(Boolean)
    .map((line) => JSON.parse(line));

describe('a role for one entity', () => {
  it('opens the claims, journals and periods of that entity alone', async () => {
    const queue = (await tomas.get('/claims')).body;
    expect(new Set(queue.claims.map((c: any) => c.entity))).toEqual(new Set(['JP']));
    expect(queue.counts['in review']).toBe(queue.claims.length);
    expect((await tomas.get('/claims/C-1002')).body.audience).toBe('finance');
    expect((await tomas.get('/claims/C-1009')).status).toBe(404);
    const { revision } = (await maeve.get('/claims/C-1009')).body.claim;
    expect((await tomas.post('/claims/C-1009/clear', { revision })).status).toBe(404);
    const { periods } = (await tomas.get('/periods')).body;
    expect(new Set(periods.map((p: any) => p.entity))).toEqual(new Set(['JP']));
  });

  it('shows the journal that would be posted to finance of the entity, and to nobody of their own claim', async () => {
    const journal = async (who: Client, number: string) =>
      (await who.get(`/claims/${number}/journal?date=${new Date().toISOString().slice(0, 10)}`)).status;
    expect(await journal(tomas, 'C-1002')).toBe(200);
    expect(await journal(tomas, 'C-1009')).toBe(404);
    expect(await journal(maeve, 'C-1009')).toBe(200);
    expect(await journal(maeve, 'C-1007')).toBe(404);
  });

  it('exports its journals; a history of all entities is verified by an auditor of all', async () => {
    await clear(maeve, 'C-1002');
    expect((await post(await api.as('odd.fjellheim'), 'C-1002')).status).toBe(201);
    const journals = lines((await tomas.get('/journals.jsonl')).body);
    expect(new Set(journals.map((j) => j.entity))).toEqual(new Set(['JP']));
    for (const whole of ['/history.jsonl', '/words.jsonl'])
      expect((await tomas.get(whole)).body).toMatchObject({
        code: 'not-allowed',
        numbers: { needs: 'auditor of every entity' },
      });
    const auditor = await api.as('ottoline.marchbanks');
    expect(lines((await auditor.get('/history.jsonl')).body).length).toBeGreaterThan(100);
    expect(new Set(lines((await auditor.get('/journals.jsonl')).body).map((j) => j.entity))).toContain('IE');
  });
});

describe('statements of a card', () => {
  const month = (id: string, currency: string) =>
    statementOf({ cards: [{ id, currency, owed: 0 }], purchases: [] }, id, '2031-03-01', '2031-03-31');
  const give = async (text: string, name: string, options: object = {}) => {
    const form = new FormData();
    form.append('options', JSON.stringify(options));
    form.append('file', new Blob([text]), name);
    return (await tomas.send('POST', '/statements', form)).body;
  };
  const bought = { reference: 'E1', card: '4410', purchasedOn: '2031-03-02', bookedOn: '2031-03-02', settled: 500 };

  it('of another entity is as one that is not there, in a file and in a table', async () => {
    expect((await give(writeMt940(month('8803', 'JPY')), 'own.sta')).outcomes[0].state).toBe('imported');
    const [other] = (await give(writeMt940(month('4410', 'EUR')), 'other.sta')).outcomes;
    expect([other.state, other.says]).toEqual(['refused', expect.stringContaining('No card ends in 4410')]);
    const purchases = [{ ...bought, merchant: 'QUAY', country: 'IE', categoryCode: '5411' }];
    const book = { cards: [{ id: '4410', currency: 'EUR', owed: 0 }], purchases };
    const table = writeCsv(statementOf(book, '4410', '2031-03-01', '2031-03-31'));
    const { proposed } = await give(table, 't.csv');
    const mapping = { ...proposed, order: 'dmy' };
    expect((await give(table, 't.csv', { card: '4410', mapping })).code).toBe('not-found');
    expect(await api.owner('charges').where({ reference: 'E1' })).toEqual([]);
  });

  it('are listed for its entity, with what one brought oneself', async () => {
    const { statements } = (await tomas.get('/statements')).body;
    expect(new Set(statements.map((s: any) => s.card))).toEqual(new Set(['8803', null]));
    const all = (await maeve.get('/statements')).body.statements.map((s: any) => s.card);
    expect(new Set(all)).toEqual(new Set([...all, '4410', '8803']));
  });
});

describe('master data', () => {
  const rows = async (kind: string, who = tomas) => (await who.get(`/setup/${kind}`)).body.rows as any[];
  const add = (kind: string, row: object, revision = 0) => tomas.post(`/setup/${kind}`, { revision, row });
  const budget = (entity: string) => ({ entity, dimension: 'grant', code: 'G-118', category: null, amount: '900' });

  it('of other entities is not looked at; what all share is', async () => {
    for (const kind of ['people', 'budgets', 'periods', 'cards'])
      expect((await rows(kind)).filter((r) => r.row.entity !== 'JP')).toEqual([]);
    expect(await rows('categories')).toEqual(await rows('categories', leilani));
    const csv = (await tomas.get('/setup/people/rows.csv')).body as string;
    expect(csv).not.toContain('maeve.tarrant');
    const history = (key: string) => tomas.get(`/setup/people/history/${key}`);
    const [own] = await rows('people');
    const other = (await rows('people', leilani)).find((r) => r.row.entity === 'IE');
    expect([(await history(own.key[0])).status, (await history(other.key[0])).status]).toEqual([200, 404]);
  });

  it('of the entity is kept by its administrators, the rest by those of all', async () => {
    expect((await add('budgets', budget('JP'))).status).toBe(201);
    expect((await add('budgets', budget('IE'))).body.code).toBe('not-allowed');
    const rate = { from: 'GBP', to: 'JPY', date: '2026-01-05', rate: '190', source: 'By hand' };
    expect((await add('rates', rate)).body.code).toBe('not-allowed');
  });

  it('gives nobody a role beyond the entity whose administrator gives it', async () => {
    const role = (entity: string | null) => add('roles', { person: 'P08', role: 'controller', entity });
    expect((await role(null)).body.code).toBe('not-allowed');
    expect((await role('IE')).body.code).toBe('not-allowed');
    expect((await role('JP')).status).toBe(201);
  });

  it('is not taken over by naming another entity in a row', async () => {
    const [own] = await rows('people');
    expect((await add('people', { ...own.row, entity: 'IE' }, own.revision)).body.code).toBe('not-allowed');
    const other = (await rows('people', leilani)).find((r) => r.row.entity === 'IE');
    expect((await add('people', { ...other.row, entity: 'JP' }, other.revision)).body.code).toBe('not-allowed');
    // Not even whether a guessed row is right is told.
    expect((await add('people', other.row, other.revision)).body.code).toBe('not-allowed');
  });
});

describe('one’s own claim on the Desk', () => {
  it('says nothing of what finance thinks of it', async () => {
    const of = async (who: Client) => (await who.get('/claims')).body.claims.find((c: any) => c.number === 'C-1007');
    await api.owner('claims').where({ number: 'C-1007' }).update({ at_risk: 4200, asks: 2 });
    const ines = await api.as('ines.quadros');
    expect(await of(ines)).toMatchObject({ own: false, atRisk: '42.00', asks: 2 });
    expect(await of(maeve)).toMatchObject({ own: true, atRisk: null, ties: {}, stops: 0, asks: 0 });
  });
});
