import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { claimsOfTomas, daysAgo } from '../../../test/fixtures/claimsOfTomas.ts';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';
import { assessAgain } from './reassess.service.ts';
import { useOfDriven } from '../../records/claims/usesOf.ts';

/** Tiers of mileage: what was driven before is decided when a claim is cleared, and again when it is posted. */
let api: TestApi;
let of: Awaited<ReturnType<typeof claimsOfTomas>>;
beforeAll(async () => {
  api = await startApi('driven');
  of = await claimsOfTomas(api);
  await api.owner('budgets').update({ amount: 90_000_000 });
  // nothing of the demo's own
  await api.owner.raw(`update lines set journey = null where journey is not null`);
});
afterAll(() => api.close());

const drive = (distance: string, ago: number) => {
  const { amount: _, ...line } = of.line('0.00', { category: 'mileage', date: daysAgo(ago) });
  return { ...line, amount: { amount: '1.00', currency: 'EUR' }, journey: { vehicle: 'car', distance, unit: 'km' } };
};
const limitOf = (view: any) => view.ties.find((t: any) => t.line === '1' && t.kind === 'limit');
const journeyOf = (view: any) => (view.document.claim ?? view.document).lines[0].journey;
/** 0.42 a kilometre to 5,000 and 0.24 beyond, in cents and tenths of a kilometre: the plain way. */
const worth = (before: number, km: number): string => {
  const cheap = Math.max(0, Math.min(km, before + km - 5000));
  return ((km - cheap) * 0.42 + cheap * 0.24).toFixed(2);
};

describe('what was driven before', () => {
  it('counts at clearing: of two claims the second one let through is less', async () => {
    const first = await of.inReview([drive('4900', 9)]);
    const second = await of.inReview([drive('300', 5)]);
    expect(journeyOf(await of.view(second)).before).toBe('0');
    expect((await of.view(second)).document.claim.lines[0].amount).toBe(worth(0, 300));
    expect(limitOf(await of.view(second)).shown).toBe('tied');
    expect((await of.clear(first)).status).toBe(200);
    await assessAgain(api.services, useOfDriven('P05'));
    const off = limitOf(await of.view(second));
    expect(off.shown).toBe('off');
    const excess = (Number(worth(0, 300)) - Number(worth(4900, 300))).toFixed(2);
    expect(off.difference).toBe(`+${excess}`);
    expect(JSON.stringify(off.comparisons)).toContain('4900 km');
    // allowed less, it is tied
    of.fine(await of.correct(second, '1', { cut: { amount: excess, reason: 'The tier is used up' } }));
    expect(limitOf(await of.view(second)).shown).toBe('tied');
    expect((await of.clear(second)).status).toBe(200);
  });
  it('is looked at again at posting', async () => {
    const number = await of.inReview([drive('50', 3)]);
    const before = Number(journeyOf(await of.view(number)).before);
    expect(before).toBe(5200);
    expect((await of.clear(number)).status).toBe(200);
    // another claim of his is let through meanwhile, and this one taken back: what stood before it is more now
    await api.owner.raw(
      `update lines set journey = jsonb_set(journey, '{distance}', '"10"') where journey ->> 'distance' = '4900'`,
    );
    const less = await of.by.odd.get(`/claims/${number}/journal?date=${(await of.view(number)).proposedDate}`);
    // less before it makes it worth more, which nobody claims
    expect(less.body.against).toBeNull();
    expect((await of.post(number)).status).toBe(201);
  });
  it('counts drafts of nobody, and what was reversed no longer', async () => {
    await of.draft([drive('4000', 8)]);
    const next = await of.draft([drive('10', 2)]);
    expect(journeyOf(await of.view(next, 'tomas')).before).toBe('360');
  });
  it('two claims let through at once are counted one after the other', async () => {
    await api.owner.raw(`update lines set journey = null where journey is not null`);
    const [a, b] = [await of.inReview([drive('4000', 7)]), await of.inReview([drive('2000', 6)])];
    const answers = await Promise.all([of.clear(a), of.clear(b)]);
    expect(answers.map((x) => x.status).sort()).toEqual([200, 422]);
    expect(answers.find((x) => x.status === 422)!.body.code).toBe('ties-open');
  });
});

describe('tax on mileage', () => {
  it('is computed on the fuel part alone', async () => {
    const { rows } = await api.owner.raw(`select id, rule from mileage_rates where rule ->> 'vehicle' = 'car'`);
    const { rebuildBook } = await import('../../records/book/sharedBook.ts');
    for (const { id, rule } of rows)
      await api
        .owner('mileage_rates')
        .where({ id })
        .update({ rule: JSON.stringify({ ...rule, fuel: '0.11' }) });
    await api.owner.transaction((trx) => rebuildBook(trx as never, 'IE'));
    const number = await of.draft([{ ...drive('328', 4), tax: [{ code: 'IE-23' }], country: 'IE' }]);
    const view = await of.view(number, 'tomas');
    // 328 × 0.11 = 36.08, of which 23/123 is 6.7466…
    expect(view.parts['1'][0].tax[0]).toMatchObject({ tax: '6.75', net: '29.33' });
  });
});
