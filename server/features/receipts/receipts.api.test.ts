import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { usualLimits } from '../../http/limits.ts';

let api: TestApi;
let tomas: Client;
const limits = {
  ...usualLimits,
  upload: (pool: Parameters<typeof usualLimits.upload>[0]) => ({
    ...usualLimits.upload(pool),
    points: 14,
    duration: 3600,
  }),
};
beforeAll(async () => {
  api = await startApi('receipts', { limits });
  tomas = await api.as('tomas.brandao');
});
afterAll(() => api.close());

const upload = (client: Client, bytes: Uint8Array, name: string) => {
  const form = new FormData();
  form.append('file', new Blob([new Uint8Array(bytes)]), name);
  return client.send('POST', '/receipts', form);
};
const drawn = (side = 40) => sharp({ create: { width: side, height: side, channels: 3, background: '#4a7' } });

describe('an uploaded receipt', () => {
  it('keeps its original untouched and shows a view without metadata', async () => {
    const original = await drawn()
      .jpeg()
      .withExif({ IFD0: { Artist: 'Secret Person' }, IFD3: { GPSLatitude: '53/1 0/1 0/1' } })
      .toBuffer();
    expect(original.includes('Secret Person')).toBe(true);
    const { status, body } = await upload(tomas, original, 'receipt.jpg');
    expect(status).toBe(201);
    const stored = await api.owner('receipt_files').where({ sha256: body.sha256 }).first();
    expect(Buffer.compare(stored.original, original)).toBe(0);
    expect(stored.view.includes('Secret Person')).toBe(false);
    expect((await sharp(stored.view).metadata()).exif).toBeUndefined();
  });

  it('is served so that no browser runs or guesses anything', async () => {
    const { body } = await upload(tomas, await drawn(41).png().toBuffer(), 'a.png');
    const view = await tomas.get(`/receipts/${body.id}/view`);
    expect(view.headers.get('content-type')).toBe('image/webp');
    expect(view.headers.get('content-security-policy')).toBe("sandbox; default-src 'none'");
    expect(view.headers.get('x-content-type-options')).toBe('nosniff');
  });

  it('is the same receipt when it comes twice', async () => {
    const bytes = await drawn(42).webp().toBuffer();
    const [first, second] = [await upload(tomas, bytes, 'a.webp'), await upload(tomas, bytes, 'renamed.webp')];
    expect([first.status, second.status, second.body.fresh]).toEqual([201, 200, false]);
    expect(second.body.id).toBe(first.body.id);
  });

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
      'take a JPEG',
    ],
    ['a program', 'a.jpg', () => Buffer.from('MZ'.padEnd(300, '\0')), 'take a JPEG'],
    ['a damaged picture', 'a.jpg', async () => (await drawn(300).jpeg().toBuffer()).subarray(0, 200), 'damaged'],
    [
      'a picture of too many pixels',
      'a.png',
      () => drawn(9500).png({ compressionLevel: 9 }).toBuffer(),
      '80 million pixels',
    ],
  ];
  it.each(bad)('is refused by name with the reason: %s', async (_, name, bytes, reason) => {
    const { status, body } = await upload(tomas, await bytes(), name);
    expect([status, body.code]).toEqual([422, 'not-an-image']);
    expect(body.says).toContain(name);
    expect(body.says).toContain(reason);
  });

  it('is refused when it is too large', async () => {
    const { status, body } = await upload(tomas, new Uint8Array(16 * 1024 * 1024), 'big.jpg');
    expect([status, body.says]).toEqual([413, 'The file is larger than 15 MB. Take a smaller picture.']);
  });

  it('is refused without a file, and when too many come', async () => {
    expect((await tomas.post('/receipts', {})).status).toBe(400);
    let last = 0;
    for (let i = 0; i < 5; i += 1) last = (await upload(tomas, new Uint8Array(), 'a.jpg')).status;
    expect(last).toBe(429);
  });
});
