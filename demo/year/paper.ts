import { createRequire } from 'node:module';
import { createCanvas, GlobalFonts } from '@napi-rs/canvas';
import type { Box, Found, Reading } from '../../core/evidence/reading/reading.types.ts';
import type { Accepted } from '../../server/platform/outside/reading/reading.types.ts';
import type { ReceiptFacts } from '../drawReceipt.ts';

const WIDTH = 340;
const ROW = 21;
const FAMILY = 'Slip, Slip ext';
const resolve = createRequire(import.meta.url).resolve;
for (const [name, script] of [
  ['Slip', 'latin'],
  ['Slip ext', 'latin-ext'],
] as const)
  GlobalFonts.registerFromPath(
    resolve(`@fontsource/courier-prime/files/courier-prime-${script}-400-normal.woff`),
    name,
  );

/** A plain paper, drawn quickly since a year has many, and what a reader finds on it: all of it, with certainty. */
export async function plainPaper(facts: ReceiptFacts): Promise<{ bytes: Buffer; file: Accepted; reading: Reading }> {
  const height = ROW * (facts.rows.length + 8);
  const canvas = createCanvas(WIDTH, height);
  const g = canvas.getContext('2d');
  g.fillStyle = '#fbfaf6';
  g.fillRect(0, 0, WIDTH, height);
  g.fillStyle = '#23211e';
  g.font = `15px ${FAMILY}`;
  let y = 0;
  const write = (left: string, right = ''): Box => {
    y += ROW;
    const width = g.measureText(right || left).width;
    g.fillText(left, 16, y, WIDTH - 32 - (right ? width + 8 : 0));
    if (right) g.fillText(right, WIDTH - 16 - width, y);
    const x = right ? WIDTH - 16 - width : 16;
    return { x: x / WIDTH, y: (y - 14) / height, width: width / WIDTH, height: 18 / height };
  };
  const merchant = write(facts.merchant);
  write(facts.place);
  const taxNumber = facts.taxNumber ? write(`Tax no. ${facts.taxNumber}`) : null;
  const date = write(facts.date);
  const bought = facts.rows.map(([text, amount]) => ({ text, amount, spot: { page: 1, box: write(text, amount) } }));
  const amount = write(`Total ${facts.currency}`, facts.total);
  const paid = write('Paid by card');
  write('Thank you');
  const bytes = await canvas.encode('webp', 60);
  const found = (value: string | null, box: Box | null): Found | null =>
    value === null || box === null ? null : { value, sure: 'sure', spot: { page: 1, box }, because: 'as printed' };
  return {
    bytes,
    file: {
      ...{ ok: true, type: 'image/webp', kind: 'picture', likeness: null },
      pages: [{ bytes, type: 'image/webp', width: WIDTH, height }],
    },
    reading: {
      amount: found(facts.total, amount),
      currency: found(facts.currency, amount),
      date: found(facts.date, date),
      merchant: found(facts.merchant, merchant),
      taxNumber: found(facts.taxNumber, taxNumber),
      ...{ taxes: [], cardDigits: null, bought, paid: found('Paid by card', paid) },
    },
  };
}
