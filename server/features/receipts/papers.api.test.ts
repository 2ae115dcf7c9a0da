import sharp from 'sharp';
import { PDFDocument } from 'pdf-lib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { handIn } from '../../../test/fixtures/acts.ts';
import { freeChargeOf, ownReceipt, take } from '../../../test/fixtures/gathering.ts';
import { pdf } from '../../../test/fixtures/badReceipts.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

let api: TestApi;
let tomas: Client;
beforeAll(async () => {
  api = await startApi('papers');
  tomas = await api.as('tomas.brandao');
});
afterAll(() => api.close());

interface Receipt {
  id: string;
  revision: number;
  name: string;
  standing: string;
  madeFrom: string[];
  pages: { turns: number }[];
  usedOn: { claim: string }[];
}
const upload = async (person: Client, bytes: Uint8Array, name: string) => {
  const form = new FormData();
  form.append('file', new Blob([new Uint8Array(bytes)]), name);
  return person.send('POST', '/receipts', form);
};
const picture = (colour: string) =>
  sharp({ create: { width: 60, height: 80, channels: 3, background: colour } })
    .png()
    .toBuffer();
const own = async (person: Client, of = ''): Promise<Receipt[]> => (await person.get(`/receipts${of}`)).body.receipts;
const byId = async (person: Client, id: string, of = '') => (await own(person, of)).find((r) => r.id === id);
async function added(person: Client, bytes: Uint8Array, name: string): Promise<Receipt> {
  const { body } = await upload(person, bytes, name);
  return (await byId(person, body.added[0].id))!;
}
const seen = ({ id, revision }: Receipt) => ({ id, revision });

async function onLine(total: string): Promise<string> {
  const receipt = await ownReceipt(tomas, total, true);
  expect((await take(tomas, { receipt, category: 'meal' })).status).toBe(201);
  return receipt;
}

describe('two photographs', () => {
  it('become one receipt with both pages, and two again', async () => {
    const [top, bottom] = [
      await added(tomas, await picture('#aaa'), 'top.png'),
      await added(tomas, await picture('#bbb'), 'bottom.png'),
    ];
    const { status, body } = await tomas.post('/receipts/combine', { receipts: [seen(top), seen(bottom)] });
    expect(status).toBe(201);
    const made = (await byId(tomas, body.made[0]))!;
    expect(made).toMatchObject({ name: 'top.png and 1 more', madeFrom: [top.id, bottom.id], state: 'waiting' });
    expect(made.pages).toHaveLength(2);
    expect(await byId(tomas, top.id)).toBeUndefined();
    expect((await byId(tomas, top.id, '?of=gone'))!.standing).toBe('replaced');
    // the originals stay what they were
    expect(await api.owner('receipts').whereRaw('id = ?', [top.id]).first('sha256')).toBeTruthy();

    expect((await tomas.post(`/receipts/${bottom.id}/back`, {})).status).toBe(200);
    const now = await own(tomas);
    expect([top.id, bottom.id, made.id].map((id) => now.some((r) => r.id === id))).toEqual([true, true, false]);
  });

  it('of which both are on lines, one is under review, or somebody else’s, stay two', async () => {
    const used = await onLine('71.10');
    const other = await onLine('71.20');
    const both = await tomas.post('/receipts/combine', {
      receipts: [seen((await byId(tomas, used))!), seen((await byId(tomas, other))!)],
    });
    expect([both.status, both.body.code]).toEqual([409, 'receipts-in-use']);
    const { claim } = (await byId(tomas, used))!.usedOn[0]!;
    expect((await handIn(tomas, claim)).status).toBe(200);
    const free = await added(tomas, await picture('#ccc'), 'free.png');
    const onClaim = (await byId(tomas, used))!;
    const refused = await tomas.post('/receipts/combine', { receipts: [seen(free), seen(onClaim)] });
    expect([refused.status, refused.body.code]).toEqual([409, 'receipt-in-use']);
    const theirs = await added(await api.as('aoi.kuramochi'), await picture('#cca'), 'theirs.png');
    expect((await tomas.post('/receipts/combine', { receipts: [seen(free), seen(theirs)] })).status).toBe(404);
    // nor is it told on which claim somebody else's is
    const claimed = await api
      .owner('receipts as r')
      .join('lines as l', 'l.receipt_id', 'r.id')
      .whereNot('r.owner_id', 'P05')
      .first('r.id', 'r.revision');
    const hidden = await tomas.post('/receipts/combine', {
      receipts: [seen(free), { ...claimed, id: String(claimed.id) }],
    });
    expect([hidden.status, JSON.stringify(hidden.body)]).toEqual([404, expect.not.stringContaining('C-')]);
    expect(await byId(tomas, free.id)).toBeDefined();
    const twice = await tomas.post('/receipts/combine', { receipts: [seen(free), seen(free)] });
    expect(twice.status).toBe(400);
  });

  it('that changed meanwhile are refused, and nothing is made', async () => {
    const [a, b] = [
      await added(tomas, await picture('#1aa'), 'a.png'),
      await added(tomas, await picture('#1ab'), 'b.png'),
    ];
    const before = (await own(tomas)).length;
    const stale = await tomas.post('/receipts/combine', { receipts: [{ ...seen(a), revision: 7 }, seen(b)] });
    expect([stale.status, stale.body.code]).toEqual([409, 'stale']);
    expect(await own(tomas)).toHaveLength(before);
  });

  it('put together do not come apart while they are on a claim', async () => {
    const [a, b] = [
      await added(tomas, await picture('#2aa'), 'a.png'),
      await added(tomas, await picture('#2ab'), 'b.png'),
    ];
    const made = (await tomas.post('/receipts/combine', { receipts: [seen(a), seen(b)] })).body.made[0];
    await tomas.put(`/receipts/${made}`, {
      revision: 1,
      amount: '12.00',
      currency: 'EUR',
      date: '2026-03-02',
      merchant: 'Both Ltd',
    });
    const charge = await freeChargeOf(tomas);
    expect((await take(tomas, { receipt: made, charge: charge.id, category: charge.category })).status).toBe(201);
    const refused = await tomas.post(`/receipts/${a.id}/back`, {});
    expect([refused.status, refused.body.code]).toEqual([409, 'receipt-in-use']);
    expect((await byId(tomas, a.id, '?of=gone'))!.standing).toBe('replaced');
  });
});

describe('a PDF with several receipts', () => {
  it('becomes one of each part, and one again', async () => {
    const file = await added(tomas, await pdf(3, [['Three slips', '1.00']]), 'slips.pdf');
    const { status, body } = await tomas.post(`/receipts/${file.id}/divide`, {
      by: 'pages',
      revision: file.revision,
      parts: [[1], [2, 3]],
    });
    expect([status, body.made.length]).toEqual([201, 2]);
    const parts = await Promise.all(body.made.map((id: string) => byId(tomas, id)));
    expect(parts.map((p) => [p.name, p.pages.length])).toEqual([
      ['slips.pdf, page 1', 1],
      ['slips.pdf, pages 2 to 3', 2],
    ]);
    expect(await byId(tomas, file.id)).toBeUndefined();
    await tomas.post(`/receipts/${file.id}/back`, {});
    expect((await byId(tomas, file.id))!.pages).toHaveLength(3);
    expect(await byId(tomas, body.made[0])).toBeUndefined();
  });

  it('keeps every page, and what has one page is not divided', async () => {
    const file = await added(tomas, await pdf(3, [['Other slips', '2.00']]), 'other.pdf');
    for (const parts of [
      [[1], [2]],
      [[1], [2, 2]],
      [
        [1, 2],
        [3, 4],
      ],
      [[1], [1, 2, 3]],
    ]) {
      const { status, body } = await tomas.post(`/receipts/${file.id}/divide`, { by: 'pages', revision: 1, parts });
      expect([status, body.code]).toEqual([422, 'receipt-pages']);
    }
    const one = await added(tomas, await picture('#3aa'), 'one.png');
    const refused = await tomas.post(`/receipts/${one.id}/divide`, { by: 'pages', revision: 1, parts: [[1], [2]] });
    expect(refused.body.code).toBe('receipt-one-page');
  });
});

describe('a picture of several papers', () => {
  const PLACES = [
    { x: 0, y: 0, width: 0.5, height: 1 },
    { x: 0.5, y: 0, width: 0.5, height: 0.5 },
  ];
  it('becomes a receipt of each of its places, and one again', async () => {
    const wide = { create: { width: 200, height: 160, channels: 3, background: '#5aa' } } as const;
    const file = await added(tomas, await sharp(wide).png().toBuffer(), 'two.png');
    const { status, body } = await tomas.post(`/receipts/${file.id}/divide`, {
      by: 'places',
      revision: 1,
      places: PLACES,
    });
    expect(status).toBe(201);
    const page = file.pages[0] as any;
    const made = await Promise.all(body.made.map((id: string) => byId(tomas, id)));
    expect(made.map((r: any) => [r.name, r.madeFrom, r.pages[0].width, r.pages[0].height])).toEqual([
      ['two.png, paper 1 of 2', [file.id], page.width / 2, page.height],
      ['two.png, paper 2 of 2', [file.id], page.width / 2, page.height / 2],
    ]);
    expect((await tomas.post(`/receipts/${file.id}/back`)).status).toBe(200);
    expect(await byId(tomas, file.id)).toBeTruthy();
  });
  it('is not divided by places where it is a PDF, nor into what is too small or beside it', async () => {
    const file = await added(tomas, await pdf(2, [['Slips', '2.00']]), 'slips.pdf');
    const refused = await tomas.post(`/receipts/${file.id}/divide`, { by: 'places', revision: 1, places: PLACES });
    expect([refused.status, refused.body.code]).toEqual([422, 'receipt-no-picture']);
    const one = await added(tomas, await picture('#6aa'), 'one.png');
    const tiny = [PLACES[0], { x: 0.99, y: 0.99, width: 0.01, height: 0.01 }];
    expect(
      (await tomas.post(`/receipts/${one.id}/divide`, { by: 'places', revision: 1, places: tiny })).body.code,
    ).toBe('receipt-not-read');
    const beside = [PLACES[0], { x: 1.2, y: 0, width: 0.5, height: 0.5 }];
    expect((await tomas.post(`/receipts/${one.id}/divide`, { by: 'places', revision: 1, places: beside })).status).toBe(
      400,
    );
  });
});

describe('a page', () => {
  it('that its owner turns stays turned, and is read again so', async () => {
    const file = await added(tomas, await picture('#4aa'), 'side.png');
    await api
      .owner('readings')
      .update({ state: 'failed', problem: 'nothing was found' })
      .whereRaw('sha256 = (select sha256 from receipts where id = ?)', [file.id]);
    const { status } = await tomas.put(`/receipts/${file.id}/pages/1/turn`, { revision: 1, turns: 3 });
    expect(status).toBe(200);
    expect(await byId(tomas, file.id)).toMatchObject({ state: 'waiting', pages: [{ turns: 3 }] });
    const reading = await api
      .owner('readings')
      .whereRaw('sha256 = (select sha256 from receipts where id = ?)', [file.id])
      .first();
    expect(reading.told).toEqual([3]);
    for (const page of ['2', '0', 'x'])
      expect((await tomas.put(`/receipts/${file.id}/pages/${page}/turn`, { revision: 2, turns: 1 })).status).toBe(404);
    expect((await tomas.put(`/receipts/${file.id}/pages/1/turn`, { revision: 2, turns: 4 })).status).toBe(400);
  });
});

describe('what was taken away', () => {
  it('is listed, and comes back', async () => {
    const file = await added(tomas, await picture('#5aa'), 'gone.png');
    await tomas.send('DELETE', `/receipts/${file.id}?revision=1`);
    expect((await byId(tomas, file.id, '?of=gone'))!.standing).toBe('removed');
    expect(await byId(await api.as('aoi.kuramochi'), file.id, '?of=gone')).toBeUndefined();
    await tomas.post(`/receipts/${file.id}/back`, {});
    expect(await byId(tomas, file.id)).toBeDefined();
  });
});

describe('a saved e-mail', () => {
  const saved = (files: [string, Buffer][], text: string) =>
    Buffer.from(
      `From: Rail <t@rail.example>\r\nSubject: Receipt\r\nMIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary="b"\r\n\r\n--b\r\nContent-Type: text/plain\r\n\r\n${text}\r\n${files
        .map(
          ([name, bytes]) =>
            `--b\r\nContent-Type: image/png; name="${name}"\r\nContent-Disposition: attachment; filename="${name}"\r\nContent-Transfer-Encoding: base64\r\n\r\n${bytes.toString('base64')}\r\n`,
        )
        .join('')}--b--\r\n`,
    );

  it('brings its attachments and itself, to everybody who adds it, and says which were too many', async () => {
    const files = await Promise.all(
      Array.from({ length: 21 }, async (_, i): Promise<[string, Buffer]> => [
        `r${i + 1}.png`,
        await picture(`#${(0x600 + i).toString(16)}`),
      ]),
    );
    const bytes = saved(files, 'Total EUR 26.00');
    for (const person of [tomas, await api.as('aoi.kuramochi')]) {
      const { body } = await upload(person, bytes, 'mail.eml');
      const names = body.added.map((a: { ok: boolean; name: string }) => `${a.name}${a.ok ? '' : ' refused'}`);
      expect(names).toEqual([...files.slice(0, 20).map(([name]) => name), 'r21.png refused', 'mail.eml']);
      expect(body.added[20].says).toMatch(/first 20 attachments/);
    }
  });
});

it('a receipt made of others is a PDF of their pages', async () => {
  const [a, b] = [await added(tomas, await picture('#7aa'), 'a.png'), await added(tomas, await pdf(2), 'b.pdf')];
  const made = (await tomas.post('/receipts/combine', { receipts: [seen(a), seen(b)] })).body.made[0];
  const { original } = await api
    .owner('receipt_files')
    .whereRaw('sha256 = (select sha256 from receipts where id = ?)', [made])
    .first('original');
  expect((await PDFDocument.load(original)).getPageCount()).toBe(3);
});

describe('what is made of papers', () => {
  it('is looked at as what comes from outside is, and refused where it cannot be read', async () => {
    const { combineReceipts } = await import('./papers.service.ts');
    const { actorWith } = await import('../../platform/context.ts');
    const two = [
      await added(tomas, await picture('teal'), 'c.png'),
      await added(tomas, await picture('plum'), 'd.png'),
    ];
    const reader = { ...api.services.reader, inspect: async () => ({ ok: false as const, reason: 'it is broken' }) };
    const person = { id: 'P05', name: 'Tomás', email: '', factor: 'off' as const };
    const work = combineReceipts(
      { ...api.services, reader },
      actorWith(person, []),
      two.map(({ id, revision }) => ({ id: BigInt(id), revision })),
    );
    await expect(work).rejects.toMatchObject({ code: 'receipt-not-read' });
  });
});
