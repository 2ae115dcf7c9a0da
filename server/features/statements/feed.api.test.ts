import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createReader } from '../../platform/outside/reader.ts';
import { bareServices } from '../../../test/fixtures/bareServices.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { statementOf, type Book } from '../../../standins/bank/book.ts';
import { createBank, passNight, type Bank, type Fault } from '../../../standins/bank/server.ts';
import { writeCamt053, writeCsv, writeMt940, writeOfx } from '../../../standins/bank/write.ts';
import { bankAt } from '../../platform/ports/bank.ts';
import { fetchFeed } from './feed.service.ts';

const buy = (n: number, on: string, settled: number, merchant = 'QUAY STORES') => ({
  reference: `T${n}`,
  card: '4410',
  purchasedOn: on,
  bookedOn: on,
  settled,
  merchant,
  country: 'IE',
  categoryCode: '5411',
});
const book = (): Book => ({
  cards: [{ id: '4410', currency: 'EUR', owed: 0, idle: true }],
  purchases: [
    buy(1, '2031-03-01', 500),
    buy(2, '2031-03-01', 500),
    buy(3, '2031-03-02', 700),
    buy(4, '2031-03-03', 900),
  ],
});

let api: TestApi;
let odd: Client;
let bank: Bank;
let server: ReturnType<typeof createBank>;
let url = '';
beforeAll(async () => {
  api = await startApi('feed');
  odd = await api.as('odd.fjellheim');
  bank = { book: book(), deliveries: [], fault: null };
  for (const day of ['2031-03-01', '2031-03-02']) passNight(bank, day);
  server = createBank(bank).listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(async () => {
  reader.close();
  server.close();
  await api.close();
});

const reader = createReader();
const services = () => ({ ...bareServices(api.app), reader, jobs: { ask: async () => {} } });
const run = async (fault: Fault | null) => {
  bank.fault = fault;
  await fetchFeed({ ...services(), bank: bankAt(url) });
};
const charges = async () =>
  (await api.owner('charges').where('booked_on', '>', '2031-01-01').orderBy('reference')).map((c) => c.reference);
const feedSays = async () => (await odd.get('/statements')).body.feed.says;
const give = (text: string, name: string, options: object = {}) => giveAs(odd, text, name, options);
const giveAs = async (person: Client, text: string, name: string, options: object = {}) => {
  const form = new FormData();
  form.append('options', JSON.stringify(options));
  form.append('file', new Blob([text]), name);
  return person.send('POST', '/statements', form);
};

describe('the nightly feed', () => {
  it('is not asked for where there is no bank', async () => {
    expect((await odd.post('/feed')).body.code).toBe('no-bank');
  });
  it('that is cut off in the middle, or states a wrong total, takes nothing and says so', async () => {
    await run('cut');
    expect([await charges(), await feedSays()]).toEqual([[], expect.stringContaining('broke off')]);
    await run('total');
    expect([await charges(), await feedSays()]).toEqual([[], expect.stringContaining('does not agree')]);
  });

  it('that comes late brings what is there, and the rest the next time', async () => {
    await run('late');
    expect(await charges()).toEqual(['T1', 'T2']);
    await run(null);
    expect([await charges(), await feedSays()]).toEqual([['T1', 'T2', 'T3'], null]);
  });

  it('that comes twice, or out of order, adds each charge once', async () => {
    passNight(bank, '2031-03-03');
    await run('disorder');
    await run('twice');
    await run(null);
    expect(await charges()).toEqual(['T1', 'T2', 'T3', 'T4']);
  });

  it('is imported once by two server processes at a time', async () => {
    bank.book.purchases.push(buy(5, '2031-03-04', 100));
    passNight(bank, '2031-03-04');
    await Promise.all([run(null), run(null)]);
    expect(await charges()).toEqual(['T1', 'T2', 'T3', 'T4', 'T5']);
  });

  it('whose bank cannot be reached leaves everything as it was', async () => {
    await fetchFeed({ ...services(), bank: bankAt('http://127.0.0.1:1') });
    expect(await feedSays()).toContain('connection to the bank broke off');
    expect(await charges()).toHaveLength(5);
  });
});

describe('a statement file', () => {
  const month = () => statementOf(bank.book, '4410', '2031-03-01', '2031-03-31');

  it('of what the feed brought adds nothing, in any format', async () => {
    for (const [text, name] of [
      [writeCamt053([month()], '2031-03-31T00:00:00'), 'm.xml'],
      [writeOfx(month()), 'm.ofx'],
      [writeMt940(month()), 'm.sta'],
    ] as const) {
      const { status, body } = await give(text, name);
      expect([status, body.outcomes[0].state, body.outcomes[0].added, body.outcomes[0].entries]).toEqual([
        200,
        'imported',
        0,
        5,
      ]);
    }
    expect((await give(writeMt940(month()), 'again.sta')).body.outcomes[0].state).toBe('there already');
  });

  it('as a table asks for its columns, remembers them, and adds only what is new', async () => {
    bank.book.purchases.push(buy(6, '2031-03-20', 1234, 'NEW "SHOP"; LTD'));
    const text = writeCsv(month());
    const first = await give(text, 'm.csv');
    expect(first.body).toMatchObject({
      kind: 'table',
      remembered: null,
      rows: 6,
      proposed: { date: 0, amount: 3, mark: ',' },
    });
    const mapping = { ...first.body.proposed, order: 'dmy' };
    const before = await api.owner('charges').count({ n: '*' }).first();
    const rehearsed = await give(`${text}30.02.2031;;X;1,00;;;;\r\n`, 'm.csv', {
      card: '4410',
      mapping,
      rehearse: true,
    });
    expect(rehearsed.body).toMatchObject({ kind: 'rehearsed', rows: 7, entries: 6, problems: [{ line: 8 }] });
    expect(rehearsed.body.first.length + rehearsed.body.last.length).toBe(6);
    expect(await api.owner('charges').count({ n: '*' }).first()).toEqual(before);
    expect((await give(text, 'm.csv')).body.remembered).toBeNull();
    const done = await give(`${text}30.02.2031;;X;1,00;;;;\r\n`, 'm.csv', { card: '4410', mapping });
    expect(done.body.outcomes[0]).toMatchObject({ state: 'imported', entries: 6, added: 1, known: 5 });
    expect(done.body.problems).toMatchObject([{ line: 8 }]);
    expect((await give(text, 'm.csv')).body).toMatchObject({
      kind: 'table',
      remembered: { by: 'Odd Fjellheim', card: '4410' },
      proposed: mapping,
    });
    expect(await api.owner('charges').where({ reference: 'T6' }).first('merchant')).toEqual({
      merchant: 'NEW "SHOP"; LTD',
    });
  });

  it('keeps the statement that is right when another in it is wrong', async () => {
    const wrong = { ...month(), owedAfter: 1 };
    const { body } = await give(
      writeCamt053([wrong, statementOf(bank.book, '4410', '2031-04-01', '2031-04-30')], '2031-05-01T00:00:00'),
      'two.xml',
    );
    expect(body.outcomes.map((o: { state: string }) => o.state)).toEqual(['refused', 'imported']);
    expect(body.outcomes[0].says).toContain('Nothing of it was taken');
  });

  it('of an unknown card, an empty file and a strange one each say what to do', async () => {
    const unknown = statementOf(
      { cards: [{ id: '9999', currency: 'EUR', owed: 0 }], purchases: [] },
      '9999',
      '2031-03-01',
      '2031-03-31',
    );
    expect((await give(writeMt940(unknown), 'u.sta')).body.outcomes[0].says).toContain('No card ends in 9999');
    expect((await give('', 'empty.csv')).body.says).toContain('The file is empty');
    expect((await give('hello', 'x.txt')).body.says).toContain('neither camt.053, OFX, MT940 nor a table');
  });
});

describe('what the bank said', () => {
  it('is changed by nobody', async () => {
    await expect(api.app('charges').where({ reference: 'T1' }).update({ amount: '1' })).rejects.toThrow(
      /cannot be changed/,
    );
    await expect(api.owner('charges').where({ reference: 'T1' }).delete()).rejects.toThrow(/cannot be changed/);
  });

  it('goes on with the other deliveries when one is no statement, or cannot be taken', async () => {
    bank.book.purchases.push(buy(6, '2031-03-06', 100));
    for (const day of ['2031-03-05', '2031-03-06']) passNight(bank, day);
    const good = bankAt(url);
    const bad = {
      ...good,
      fetch: (id: string) => (id.endsWith('05') ? Promise.resolve(Buffer.from('{')) : good.fetch(id)),
    };
    await fetchFeed({ ...services(), bank: bad });
    expect(await charges()).toContain('T6');
    expect(await feedSays()).toContain('2031-03-05: ');
    const broken = { ...good, fetch: () => Promise.reject(new Error('the library’s own words')) };
    await fetchFeed({ ...services(), bank: broken });
    expect(await feedSays()).toContain('2031-03-05: It could not be taken.');
  });
});

describe('somebody’s own card', () => {
  it('gets its statements from somebody else', async () => {
    await api.owner('person_roles').insert({ person_id: 'P05', role: 'controller' });
    const tomas = await api.as('tomas.brandao');
    const table = 'Date,Amount,Merchant\n2031-05-02,10.00,Quay\n2031-05-03,11.00,Pier';
    const mapping = { delimiter: ',', date: 0, amount: 1, merchant: 2, order: 'ymd', mark: '.', spent: 'positive' };
    const rest = { purchased: null, reference: null, originalAmount: null, originalCurrency: null, categoryCode: null };
    const form = new FormData();
    form.append('options', JSON.stringify({ card: '4433', mapping: { ...mapping, ...rest } }));
    form.append('file', new Blob([table]), 'own.csv');
    expect((await tomas.send('POST', '/statements', form)).body.code).toBe('own-record');
    const cards = [{ id: '4433', currency: 'EUR', owed: 0 }];
    const own = statementOf({ cards, purchases: [] }, '4433', '2031-05-01', '2031-05-31');
    const text = writeCamt053([own], '2031-06-01T00:00:00');
    const [outcome] = (await giveAs(tomas, text, 'own.xml')).body.outcomes;
    expect([outcome.state, outcome.says]).toEqual(['refused', expect.stringContaining('your own')]);
  });
});
