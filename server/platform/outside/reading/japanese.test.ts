import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readFile } from './readFile.ts';

/** A till's slip in Japanese, set once with the IPA Gothic type of Debian's fonts-ipafont-gothic. */
const bytes = readFileSync(new URL('../../../../test/fixtures/japanese.png', import.meta.url));
const read = (languages: string[]) =>
  readFile({ kind: 'picture', type: 'image/png', bytes, asOf: '2026-12-01', languages });

describe('a picture in a script that is not Latin', () => {
  it('is read in its language, where that is there', async () => {
    const { reading, remarks } = await read(['jpn']);
    expect(reading).toMatchObject({
      amount: { value: '1760' },
      currency: { value: 'JPY' },
      date: { value: '2026-11-18' },
      merchant: { value: '港町文具店' },
    });
    expect(reading.taxes.map(({ tax, rate }) => [tax, rate])).toEqual([['160', '10']]);
    expect(remarks).toEqual([]);
  });
  it('is said not to be read otherwise, and nothing of it is sure', async () => {
    const { reading, remarks } = await read([]);
    expect(remarks).toEqual([expect.stringContaining('Its words could not be read')]);
    const { amount, currency, date, merchant, taxNumber, cardDigits } = reading;
    const found = [amount, currency, date, merchant, taxNumber, cardDigits, ...reading.taxes].filter(Boolean);
    expect(new Set(found.map((f) => f!.sure))).toEqual(new Set(['doubtful']));
  });
});
