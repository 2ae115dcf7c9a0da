import { createHash } from 'node:crypto';
import { PDFDocument, StandardFonts } from 'pdf-lib';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { usualLimits } from '../../http/limits.ts';

let api: TestApi;
let tomas: Client;
const upload = (client: Client, bytes: Uint8Array, name: string) => {
  const form = new FormData();
  form.append('file', new Blob([new Uint8Array(bytes)]), name);
  return client.send('POST', '/receipts', form);
};
const limits = {
  ...usualLimits,
  upload: (pool: Parameters<typeof usualLimits.upload>[0]) => ({
    ...usualLimits.upload(pool),
    points: 40,
    duration: 3600,
  }),
};
beforeAll(async () => {
  api = await startApi('receipts', { limits, work: true });
  tomas = await api.as('tomas.brandao');
});
afterAll(() => api.close());

const drawn = (side = 40) => sharp({ create: { width: side, height: side, channels: 3, background: '#4a7' } });
const sha = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');

async function pdf(pages: number, rows: [string, string][] = []): Promise<Buffer> {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.Helvetica);
  for (let i = 0; i < pages; i += 1) {
    const page = document.addPage([400, 300]);
    (i === 0 ? rows : []).forEach(([left, right], k) => {
      page.drawText(left, { x: 30, y: 260 - k * 24, size: k === 0 ? 18 : 11, font });
      page.drawText(right, { x: 330, y: 260 - k * 24, size: 11, font });
    });
  }
  return Buffer.from(await document.save());
}

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
    expect(mine.alike).toMatchObject([{ exact: true, own: false, name: null }]);
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

  it('takes what its owner confirms, and refuses an amount that cannot be', async () => {
    const { body } = await upload(tomas, await drawn(43).png().toBuffer(), 'b.png');
    const path = `/receipts/${body.added[0].id}`;
    const facts = { amount: '12.00', currency: 'EUR', date: '2026-03-02', merchant: 'The Salted Samphire' };
    expect((await tomas.put(path, { ...facts, amount: '12.0' })).body.says).toContain('decimals of EUR');
    expect((await tomas.put(path, { ...facts, date: '2026-02-31' })).status).toBe(400);
    const { body: after } = await tomas.put(path, facts);
    expect(after.receipts.find((r: { id: string }) => r.id === body.added[0].id).confirmed).toMatchObject(facts);
    expect((await (await api.as('maeve.tarrant')).put(path, facts)).status).toBe(404);
  });

  it('can be taken away and brought back', async () => {
    const { body } = await upload(tomas, await drawn(44).png().toBuffer(), 'c.png');
    const { id } = body.added[0];
    const there = async () => (await tomas.get('/receipts')).body.receipts.some((r: { id: string }) => r.id === id);
    await tomas.send('DELETE', `/receipts/${id}`);
    expect(await there()).toBe(false);
    await tomas.post(`/receipts/${id}/back`);
    expect(await there()).toBe(true);
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
  it('gives its attachments, and names those that are not accepted', async () => {
    const { body } = await upload(tomas, mail(await drawn(45).png().toBuffer(), 'ticket.png', 'image/png'), 'mail.eml');
    expect(body.added).toMatchObject([{ ok: true, name: 'ticket.png', fresh: true }]);
    const program = await upload(
      tomas,
      mail(Buffer.from('MZ'.padEnd(300, '\0')), 'setup.exe', 'application/octet-stream'),
      'mail.eml',
    );
    expect(program.body.says).toContain('setup.exe is not accepted');
  });

  it('without attachments is itself the receipt', async () => {
    const text =
      'From: Reedbed Cafe <till@reedbed.example>\r\nSubject: Your receipt\r\nMIME-Version: 1.0\r\nDate: Mon, 02 Mar 2026 12:00:00 +0000\r\n\r\nDate 2026-03-02\r\nSoup 8.50\r\nTea 3.00\r\nTotal EUR 11.50\r\n';
    const { body } = await upload(tomas, Buffer.from(text), 'receipt.eml');
    expect((await whenRead(tomas, body.added[0].id)).reading.amount.value).toBe('11.50');
  });
});

describe('a file that cannot be a receipt', () => {
  const bad: [string, string, () => Promise<Uint8Array> | Uint8Array, string][] = [
    ['an empty file', 'a.jpg', () => new Uint8Array(), 'empty'],
    [
      'a web page named as a picture',
      'a.png',
      () => Buffer.from('<html><script>alert(1)</script>'),
      'of no known kind',
    ],
    [
      'a drawing with a script',
      'a.svg',
      () => Buffer.from('<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>'),
      'no EN 16931 invoice',
    ],
    ['a program', 'a.jpg', () => Buffer.from('MZ'.padEnd(300, '\0')), 'take a JPEG'],
    ['a damaged picture', 'a.jpg', async () => (await drawn(300).jpeg().toBuffer()).subarray(0, 200), 'damaged'],
    ['a picture of too many pixels', 'a.png', () => hugePng(30_000), '30000 × 30000 pixels'],
    ['a PDF of 300 pages', 'long.pdf', () => pdf(300), 'it has 300 pages and at most 30'],
    ['a locked PDF', 'locked.pdf', () => LOCKED, 'protected by a password'],
    [
      'a zip named as a PDF',
      'bomb.pdf',
      () => Buffer.concat([Buffer.from('PK\x03\x04'), Buffer.alloc(500)]),
      'application/zip',
    ],
    ['a damaged PDF', 'a.pdf', () => Buffer.from('%PDF-1.7\n garbage'), 'damaged'],
    [
      'XML with entities',
      'a.xml',
      () =>
        Buffer.from(
          '<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a SYSTEM "file:///etc/passwd">]><Invoice>&a;</Invoice>',
        ),
      'never read',
    ],
    ['another XML', 'a.xml', () => Buffer.from('<?xml version="1.0"?><order/>'), 'no EN 16931 invoice'],
  ];
  it.each(bad)('is refused by name with the reason: %s', async (_, name, bytes, reason) => {
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

/** The head of a PNG that claims a size, with nothing behind it: its pixels are never made. */
function hugePng(side: number): Buffer {
  const size = Buffer.alloc(8);
  size.writeUInt32BE(side, 0);
  size.writeUInt32BE(side, 4);
  const body = Buffer.concat([Buffer.from('IHDR'), size, Buffer.from([8, 2, 0, 0, 0])]);
  const crc = Buffer.alloc(4);
  crc.writeUInt32BE(crc32(body));
  const end = Buffer.from('0000000049454e44ae426082', 'hex');
  const data = Buffer.from('0000000a49444154789c63000100000500010d0a2db4', 'hex');
  return Buffer.concat([Buffer.from('89504e470d0a1a0a0000000d', 'hex'), body, crc, data, end]);
}

function crc32(bytes: Buffer): number {
  let crc = ~0;
  for (const byte of bytes) {
    crc ^= byte;
    for (let k = 0; k < 8; k += 1) crc = crc & 1 ? (crc >>> 1) ^ 0xedb88320 : crc >>> 1;
  }
  return ~crc >>> 0;
}

/** An empty PDF whose encryption dictionary (standard handler, revision 2) belongs to a password nobody is asked for here. */
const LOCKED = Buffer.from(
  `%PDF-1.4
1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj
2 0 obj<</Type/Pages/Kids[3 0 R]/Count 1>>endobj
3 0 obj<</Type/Page/Parent 2 0 R/MediaBox[0 0 99 99]>>endobj
4 0 obj<</Filter/Standard/V 1/R 2/Length 40/P -4/O<${'11'.repeat(32)}>/U<${'22'.repeat(32)}>>>endobj
trailer<</Root 1 0 R/Encrypt 4 0 R/ID[<00112233445566778899aabbccddeeff><00112233445566778899aabbccddeeff>]/Size 5>>
%%EOF
`,
);
