import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { draftOfReceipt } from '../../../test/fixtures/gathering.ts';
import { claimsOfTomas, daysAgo } from '../../../test/fixtures/claimsOfTomas.ts';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';

/** What is compared while a claim is written, as the reviewer will see it, and what of others it must not tell. */
let api: TestApi;
let of: Awaited<ReturnType<typeof claimsOfTomas>>;
beforeAll(async () => {
  api = await startApi('claims_differs');
  of = await claimsOfTomas(api);
});
afterAll(() => api.close());

const differs = async (number: string, who = of.by.tomas) => {
  const { body } = await who.get(`/claims/${number}`);
  expect(body.audience).toBe('claimant');
  return body.differs.map((d: any) => ({ ...d, comparisons: d.comparisons.map((c: any) => [c.claimed, c.evidence]) }));
};
const coffee = (more: object = {}) =>
  of.line('18.40', { merchant: 'Ferrybank Coffee', category: 'meal', date: daysAgo(3), ...more });

describe('what a claimant reads while they write', () => {
  it('is that the paper says another amount than its line, until the line says it too', async () => {
    const { number } = await draftOfReceipt(api, of.by.tomas, '84.00');
    expect(await differs(number)).toEqual([]);
    const amount = async (value: string) =>
      of.fine(
        await of.by.tomas.put(`/drafts/${number}/lines/1`, {
          revision: await of.revisionOf(number),
          set: { amount: { amount: value, currency: 'EUR' } },
        }),
      );
    await amount('60.00');
    expect(await differs(number)).toEqual([{ line: '1', kind: 'receipt', comparisons: [['60.00', '84.00']] }]);
    await amount('84.00');
    expect(await differs(number)).toEqual([]);
  });

  it('is that a line looks like another of the same claim, or of a claim of theirs that went out', async () => {
    const { number: twice } = await draftOfReceipt(api, of.by.tomas, '18.40');
    const same = of.line('18.40', { merchant: 'Gather Cafe', date: '2026-03-02', category: 'meal' });
    of.fine(await of.by.tomas.post(`/drafts/${twice}/lines`, { revision: await of.revisionOf(twice), lines: [same] }));
    expect((await differs(twice)).map((d: any) => [d.line, d.kind])).toEqual([
      ['1', 'duplicate'],
      ['2', 'duplicate'],
    ]);
    const sent = await of.submitted([coffee({ merchant: 'Quayside Bakery' })]);
    const again = await of.draft([coffee({ merchant: 'Quayside Bakery' })]);
    const [only, ...more] = (await of.by.tomas.get(`/claims/${again}`)).body.differs;
    expect([more, only.kind, only.comparisons.map((c: any) => c.fact)]).toEqual([
      [],
      'duplicate',
      [`claim ${sent}, line 1, Tomás Brandão`],
    ]);
  });

  it('is nothing of the claims of others, nor for who prepares of claims they did not make', async () => {
    const meal = coffee({ merchant: 'Ballast Bakery' });
    await of.submitted([meal]);
    const hedda = await api.as('hedda.vestergaard');
    const prepared = async (whose: { claimant?: string }) => {
      const coding = { costCentre: '430', fund: '10' };
      const made = of.fine(await hedda.post('/drafts', { purpose: 'Bread', coding, ...whose }));
      of.fine(await hedda.post(`/drafts/${made.number}/lines`, { revision: 1, lines: [meal] }));
      return made.number as string;
    };
    const { id: tomas } = await api.owner('people').where({ email: 'tomas.brandao@saltmarsh.example' }).first('id');
    // its own claimant made both; who prepares one of them did not make the other
    const forTomas = await prepared({ claimant: tomas });
    expect((await differs(forTomas, hedda)).length).toBe(0);
    expect((await differs(forTomas)).map((d: any) => d.kind)).toEqual(['duplicate']);
    expect(await differs(await prepared({}), hedda)).toEqual([]);
  });
});
