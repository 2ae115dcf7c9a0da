import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import sharp from 'sharp';
import { randomFrom } from '../../demo/random.ts';
import type { Reading } from '../../core/evidence/reading/reading.types.ts';
import { AS_OF, type Drawn } from './drawn.ts';
import { inventFacts, LOCALES, type Facts } from './facts.ts';
import { MORE_LOCALES } from './moreLocales.ts';
import { openPress, SHEETS, sheetOf } from './sheets.ts';

/** Papers on which nothing may be sure: what is written on them by hand, and two that lie in one picture. */
const { resolve } = createRequire(import.meta.url);
const HANDS = ['caveat', 'reenie-beanie', 'homemade-apple'].map((font) => ({
  font,
  url: `data:font/woff2;base64,${readFileSync(
    resolve(`@fontsource/${font}/files/${font}-latin-400-normal.woff2`),
  ).toString('base64')}`,
}));
const TIPS = ['Tip', 'Gratuity', 'Trinkgeld', 'Pourboire', 'Service'];
export const HARD = 24;

/** A printed slip with a tip and another total under it in somebody's hand: that total is the one that was paid. */
export async function* byHand(seed: number): AsyncGenerator<Drawn> {
  const random = randomFrom(seed);
  const press = await openPress();
  try {
    for (let i = 0; i < HARD; i += 1) {
      const printed = inventFacts(random, LOCALES[i % LOCALES.length]!, AS_OF);
      const tip = Math.max(1, Math.round(printed.total * 0.1));
      const png = await press.print(sheetOf(i % SHEETS, printed) + written(printed, tip, i));
      yield {
        at: `${HANDS[i % HANDS.length]!.font} ${i + 1}`,
        facts: { ...printed, total: printed.total + tip },
        bytes: png,
      };
    }
  } finally {
    await press.close();
  }
}

function written({ locale, total }: Facts, tip: number, i: number): string {
  const { font, url } = HANDS[i % HANDS.length]!;
  const row = (label: string, minor: number) =>
    `<div class="row" style="font:${28 + (i % 3) * 4}px '${font}';color:#1c2c6e"><span>${label}</span><span>${locale.number(minor)}</span></div>`;
  return `<style>@font-face{font-family:'${font}';src:url(${url})}</style>${row(TIPS[i % TIPS.length]!, tip)}${row('Total', total + tip)}`;
}

/** Two slips on one table, side by side or one below the other. */
export async function* twoPapers(seed: number): AsyncGenerator<Drawn> {
  const random = randomFrom(seed);
  const press = await openPress();
  try {
    for (let i = 0; i < HARD; i += 1) {
      const [a, b] = [i, i + 7].map((k) => inventFacts(random, MORE_LOCALES[k % MORE_LOCALES.length]!, AS_OF)) as [
        Facts,
        Facts,
      ];
      const [left, right] = [
        await press.print(sheetOf(i % SHEETS, a)),
        await press.print(sheetOf((i + 13) % SHEETS, b)),
      ];
      yield {
        at: `${i % 2 ? 'side by side' : 'one below the other'} ${i + 1}`,
        facts: a,
        bytes: await onOneTable(left, right, i % 2 === 1),
      };
    }
  } finally {
    await press.close();
  }
}

const GAP = 60;
async function onOneTable(first: Buffer, second: Buffer, beside: boolean): Promise<Buffer> {
  const size = async (png: Buffer) => (await sharp(png).metadata()) as { width: number; height: number };
  const [a, b] = [await size(first), await size(second)];
  const width = beside ? a.width + b.width + 3 * GAP : Math.max(a.width, b.width) + 2 * GAP;
  const height = beside ? Math.max(a.height, b.height) + 2 * GAP : a.height + b.height + 3 * GAP;
  const at = beside ? { left: a.width + 2 * GAP, top: GAP } : { left: GAP, top: a.height + 2 * GAP };
  return sharp({ create: { width, height, channels: 3, background: '#8d8579' } })
    .composite([
      { input: first, left: GAP, top: GAP },
      { input: second, ...at },
    ])
    .jpeg({ quality: 90 })
    .toBuffer();
}

const SHOWN = ['amount', 'date', 'merchant'] as const;
/** What of a reading is called sure. */
export const sureOf = (reading: Reading): (typeof SHOWN)[number][] =>
  SHOWN.filter((field) => reading[field]?.sure === 'sure');
