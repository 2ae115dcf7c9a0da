import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { photograph } from '../../../../test/fixtures/photographs.ts';
import { cutPicture } from './papers.ts';
import { readFile } from './readFile.ts';

const AS_OF = '2026-06-30';
const readPicture = (bytes: Buffer) => readFile({ kind: 'picture', type: 'image/png', bytes, asOf: AS_OF });

describe('a picture of two papers', () => {
  const OTHER = `KIESEL & MOLE DINER
Harbour Road 4, Galway

15/03/2026            20:41

Fish pie                         14.50
Lemonade                          3.90

TOTAL  EUR                       18.40

VAT 13.5%     16.21               2.19
Cash                             20.00`;
  const both = async (across: boolean) => {
    const size = across ? { width: 1840, height: 640 } : { width: 940, height: 1250 };
    const at = across ? { left: 920, top: 30 } : { left: 20, top: 630 };
    return sharp({ create: { ...size, channels: 3, background: '#ffffff' } })
      .composite([
        { input: await photograph(), left: 0, top: 0 },
        { input: await photograph(OTHER), ...at },
      ])
      .png()
      .toBuffer();
  };
  it('side by side is sure of nothing, and is divided into two that are read', async () => {
    const bytes = await both(true);
    const { reading, remarks } = await readPicture(bytes);
    const { amount, currency, date, merchant, apart } = reading;
    expect([amount, currency, date, merchant].map((f) => f?.sure ?? 'doubtful')).toEqual(Array(4).fill('doubtful'));
    expect(remarks.join()).toContain('2 papers');
    const parts = await cutPicture(
      { bytes, type: 'image/png', turns: [0] },
      apart!.map(({ box }) => box),
    );
    const read = [];
    for (const part of parts)
      read.push(await readFile({ kind: 'picture', type: 'image/jpeg', bytes: part, asOf: AS_OF }));
    expect(read.map((r) => [r.reading.amount?.value, r.reading.date?.value, r.reading.apart])).toEqual([
      ['26.00', '2026-03-12', undefined],
      ['18.40', '2026-03-15', undefined],
    ]);
  });
  it('that lies on its side is cut where its papers are, each upright', async () => {
    const bytes = await sharp(await both(true))
      .rotate(90)
      .png()
      .toBuffer();
    const { reading, turns } = await readPicture(bytes);
    const [first] = await cutPicture(
      { bytes, type: 'image/png', turns },
      reading.apart!.map(({ box }) => box),
    );
    const read = await readFile({ kind: 'picture', type: 'image/jpeg', bytes: first!, asOf: AS_OF });
    expect([read.turns, read.reading.amount?.value, read.reading.date?.value]).toEqual([[0], '26.00', '2026-03-12']);
  });
  it('one below the other says so too', async () => {
    const { reading } = await readPicture(await both(false));
    expect([reading.apart?.length, reading.amount?.sure]).toEqual([2, 'doubtful']);
  });
});
