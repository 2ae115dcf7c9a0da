import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

let api: TestApi;
let odd: Client;
beforeAll(async () => {
  api = await startApi('filter');
  odd = await api.as('odd.fjellheim');
});
afterAll(() => api.close());

interface Journal {
  number: string;
  entity: string;
  date: string;
  person: string;
  claim: string | null;
  reverses: string | null;
  reversedBy: string | null;
  currency: string;
  total: string;
}
const find = async (query: string) => (await odd.get(`/journals?${query}`)).body;
const all = async (): Promise<Journal[]> => (await find('')).journals;

describe('journals', () => {
  it('are found by entity, days, person and number', async () => {
    const [one] = await all();
    const of = async (query: string) => (await find(query)).journals as Journal[];
    for (const journal of await of(`entity=${one!.entity}`)) expect(journal.entity).toBe(one!.entity);
    for (const journal of await of(`from=${one!.date}&to=${one!.date}`)) expect(journal.date).toBe(one!.date);
    expect((await of(`from=${one!.date}&to=${one!.date}`)).length).toBeGreaterThan(0);
    for (const journal of await of(`q=${encodeURIComponent(one!.person.slice(0, 5))}`))
      expect(journal.person).toContain(one!.person.slice(0, 5));
    expect((await of(`q=${one!.number}`)).map((j) => j.number)).toEqual([one!.number]);
    expect(await of('q=%25')).toEqual([]);
    expect((await odd.get('/journals?from=2026-02-31')).status).toBe(400);
  });

  it('are told apart by whether they stand', async () => {
    const journals = await all();
    const names = (list: Journal[]) => list.map((j) => j.number);
    const of = async (state: string) => names((await find(`state=${state}`)).journals);
    expect(await of('reversals')).toEqual(names(journals.filter((j) => j.reverses)));
    expect(await of('reversed')).toEqual(names(journals.filter((j) => j.reversedBy)));
    expect(await of('standing')).toEqual(names(journals.filter((j) => !j.reverses && !j.reversedBy)));
    expect(journals.some((j) => j.reverses)).toBe(true);
  });

  it('stand by date where that is asked for, each once over the pages', async () => {
    const dates = (await find('order=date')).journals.map((j: Journal) => j.date);
    expect(dates).toEqual([...dates].sort().reverse());
    const [first] = await api
      .owner('journals')
      .orderBy([
        { column: 'date', order: 'desc' },
        { column: 'id', order: 'desc' },
      ])
      .limit(1);
    const rest = (await find(`order=date&before=${first.id}`)).journals;
    expect(rest.map((j: Journal) => j.number)).not.toContain(first.number);
    expect(rest).toHaveLength(dates.length - 1);
  });

  it('come with what all of them come to, by currency', async () => {
    const { journals, totals } = await find('state=standing');
    for (const { currency, journals: count, amount } of totals) {
      const same = (journals as Journal[]).filter((j) => j.currency === currency);
      const sum = same.reduce((a, j) => a + BigInt(j.total.replace('.', '')), 0n);
      expect([count, amount.replace('.', '')]).toEqual([same.length, String(sum)]);
    }
  });

  it('of other entities are not found by whoever may not see them', async () => {
    const { body } = await (await api.as('maeve.tarrant')).get('/journals?entity=NO');
    const { entities } = body;
    if (!entities.includes('NO')) expect(body.journals).toEqual([]);
    for (const journal of body.journals) expect(entities).toContain(journal.entity);
  });
});
