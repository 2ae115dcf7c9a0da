import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { viewOf } from '../../../test/fixtures/acts.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

/** What a line can be divided by besides what is typed: the plan of its claim, and the person's earlier claims. */
let api: TestApi;
let maeve: Client;
beforeAll(async () => {
  api = await startApi('splits');
  maeve = await api.as('maeve.tarrant');
});
afterAll(() => api.close());

const splitsOf = async (number: string, who = maeve) => (await who.get(`/claims/${number}/splits`)).body;
const correct = async (number: string, line: string, split: unknown) => {
  const { claim } = await viewOf(maeve, number);
  return maeve.put(`/claims/${number}/lines/${line}`, { revision: claim.revision, set: { split } });
};

describe('shares of earlier claims', () => {
  it('are those of the same person, the latest first, each once, without amounts', async () => {
    const { earlier } = await splitsOf('C-1013');
    expect(earlier.length).toBeGreaterThan(0);
    for (const { claim, line, split } of earlier) {
      const other = await viewOf(maeve, claim);
      const found = other.document.claim.lines.find((l: any) => l.id === line);
      expect([other.claim.claimantId, found.split, split.by === 'amount']).toEqual(['P09', split, false]);
    }
    const words = earlier.map((e: any) => JSON.stringify(e.split));
    expect(new Set(words).size).toBe(words.length);
    expect((await splitsOf('C-1006')).earlier.some((e: any) => e.claim === 'C-1006')).toBe(false);
  });
  it('of somebody else are not offered', async () => {
    const heads = { by: 'weight', unit: 'heads', shares: ['1', '2'].map((value) => ({ coding: {}, value })) };
    const { claim } = await viewOf(maeve, 'C-1005');
    expect([claim.claimantId === 'P09', (await correct('C-1005', '1', heads)).status]).toEqual([false, 200]);
    expect((await splitsOf('C-1013')).earlier.map((e: any) => e.claim)).not.toContain('C-1005');
  });
  it('come once, and those by amount not at all', async () => {
    const before = (await splitsOf('C-1006')).earlier;
    const split = {
      by: 'equal',
      shares: ['410', '420'].map((costCentre) => ({ coding: { costCentre }, value: null })),
    };
    const { document } = await viewOf(maeve, 'C-1013');
    const [first, second] = document.claim.lines.filter((l: any) => !l.items?.length && !l.personal && !l.split);
    for (const line of [first, second]) expect((await correct('C-1013', line.id, split)).status).toBe(200);
    const after = (await splitsOf('C-1006')).earlier;
    expect(after.filter((e: any) => e.split.by === 'equal')).toHaveLength(1);
    const shares = [
      { coding: { costCentre: '410' }, value: '1.00' },
      { coding: {}, value: 'rest' },
    ];
    for (const line of [first, second])
      expect((await correct('C-1013', line.id, { by: 'amount', shares })).status).toBe(200);
    expect((await splitsOf('C-1006')).earlier).toEqual(before);
  });
  it('are for finance, and not for one’s own claim', async () => {
    expect((await (await api.as('siobhan.odowd')).get('/claims/C-1013/splits')).status).toBe(403);
    expect((await splitsOf('C-1007')).code).toBe('not-found');
  });
});

describe('shares of a plan', () => {
  it('stand in the proportion of what was estimated under each coding', async () => {
    expect((await splitsOf('C-1011')).plan).toBeNull();
    const { document } = await viewOf(maeve, 'C-1011');
    const { number, estimates } = document.claim.plan;
    const plan = await api.owner('plans').where({ number }).first('id', 'coding');
    const [first] = estimates;
    await api
      .owner('plan_estimates')
      .where({ plan_id: plan.id, id: first.id })
      .update({ coding: JSON.stringify({ fund: '70' }) });
    const { plan: split } = await splitsOf('C-1011');
    expect(split).toMatchObject({ by: 'weight', unit: document.claim.currency });
    expect(split.shares).toHaveLength(2);
    const other = split.shares.find((s: any) => s.coding.fund === '70');
    expect(other).toEqual({ coding: { ...plan.coding, fund: '70' }, value: first.amount });
    const sum = (amounts: string[]) => amounts.reduce((a, x) => a + Number(x), 0);
    expect(sum(split.shares.map((s: any) => s.value))).toBeCloseTo(sum(estimates.map((e: any) => e.amount)));
  });
});

describe('what weights count', () => {
  const days = { by: 'weight', unit: 'days', shares: ['12', '7.5'].map((value) => ({ coding: {}, value })) };
  const splitOf = async () => (await viewOf(maeve, 'C-1005')).document.claim.lines.find((l: any) => l.id === '1').split;
  it('is kept with the split, and goes with it', async () => {
    expect((await correct('C-1005', '1', days)).status).toBe(200);
    expect(await splitOf()).toEqual(days);
    expect(
      (await correct('C-1005', '1', { by: 'equal', shares: days.shares.map(() => ({ coding: {} })) })).status,
    ).toBe(200);
    expect((await splitOf()).unit).toBeUndefined();
  });
  it('is said of weights alone', async () => {
    const answer = await correct('C-1005', '1', { ...days, by: 'percent' });
    expect([answer.status, answer.body.says]).toEqual([400, expect.stringContaining('is for weights alone')]);
  });
});
