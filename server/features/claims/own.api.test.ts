import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { parse } from 'csv-parse/sync';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

/** A person's own claims as they are listed and as a file. */
let api: TestApi;
let tomas: Client;
beforeAll(async () => {
  api = await startApi('own');
  tomas = await api.as('tomas.brandao');
});
afterAll(() => api.close());

const listed = async () => (await tomas.get('/claims/own')).body.claims as any[];
const file = async (query = '', who = tomas) =>
  parse((await who.get(`/claims/own.csv?${query}`)).body as string, { bom: true, columns: true }) as any[];
const numbers = (rows: any[]) => rows.map((row) => row.number);

describe('one’s own claims', () => {
  it('are those one makes or has made, in a file as in the list, and nobody else’s', async () => {
    const own = await listed();
    expect(numbers(await file())).toEqual(numbers(own));
    const ids = await api
      .owner('claims')
      .where({ claimant_id: 'P05' })
      .orWhere({ preparer_id: 'P05' })
      .select('number');
    for (const { number } of own) expect(numbers(ids)).toContain(number);
    expect(numbers(await file('', await api.as('wanjiru.mbaya')))).not.toContain(numbers(own)[0]);
  });
  it('are narrowed by words and by the year they were handed in', async () => {
    const [some] = (await listed()).filter((claim) => claim.submittedOn);
    const word = some.purpose.split(' ')[0].toLowerCase();
    expect(numbers(await file(`q=${word} ${some.number}`))).toEqual([some.number]);
    const year = some.submittedOn.slice(0, 4);
    const ofYear = (await listed()).filter((c) => !c.submittedOn || c.submittedOn.startsWith(year));
    expect(numbers(await file(`year=${year}`))).toEqual(numbers(ofYear));
    expect(numbers(await file('year=1999'))).toEqual(numbers((await listed()).filter((c) => !c.submittedOn)));
    expect((await tomas.get('/claims/own.csv?year=20')).status).toBe(400);
  });
  it('hold no formula that a spreadsheet would work out', async () => {
    await tomas.post('/drafts', { purpose: '=1+1' });
    expect((await file()).map((row) => row.purpose)).toContain("'=1+1");
  });
  it('say whose decision they wait for', async () => {
    const waiting = await api
      .owner('claims')
      .where({ state: 'with approver' })
      .first('number', 'claimant_id', 'deciders');
    const { email } = await api.owner('people').where({ id: waiting.claimant_id }).first('email');
    const claimant = await api.as(email.split('@')[0]);
    const { claims } = (await claimant.get('/claims/own')).body;
    const names = await api.owner('people').whereIn('id', waiting.deciders).orderBy('name').pluck('name');
    expect(claims.find((c: any) => c.number === waiting.number).waitsFor).toEqual(names);
  });
});
