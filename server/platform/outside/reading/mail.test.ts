import { describe, expect, it } from 'vitest';
import { inspect } from './inspect.ts';
import { mailText } from './mail.ts';
import { readFile } from './readFile.ts';
import type { ReadResult } from './reading.types.ts';

const AS_OF = '2026-06-30';
const facts = ({ reading: r }: ReadResult) => [r.amount?.value, r.currency?.value, r.date?.value];
const mail = (head: string, type: string, body: string) =>
  Buffer.from(`${head}\r\nMIME-Version: 1.0\r\nContent-Type: ${type}; charset=utf-8\r\n\r\n${body}`);
const HEAD =
  'From: Saltway Rail <tickets@saltway.example>\r\nTo: me@org.example\r\nSubject: Your receipt\r\nDate: Thu, 12 Mar 2026 10:00:00 +0000';

describe('a mail', () => {
  it('keeps the cells of its tables apart and their rows in order', async () => {
    const cells =
      '<table><tr><th>What</th><th>Price</th></tr><tr><td>Ticket</td><td>20.00</td></tr><tr><td>Seat</td><td>6.00</td></tr><tr><td><b>Total</b></td><td>EUR 26.00</td></tr></table>';
    const bytes = mail(HEAD, 'text/html', `<html><body><p>Paid on 12 March 2026</p>${cells}</body></html>`);
    const rows = (await mailText(bytes)).split('\n').map((row) => row.trim().split(/ {2,}/));
    expect(rows).toContainEqual(['Ticket', '20.00']);
    expect(rows).toContainEqual(['Total', 'EUR 26.00']);
    const read = await readFile({ kind: 'mail', type: 'message/rfc822', bytes, asOf: AS_OF });
    expect(facts(read)).toEqual(['26.00', 'EUR', '2026-03-12']);
    expect(read.reading.amount!.sure).toBe('sure');
    expect(read.reading.merchant!.value).toBe('Saltway Rail');
  });

  it('that was forwarded is from whoever wrote it first', async () => {
    for (const mark of [
      '---------- Forwarded message ---------',
      '-----Ursprüngliche Nachricht-----',
      'Begin forwarded message:',
    ]) {
      const from = mark.includes('Urspr') ? 'Von' : 'From';
      const subject = mark.includes('Urspr') ? 'Betreff' : 'Subject';
      const bytes = mail(
        HEAD.replace('Saltway Rail <tickets@saltway.example>', 'Tomás Brandão <tomas@org.example>').replace(
          'Your receipt',
          'Fwd: Receipt 17',
        ),
        'text/plain',
        `Please claim this.\r\n\r\n${mark}\r\n${from}: "Saltway Rail" <tickets@saltway.example>\r\nDate: 12 March 2026\r\n${subject}: Receipt 17\r\nTo: Tomás\r\n\r\nPaid on 12 March 2026\r\nTotal EUR 26.00\r\n`,
      );
      const read = await readFile({ kind: 'mail', type: 'message/rfc822', bytes, asOf: AS_OF });
      expect([read.reading.merchant?.value, read.reading.amount?.value, read.reading.date?.value]).toEqual([
        'Saltway Rail',
        '26.00',
        '2026-03-12',
      ]);
    }
  });

  it('has the day of the mail that was forwarded, and no department for a merchant', async () => {
    const day = (row: string) =>
      mailText(
        mail(
          HEAD,
          'text/plain',
          `---\r\nFrom: Receipts <till@harbour-cafe.example>\r\n${row}\r\nSubject: Receipt 17\r\n\r\nTotal EUR 26.00\r\n`,
        ),
      );
    expect((await day('Sent: Thursday, 12 March 2026 14:22')).split('\n').slice(0, 3)).toEqual([
      'harbour cafe',
      'Receipt 17',
      'Sent: Thursday, 12 March 2026 14:22',
    ]);
    const named = mail(HEAD.replace('Saltway Rail', 'Billing'), 'text/plain', 'Total EUR 26.00\r\n');
    expect((await mailText(named)).split('\n')[0]).toBe('saltway');
  });

  const attached = (count: number, body: string) => {
    const part = (i: number) =>
      `--b\r\nContent-Type: image/png; name="r${i}.png"\r\nContent-Disposition: attachment; filename="r${i}.png"\r\nContent-Transfer-Encoding: base64\r\n\r\niVBORw0KGgo=\r\n`;
    return Buffer.from(
      `${HEAD}\r\nMIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary="b"\r\n\r\n--b\r\nContent-Type: text/plain\r\n\r\n${body}\r\n${Array.from({ length: count }, (_, i) => part(i + 1)).join('')}--b--\r\n`,
    );
  };

  it('with attachments is a receipt itself too, where it says something', async () => {
    const file = await inspect(attached(2, 'Total EUR 26.00'));
    expect(file).toMatchObject({
      ok: true,
      kind: 'parcel',
      parts: [{ name: 'r1.png' }, { name: 'r2.png' }],
      beyond: [],
      body: { kind: 'mail' },
    });
    expect(await inspect(attached(1, ''))).toMatchObject({ kind: 'parcel', body: null });
  });

  it('says by name which attachments are too many', async () => {
    expect(await inspect(attached(22, ''))).toMatchObject({ beyond: ['r21.png', 'r22.png'] });
  });
});
