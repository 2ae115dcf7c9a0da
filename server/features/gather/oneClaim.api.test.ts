import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { freeChargeOf, ownReceipt, revisionsOf, take } from '../../../test/fixtures/gathering.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

/** Somebody at two windows, on two server processes. */
let api: TestApi;
let windows: [Client, Client];
beforeAll(async () => {
  api = await startApi('one_claim');
  windows = [await api.as('tomas.brandao'), await api.as('tomas.brandao', api.second)];
});
afterAll(() => api.close());

const claimsOf = async (receipt: string) =>
  new Set(await api.owner('lines').whereRaw('receipt_id = ?', [receipt]).pluck('claim_id')).size;

describe('a receipt', () => {
  it('is put on one claim by many requests at once', async () => {
    const receipt = await ownReceipt(windows[0], '21.10', true);
    const answers = await Promise.all(
      Array.from({ length: 12 }, (_, i) => take(windows[i % 2]!, { receipt, category: 'meal' })),
    );
    expect(answers.map((a) => a.status).sort()).toEqual([201, ...Array.from({ length: 11 }, () => 409)]);
    expect(await claimsOf(receipt)).toBe(1);
  });
  it('that is on a claim is not taken for another beside a charge, nor paired with a line of another', async () => {
    const [tomas] = windows;
    const receipt = await ownReceipt(tomas, '21.20', true);
    const other = await ownReceipt(tomas, '21.30', true);
    const { number } = (await take(tomas, { receipt, category: 'meal' })).body;
    const charge = await freeChargeOf(tomas);
    expect((await take(tomas, { receipt, charge: charge.id, category: 'meal' })).body).toMatchObject({
      code: 'receipt-in-use',
      numbers: { claim: number },
    });
    const second = (await take(tomas, { receipt: other, category: 'meal' })).body.number;
    const pair = { lines: [{ claim: second, line: '1' }], receipt };
    const paired = await tomas.post('/pairs', { revisions: await revisionsOf(tomas), pairs: [pair] });
    expect(paired.body).toMatchObject({ code: 'receipt-in-use', numbers: { claim: number } });
    expect(await claimsOf(receipt)).toBe(1);
  });
  it('serves several lines of one claim, not of two', async () => {
    const [tomas] = windows;
    const papers = [];
    for (const total of ['21.40', '21.50', '21.60']) papers.push(await ownReceipt(tomas, total, true));
    const claim = (await take(tomas, { receipt: papers[0], category: 'meal' })).body.number;
    const seen = async () => ({ number: claim, revision: (await revisionsOf(tomas))[claim]! });
    expect((await take(tomas, { receipt: papers[1], category: 'meal' }, await seen())).status).toBe(201);
    // by itself it becomes one line: taken again, on the same claim, it would be claimed twice
    const twice = await take(tomas, { receipt: papers[1], category: 'meal' }, await seen());
    expect([twice.status, twice.body.code]).toEqual([409, 'receipt-in-use']);
    const elsewhere = (await take(tomas, { receipt: papers[2], category: 'meal' })).body.number;
    const free = await ownReceipt(tomas, '21.70', true);
    const pair = async (...lines: [string, string][]) =>
      tomas.post('/pairs', {
        revisions: await revisionsOf(tomas),
        pairs: [{ lines: lines.map(([number, line]) => ({ claim: number, line })), receipt: free }],
      });
    expect((await pair([claim, '1'], [elsewhere, '1'])).body.code).toBe('receipt-in-use');
    expect((await pair([claim, '1'], [claim, '2'])).status).toBe(200);
    expect(await claimsOf(free)).toBe(1);
  });
});
