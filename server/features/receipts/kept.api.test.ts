import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';

/** A paper that is under review on somebody's claim, and a copy of it in somebody else's hands. */
let api: TestApi;
let paper: { sha256: string; owner_id: string };
beforeAll(async () => {
  api = await startApi('kept');
  paper = await api
    .owner('receipts as r')
    .join('lines as l', 'l.receipt_id', 'r.id')
    .join('claims as c', 'c.id', 'l.claim_id')
    .join('readings as g', 'g.sha256', 'r.sha256')
    .where({ 'c.state': 'in review' })
    .orderBy('r.id')
    .first('r.sha256', 'r.owner_id');
});
afterAll(() => api.close());

describe('a paper under review', () => {
  it('is not read again by another owner of the same file', async () => {
    const other = await api.as(paper.owner_id === 'P05' ? 'aoi.kuramochi' : 'tomas.brandao');
    const { original } = await api.owner('receipt_files').where({ sha256: paper.sha256 }).first();
    const form = new FormData();
    form.append('file', new Blob([new Uint8Array(original)]), 'copy.jpg');
    const { id } = (await other.send('POST', '/receipts', form)).body.added[0];
    const before = await api.owner('readings').where({ sha256: paper.sha256 }).first();
    const again = await other.post(`/receipts/${id}/read`, { revision: 1 });
    expect(again).toMatchObject({ status: 409, body: { code: 'evidence-kept' } });
    expect(await api.owner('readings').where({ sha256: paper.sha256 }).first()).toEqual(before);
  });
  it('keeps its reading also from the application and the owner of the tables', async () => {
    for (const db of [api.app, api.owner])
      await expect(db('readings').where({ sha256: paper.sha256 }).update({ remarks: '["x"]' })).rejects.toMatchObject({
        code: 'EB006',
      });
  });
});
