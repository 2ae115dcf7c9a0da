import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { handIn, viewOf } from '../../../../test/fixtures/acts.ts';
import { startApi, type Client, type TestApi } from '../../../../test/fixtures/startApi.ts';
import { picture, sendFile } from '../../../../test/fixtures/sendFile.ts';

let api: TestApi;
let tomas: Client;
beforeAll(async () => {
  api = await startApi('cover');
  tomas = await api.as('tomas.brandao');
});
afterAll(() => api.close());

/** The text of each page without its spaces, by a reader that is not ours. */
async function pagesOf(who: Client, number: string): Promise<string[]> {
  const answer = await who.get(`/claims/${number}/cover.pdf`);
  expect([answer.status, answer.headers.get('content-type')]).toEqual([200, 'application/pdf']);
  const pdf = await getDocument({ data: new Uint8Array(answer.body), verbosity: 0 }).promise;
  const texts: string[] = [];
  for (let n = 1; n <= pdf.numPages; n += 1) {
    const { items } = await (await pdf.getPage(n)).getTextContent();
    texts.push(
      items
        .map((i) => ('str' in i ? i.str : ''))
        .join(' ')
        .replace(/\s+/g, ''),
    );
  }
  return texts;
}

describe('the cover of a claim', () => {
  it('says what the claim says, its sum and its lines, and has every paper behind it', async () => {
    const begun = { purpose: 'Τέρνες, Łomża and 鷺', coding: { costCentre: '410', fund: '10' } };
    const { number } = (await tomas.post('/drafts', begun)).body;
    const line = (amount: string, currency = 'EUR') => ({
      date: '2026-11-02',
      amount: { amount, currency },
      category: 'supplies',
      merchant: 'Müller',
    });
    await tomas.post(`/drafts/${number}/lines`, {
      revision: 1,
      lines: [line('61.00'), line('30.00'), line('1800', 'JPY')],
    });
    const { id } = (await sendFile(tomas, '/receipts', await picture(7))).body.added[0];
    for (const [i, of] of ['1', '2'].entries())
      await tomas.put(`/drafts/${number}/lines/${of}/receipt`, { revision: 2 + i, receipt: id });
    await sendFile(tomas, `/drafts/${number}/attachments?revision=4`, await picture(8), 'minutes.png');
    await tomas.put(`/drafts/${number}`, { revision: 5, set: { financeNote: 'Stolen card' } });
    await handIn(tomas, number);

    const pages = await pagesOf(tomas, number);
    expect(pages).toHaveLength(3);
    expect(pages[0]).toContain(`Claim${number}Τέρνες,Łomżaand?`);
    const { settlement, amounts } = await viewOf(tomas, number);
    for (const said of [
      `${settlement.toPay} EUR`,
      '61.00 EUR',
      '1800 JPY',
      `= ${amounts['3']} EUR`,
      'Siobhán O’Dowd',
      'Müller',
      'Stolen card',
    ])
      expect(pages[0]).toContain(said.replaceAll(' ', ''));
    expect(pages[1]).toContain(`${number}:receiptoflines1,2,Müller`);
    expect(pages[2]).toContain(`${number}:fileminutes.png`);
    expect(pages[2]).toContain('3of3');
    const approver = await pagesOf(await api.as('siobhan.odowd'), number);
    expect([approver.length, approver[0]!.includes('Stolencard')]).toEqual([3, false]);
    expect((await pagesOf(await api.as('maeve.tarrant'), number))[0]).toContain('Stolencard');
    expect((await (await api.as('aoi.kuramochi')).get(`/claims/${number}/cover.pdf`)).status).toBe(404);
  });

  it('goes on over pages, and is refused where the papers are too many for one file', async () => {
    const { number } = (await tomas.post('/drafts', { purpose: 'Long', coding: {} })).body;
    const line = { date: '2026-11-02', amount: { amount: '1.00', currency: 'EUR' }, category: 'supplies' };
    await tomas.post(`/drafts/${number}/lines`, { revision: 1, lines: Array.from({ length: 90 }, () => line) });
    const pages = await pagesOf(tomas, number);
    expect(pages).toHaveLength(2);
    expect(pages.join(' ').match(/1\.00EUR/g)).toHaveLength(90);
    await sendFile(tomas, `/drafts/${number}/attachments?revision=2`, await picture(9), 'a.png');
    const { id, sha256 } = await api.owner('attachments').where({ name: 'a.png' }).first();
    const page = await api.owner('receipt_pages').where({ sha256 }).first();
    const more = Array.from({ length: 400 }, (_, i) => ({ ...page, page: i + 2 }));
    await api.owner('receipt_pages').insert(more);
    expect(id).toBeDefined();
    const refused = await tomas.get(`/claims/${number}/cover.pdf`);
    expect([refused.status, refused.body.code]).toEqual([422, 'many-pages']);
  });
});
