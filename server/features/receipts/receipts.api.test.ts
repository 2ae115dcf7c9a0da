import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import sharp from 'sharp';
import { assessAgain } from '../claims/reassess.service.ts';
import { systemClock } from '../../platform/ports/clock.ts';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { badReceipts, pdf } from '../../../test/fixtures/badReceipts.ts';
import { usualThrottles } from '../../../test/fixtures/application.ts';

let api: TestApi;
let tomas: Client;
const upload = (client: Client, bytes: Uint8Array, name: string) => {
  const form = new FormData();
  form.append('file', new Blob([new Uint8Array(bytes)]), name);
  return client.send('POST', '/receipts', form);
};
const throttles = {
  ...usualThrottles,
  upload: (pool: Parameters<typeof usualThrottles.upload>[0]) => ({
    ...usualThrottles.upload(pool),
    points: 40,
    duration: 3600,
  }),
};
beforeAll(async () => {
  api = await startApi('receipts', { throttles, work: true });
  tomas = await api.as('tomas.brandao');
});
afterAll(() => api.close());

const drawn = (side = 40) => sharp({ create: { width: side, height: side, channels: 3, background: '#4a7' } });
const sha = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');

/** What became of a receipt once it was read. */
async function whenRead(client: Client, id: string) {
  for (let i = 0; i < 300; i += 1) {
    const { body } = await client.get('/receipts');
    const found = body.receipts.find((r: { id: string }) => r.id === id);
    if (found.state !== 'waiting') return found;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  throw new Error(`receipt ${id} was not read`);
}

describe('an uploaded receipt', () => {
  it('keeps its original untouched and shows a view without metadata', async () => {
    const original = await drawn()
      .jpeg()
      .withExif({ IFD0: { Artist: 'Secret Person' }, IFD3: { GPSLatitude: '53/1 0/1 0/1' } })
      .toBuffer();
    expect(original.includes('Secret Person')).toBe(true);
    const { status } = await upload(tomas, original, 'receipt.jpg');
    expect(status).toBe(201);
    const stored = await api
      .owner('receipt_files')
      .where({ sha256: sha(original) })
      .first();
    const page = await api
      .owner('receipt_pages')
      .where({ sha256: sha(original), page: 1 })
      .first();
    expect(Buffer.compare(stored.original, original)).toBe(0);
    expect(page.view.includes('Secret Person')).toBe(false);
    expect((await sharp(page.view).metadata()).exif).toBeUndefined();
  });

  it('is served so that no browser runs or guesses anything', async () => {
    const { body } = await upload(tomas, await drawn(41).png().toBuffer(), 'a.png');
    const view = await tomas.get(`/receipts/${body.added[0].id}/pages/1`);
    expect(view.headers.get('content-type')).toBe('image/webp');
    expect(view.headers.get('content-security-policy')).toBe("sandbox; default-src 'none'");
    expect(view.headers.get('x-content-type-options')).toBe('nosniff');
    expect((await tomas.get(`/receipts/${body.added[0].id}/pages/2`)).status).toBe(404);
  });

  it('is the same receipt when it comes twice, and somebody else’s is noticed', async () => {
    const bytes = await drawn(42).webp().toBuffer();
    const [first, second] = [await upload(tomas, bytes, 'a.webp'), await upload(tomas, bytes, 'renamed.webp')];
    expect([first.status, second.status, second.body.added[0].fresh]).toEqual([201, 200, false]);
    expect(second.body.added[0].id).toBe(first.body.added[0].id);
    const maeve = await api.as('maeve.tarrant');
    await upload(maeve, bytes, 'mine.webp');
    const mine = (await maeve.get('/receipts')).body.receipts[0];
    expect(mine.alike).toMatchObject([{ how: 'file', own: false, name: null }]);
  });

  it('is read in the background: a PDF by its text, with where each figure stands', async () => {
    const bytes = await pdf(2, [
      ['South Wall Ferries Ltd', ''],
      ['Date: 2026-03-02', ''],
      ['Adult', '38.00'],
      ['Bicycle', '6.00'],
      ['Total EUR', '44.00'],
    ]);
    const { body } = await upload(tomas, bytes, 'ferry.pdf');
    const read = await whenRead(tomas, body.added[0].id);
    expect(read).toMatchObject({ state: 'read', method: 'text', kind: 'pdf' });
    expect(read.pages).toHaveLength(2);
    expect(read.reading.amount).toMatchObject({ value: '44.00', sure: 'sure', spot: { page: 1 } });
    expect(read.reading.date.value).toBe('2026-03-02');
  });

  it('from a telephone as HEIC is shown as a picture of the web, read, and kept as it came', async () => {
    const original = readFileSync('test/fixtures/receipt.heic');
    const { body } = await upload(tomas, original, 'IMG_0412.HEIC');
    const read = await whenRead(tomas, body.added[0].id);
    expect([read.kind, read.reading.amount.value, read.reading.date.value]).toEqual(['picture', '11.50', '2026-03-02']);
    const view = await tomas.get(`/receipts/${body.added[0].id}/pages/1`);
    expect(view.headers.get('content-type')).toBe('image/webp');
    const stored = await api
      .owner('receipt_files')
      .where({ sha256: sha(original) })
      .first();
    expect(Buffer.compare(stored.original, original)).toBe(0);
  });

  it('takes no day to come, no rate above 100, no tax above the total', async () => {
    const { body } = await upload(tomas, await drawn(143).png().toBuffer(), 'c.png');
    const path = `/receipts/${body.added[0].id}`;
    const facts = { revision: 1, amount: '12.00', currency: 'EUR', date: '2026-03-02', merchant: 'Pier' };
    const said = async (more: object) => {
      const answer = await tomas.put(path, { ...facts, ...more });
      return [answer.status, answer.body.code ?? null];
    };
    expect(await said({ date: '2027-12-31' })).toEqual([422, 'future-purchase']);
    expect(await said({ taxes: [{ rate: '101', tax: '1.00' }] })).toEqual([400, 'invalid']);
    expect(await said({ taxes: [{ rate: '-1', tax: '1.00' }] })).toEqual([400, 'invalid']);
    expect(await said({ taxes: [{ rate: '20', tax: '12.01' }] })).toEqual([422, 'tax-above-total']);
    expect(await said({ taxes: [{ rate: '20', base: '12.01', tax: '2.00' }] })).toEqual([422, 'tax-above-total']);
    expect(await said({ taxes: [{ rate: null, base: null, tax: '2.00' }] })).toEqual([200, null]);
  });

  it('takes what its owner confirms, and refuses an amount that cannot be', async () => {
    const { body } = await upload(tomas, await drawn(43).png().toBuffer(), 'b.png');
    const path = `/receipts/${body.added[0].id}`;
    const facts = { amount: '12.00', currency: 'EUR', date: '2026-03-02', merchant: 'The Salted Samphire' };
    expect((await tomas.put(path, { ...facts, revision: 1, amount: '12.0' })).body.says).toContain('decimals of EUR');
    expect((await tomas.put(path, { ...facts, revision: 1, date: '2026-02-31' })).status).toBe(400);
    const { body: after } = await tomas.put(path, { ...facts, revision: 1 });
    expect((await tomas.put(path, { ...facts, revision: 1 })).body.code).toBe('stale');
    expect(after.receipts.find((r: { id: string }) => r.id === body.added[0].id).confirmed).toMatchObject(facts);
    expect((await (await api.as('maeve.tarrant')).put(path, { ...facts, revision: 2 })).status).toBe(404);
  });

  it('can be taken away and brought back', async () => {
    const { body } = await upload(tomas, await drawn(44).png().toBuffer(), 'c.png');
    const { id } = body.added[0];
    const there = async () => (await tomas.get('/receipts')).body.receipts.some((r: { id: string }) => r.id === id);
    await tomas.send('DELETE', `/receipts/${id}?revision=1`);
    expect(await there()).toBe(false);
    await tomas.post(`/receipts/${id}/back`);
    expect(await there()).toBe(true);
  });
});

describe('a receipt a new line is made from', () => {
  it('is put on the line as it is written, once; somebody else’s is not, and then there is no line', async () => {
    const { body } = await upload(tomas, await drawn(51).png().toBuffer(), 'd.png');
    const receipt = body.added[0].id;
    const { number } = (await tomas.post('/drafts', { purpose: 'From a photo' })).body;
    const line = { date: '2026-11-02', amount: { amount: '12.00', currency: 'EUR' }, category: 'meal', receipt };
    const path = `/drafts/${number}/lines`;
    const others = await upload(await api.as('maeve.tarrant'), await drawn(52).png().toBuffer(), 'e.png');
    const theirs = { ...line, receipt: others.body.added[0].id };
    expect((await tomas.post(path, { revision: 1, lines: [line, theirs] })).status).toBe(404);
    const after = (await tomas.post(path, { revision: 1, lines: [line, { ...line, receipt: undefined }] })).body;
    expect(after.document.lines).toHaveLength(2);
    expect([after.receipts['1'].id, after.receipts['2']]).toEqual([receipt, undefined]);
    const other = (await tomas.post('/drafts', { purpose: 'Again' })).body;
    const again = await tomas.post(`/drafts/${other.number}/lines`, { revision: 1, lines: [line] });
    expect(again.body).toMatchObject({ code: 'receipt-in-use', numbers: { claim: number } });
  });
});

describe('a receipt under review', () => {
  it('stays as it was submitted: not confirmed otherwise, not read again, not taken away', async () => {
    const { receipts } = (await tomas.get('/claims/C-1001')).body;
    const { id } = receipts['1'];
    const facts = { revision: 1, amount: '1.00', currency: 'EUR', date: '2026-03-02', merchant: 'Other' };
    for (const refused of [
      await tomas.put(`/receipts/${id}`, facts),
      await tomas.post(`/receipts/${id}/read`, { revision: 1 }),
      await tomas.send('DELETE', `/receipts/${id}?revision=1`),
    ])
      expect(refused.body).toMatchObject({ code: 'receipt-in-use', numbers: { claim: 'C-1001' } });
  });
  it('is what the reviewer proves, whatever becomes of it since', async () => {
    const maeve = await api.as('maeve.tarrant');
    const before = (await maeve.get('/claims/C-1001')).body;
    await api.owner('receipts').whereRaw('id = ?', [before.receipts['1'].id]).update({ amount: 1, merchant: 'Other' });
    await assessAgain({ db: api.app, clock: systemClock }, 'only:C-1001');
    const after = (await maeve.get('/claims/C-1001')).body;
    expect(after.evidence.receipts['1']).toEqual(before.evidence.receipts['1']);
  });
  it('is not looked at by finance before it is on a submitted claim', async () => {
    const { body } = await upload(tomas, await drawn(77).png().toBuffer(), 'd.png');
    const page = `/receipts/${body.added[0].id}/pages/1`;
    const maeve = await api.as('maeve.tarrant');
    const auditor = await api.as('ottoline.marchbanks');
    const statuses = () => Promise.all([tomas, maeve, auditor].map(async (who) => (await who.get(page)).status));
    expect(await statuses()).toEqual([200, 404, 404]);
    const draft = await api.owner('claims').where({ number: 'C-1031' }).first();
    const line = api.owner('lines').where({ claim_id: draft.id, position: 0 });
    await line.clone().update({ receipt_id: body.added[0].id });
    expect(await statuses()).toEqual([200, 404, 404]);
    await line.clone().update({ receipt_id: null });
  });
});

const mail = (attachment: Buffer, name: string, type: string) =>
  Buffer.from(
    [
      'From: Box office <tickets@marsh.example>',
      'To: Tomas <tomas@saltmarsh.example>',
      'Subject: Your tickets',
      'MIME-Version: 1.0',
      'Content-Type: multipart/mixed; boundary="b"',
      '',
      '--b',
      'Content-Type: text/plain',
      '',
      'Thank you.',
      '--b',
      `Content-Type: ${type}; name="${name}"`,
      'Content-Transfer-Encoding: base64',
      `Content-Disposition: attachment; filename="${name}"`,
      '',
      attachment.toString('base64'),
      '--b--',
      '',
    ].join('\r\n'),
  );

describe('a saved e-mail', () => {
  it('gives its attachments and what it says, and names those that are not accepted', async () => {
    const { body } = await upload(tomas, mail(await drawn(45).png().toBuffer(), 'ticket.png', 'image/png'), 'mail.eml');
    expect(body.added).toMatchObject([
      { ok: true, name: 'ticket.png', fresh: true },
      { ok: true, name: 'mail.eml', fresh: true },
    ]);
    const program = await upload(
      tomas,
      mail(Buffer.from('MZ'.padEnd(300, '\0')), 'setup.exe', 'application/octet-stream'),
      'mail.eml',
    );
    expect(program.body.added).toMatchObject([
      { ok: false, name: 'setup.exe' },
      { ok: true, name: 'mail.eml' },
    ]);
    expect(program.body.added[0].says).toContain('setup.exe is not accepted');
  });

  it('without attachments is itself the receipt', async () => {
    const text =
      'From: Reedbed Cafe <till@reedbed.example>\r\nSubject: Your receipt\r\nMIME-Version: 1.0\r\nDate: Mon, 02 Mar 2026 12:00:00 +0000\r\n\r\nDate 2026-03-02\r\nSoup 8.50\r\nTea 3.00\r\nTotal EUR 11.50\r\n';
    const { body } = await upload(tomas, Buffer.from(text), 'receipt.eml');
    expect((await whenRead(tomas, body.added[0].id)).reading.amount.value).toBe('11.50');
  });
});

describe('a file that cannot be a receipt', () => {
  it.each(badReceipts)('is refused by name with the reason: %s', async (_, name, bytes, reason) => {
    const { status, body } = await upload(tomas, await bytes(), name);
    expect([status, body.code]).toEqual([422, 'file-refused']);
    expect(body.says).toContain(name);
    expect(body.says).toContain(reason);
  });

  it('is refused when it is too large, and the server goes on', async () => {
    const { status, body } = await upload(tomas, new Uint8Array(40 * 1024 * 1024), 'big.jpg');
    expect([status, body.says]).toEqual([
      413,
      'The file is larger than 15 MB. Take a smaller picture, or split the document.',
    ]);
    expect((await tomas.get('/receipts')).status).toBe(200);
  });

  it('is shown by a name that hides and turns nothing', async () => {
    const { body } = await upload(tomas, await drawn(46).png().toBuffer(), 'exe.\u202egnp "x".png');
    expect(body.added[0].name).toBe('exe.gnp "x".png');
  });

  it('is refused without a file, and when too many come', async () => {
    expect((await tomas.post('/receipts', {})).status).toBe(400);
    let last = 0;
    for (let i = 0; i < 40 && last !== 429; i += 1) last = (await upload(tomas, new Uint8Array(), 'a.jpg')).status;
    expect(last).toBe(429);
  });
});
