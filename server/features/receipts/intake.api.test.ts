import { createTransport } from 'nodemailer';
import { createServer } from 'node:net';
import pino from 'pino';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';
import { listenForMail } from '../../platform/ports/mailIn.ts';
import { takeMail } from './intake.service.ts';

const ADDRESS = 'receipts@saltmarsh.example';
let api: TestApi;
let mailbox: { close(): Promise<void> };
let port: number;
let full = false;

async function freePort(): Promise<number> {
  const server = createServer().listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  const { port: free } = server.address() as { port: number };
  await new Promise((resolve) => server.close(resolve));
  return free;
}

beforeAll(async () => {
  api = await startApi('intake');
  port = await freePort();
  const intake = { consume: async () => (full ? Promise.reject(new Error('too many')) : undefined) };
  const log = pino({ level: 'silent' });
  const services = { ...api.services, log };
  mailbox = listenForMail(
    { address: ADDRESS, port, host: '127.0.0.1' },
    (bytes) => services.reader.sender(bytes),
    (mail) => takeMail(services, intake, mail),
    log,
  );
});
afterAll(async () => {
  await mailbox.close();
  await api.close();
});

const slip = async (colour: string) => [
  {
    filename: 'slip.png',
    content: await sharp({ create: { width: 50, height: 50, channels: 3, background: colour } })
      .png()
      .toBuffer(),
  },
];
const send = async (from: string, more: object = {}) =>
  createTransport({ host: '127.0.0.1', port, secure: false, ignoreTLS: true }).sendMail({
    from,
    to: ADDRESS,
    subject: 'My receipt',
    text: 'Total EUR 12.00',
    attachments: await slip('#369'),
    ...more,
  });
const names = async (email: string) =>
  ((await (await api.as(email)).get('/receipts')).body.receipts as { name: string; cameIn: string | null }[]).map((r) =>
    `${r.name} ${r.cameIn ?? ''}`.trim(),
  );
const count = async () => Number((await api.owner('receipts').count({ all: '*' }).first())!.all);

describe('a mail to the address for receipts', () => {
  it('from a known person lands among their receipts, and nobody else’s', async () => {
    const before = await names('aoi.kuramochi');
    await send('Wanjirũ Mbaya <WANJIRU.MBAYA@saltmarsh.example>');
    expect(await names('wanjiru.mbaya')).toEqual(expect.arrayContaining(['slip.png mail.eml', 'mail.eml']));
    expect(await names('aoi.kuramochi')).toEqual(before);
    const [event] = await api
      .owner('events')
      .where({ record_kind: 'receipt' })
      .orderBy('seq', 'desc')
      .orderBy('record_id', 'desc')
      .limit(1);
    expect(JSON.parse(event.facts)).toMatchObject({ came: 'by mail' });
  });

  it('from strangers, from several, or from somebody who left lands nowhere, and is answered alike', async () => {
    const before = await count();
    await send('stranger@elsewhere.example');
    const [known, other] = ['wanjiru.mbaya@saltmarsh.example', 'a@elsewhere.example'];
    // papers that nobody sent before, so that they would be seen to land
    await send(`${other}, ${known}`, { sender: known, attachments: await slip('#963') });
    await send(`${known}, ${other}`, { sender: known, attachments: await slip('#936') });
    await api.owner('people').where({ email: 'tomas.brandao@saltmarsh.example' }).update({ active: false });
    await send('tomas.brandao@saltmarsh.example');
    expect(await count()).toBe(before);
  });

  it('to another address is not taken, nor one that is too large', async () => {
    await expect(send('wanjiru.mbaya@saltmarsh.example', { to: 'other@saltmarsh.example' })).rejects.toThrow(
      /no such mailbox/,
    );
    const huge = [{ filename: 'huge.png', content: Buffer.alloc(26 * 1024 * 1024, 7) }];
    await expect(send('wanjiru.mbaya@saltmarsh.example', { attachments: huge })).rejects.toThrow();
  });

  it('may come again later when too many came at once', async () => {
    full = true;
    await expect(send('wanjiru.mbaya@saltmarsh.example', { subject: 'Another' })).rejects.toThrow(/451|too much mail/);
    full = false;
  });
});
