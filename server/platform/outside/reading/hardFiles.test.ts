import { degrees, PDFDocument, StandardFonts } from 'pdf-lib';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { photograph, RECEIPT } from '../../../../test/fixtures/photographs.ts';
import { combinePapers, dividePaper } from './papers.ts';
import { readFile } from './readFile.ts';
import type { ReadResult } from './reading.types.ts';
import { straighten } from './straighten.ts';

const AS_OF = '2026-06-30';
const readPicture = (bytes: Buffer) => readFile({ kind: 'picture', type: 'image/png', bytes, asOf: AS_OF });
const readPdf = (bytes: Uint8Array, more = {}) =>
  readFile({ kind: 'pdf', type: 'application/pdf', bytes: Buffer.from(bytes), asOf: AS_OF, ...more });
const facts = ({ reading: r }: ReadResult) => [r.amount?.value, r.currency?.value, r.date?.value, r.cardDigits?.value];
const FACTS = ['26.00', 'EUR', '2026-03-12', '4410'];

describe('a picture', () => {
  // the other quarters are among the spoilt papers of the bench
  it.each([1, 2])('turned by %i quarters is read, and said how it stands upright', async (turns) => {
    const bytes = await sharp(await photograph())
      .rotate(turns * 90)
      .png()
      .toBuffer();
    const read = await readPicture(bytes);
    expect(facts(read)).toEqual(FACTS);
    expect(read.turns).toEqual([(4 - turns) % 4]);
    // the total stands in the lower half of the upright paper, wherever that is now
    const { x, y, width, height } = read.reading.amount!.spot!.box;
    const [across, down] = [x + width / 2, y + height / 2];
    expect([down, 1 - across, 1 - down, across][turns]).toBeCloseTo(0.55, 1);
  });
});

describe('a scan with little on it and much noise', () => {
  it('is read, and its noise is not taken for ink', async () => {
    const [width, height] = [1300, 1500];
    const paper = await sharp({ create: { width, height, channels: 3, background: '#e8e8e4' } })
      .composite([{ input: await photograph(), left: 200, top: 300, blend: 'darken' }])
      .greyscale()
      .raw()
      .toBuffer();
    let state = 7;
    for (let i = 0; i < paper.length; i += 1) {
      state = (state * 48_271) % 2_147_483_647;
      paper[i] = Math.max(0, Math.min(255, paper[i]! + (state % 111) - 55));
    }
    const scan = await sharp(paper, { raw: { width, height, channels: 1 } })
      .png()
      .toBuffer();
    const { amount, date } = (await readPicture(scan)).reading;
    expect([amount?.value, date?.value]).toEqual(['26.00', '2026-03-12']);
    // as black as ink is at most what letters cover, and a little
    const straight = await sharp((await straighten(scan)).png)
      .raw()
      .toBuffer();
    expect(straight.filter((v) => v < 128).length / straight.length).toBeLessThan(0.02);
  });
});

describe('white letters on a black band', () => {
  it('are read where the total is nowhere else', async () => {
    const paper = await photograph(RECEIPT.split('VAT 23%')[0]);
    const band = { left: 0, top: 336, width: 900, height: 46 };
    const negative = await sharp(paper).extract(band).negate({ alpha: false }).png().toBuffer();
    const bytes = await sharp(paper)
      .composite([{ input: negative, left: band.left, top: band.top }])
      .png()
      .toBuffer();
    expect((await readPicture(bytes)).reading.amount!.value).toBe('26.00');
  });
});

interface Row {
  text: string;
  right?: string;
}
const ROWS: Row[] = RECEIPT.split('\n').map((row) => {
  const [text, right] = row.split(/\s{12,}/);
  return { text: text!, right };
});

async function textPdf(draw: (document: PDFDocument) => Promise<void>): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  await draw(document);
  return document.save();
}

describe('a PDF', () => {
  const totalIsBelowDate = ({ reading: { amount, date } }: ReadResult) =>
    amount!.spot!.box.y > date!.spot!.box.y && amount!.spot!.box.x > 0.5;

  it.each([0, 90, 180, 270])(
    'whose page is turned by %i degrees is read where its figures are shown',
    async (turned) => {
      // drawn so that it stands upright once the page is turned
      const bytes = await textPdf(async (document) => {
        const font = await document.embedFont(StandardFonts.Helvetica);
        const size = turned % 180 === 0 ? ([400, 300] as const) : ([300, 400] as const);
        const page = document.addPage([...size]);
        page.setRotation(degrees(turned));
        const at = (x: number, y: number) => {
          if (turned === 90) return { x: 300 - y, y: x };
          if (turned === 180) return { x: 400 - x, y: 300 - y };
          return turned === 270 ? { x: y, y: 400 - x } : { x, y };
        };
        ROWS.forEach(({ text, right }, i) => {
          const y = 280 - i * 16;
          page.drawText(text, { ...at(20, y), size: 10, font, rotate: degrees(turned) });
          if (right) page.drawText(right, { ...at(320, y), size: 10, font, rotate: degrees(turned) });
        });
      });
      const read = await readPdf(bytes);
      expect(facts(read)).toEqual(FACTS);
      expect(totalIsBelowDate(read)).toBe(true);
      expect(read.turns).toEqual([0]);
    },
  );

  it('whose pages have an origin of their own is read where its figures are shown', async () => {
    const read = await readPdf(
      await textPdf(async (document) => {
        const page = document.addPage([400, 300]);
        page.setMediaBox(1000, -500, 400, 300);
        const font = await document.embedFont(StandardFonts.Helvetica);
        ROWS.forEach(({ text, right }, i) => {
          page.drawText(text, { x: 1020, y: -220 - i * 16, size: 10, font });
          if (right) page.drawText(right, { x: 1320, y: -220 - i * 16, size: 10, font });
        });
      }),
    );
    expect(facts(read)).toEqual(FACTS);
    const { x, y, width } = read.reading.amount!.spot!.box;
    expect([x, y + 0.01, x + width].every((n) => n > 0 && n < 1) && totalIsBelowDate(read)).toBe(true);
  });

  it('drawn on its side is read, and said how it stands upright', async () => {
    const read = await readPdf(
      await textPdf(async (document) => {
        const page = document.addPage([300, 400]);
        const font = await document.embedFont(StandardFonts.Helvetica);
        ROWS.forEach(({ text, right }, i) => {
          page.drawText(text, { x: 20 + i * 16, y: 20, size: 10, font, rotate: degrees(90) });
          if (right) page.drawText(right, { x: 20 + i * 16, y: 320, size: 10, font, rotate: degrees(90) });
        });
      }),
    );
    expect(facts(read)).toEqual(FACTS);
    expect(read.turns).toEqual([1]);
  });

  it('that writes words in pieces is read as words', async () => {
    const read = await readPdf(
      await textPdf(async (document) => {
        const page = document.addPage([400, 300]);
        const font = await document.embedFont(StandardFonts.Helvetica);
        const pieces = (text: string, x: number, y: number) => {
          let at = x;
          for (const letter of text) {
            page.drawText(letter, { x: at, y, size: 12, font });
            at += font.widthOfTextAtSize(letter, 12);
          }
        };
        ['Quayside Ltd', '2026-03-12', 'Total EUR 26.00'].forEach((row, i) => pieces(row, 20, 260 - i * 20));
      }),
    );
    expect(facts(read).slice(0, 3)).toEqual(FACTS.slice(0, 3));
  });

  const scans = async (pictures: Buffer[]): Promise<Uint8Array> =>
    textPdf(async (document) => {
      for (const bytes of pictures) {
        const picture = await document.embedPng(bytes);
        document.addPage([450, 300]).drawImage(picture, { x: 0, y: 0, width: 450, height: 300 });
      }
    });
  const LETTER = 'Dear guest\nplease find on the following pages\nwhat you asked us for\nwith kind regards\nthe office';

  it('of scans is read to its last page', async () => {
    const letter = await photograph(LETTER);
    const read = await readPdf(await scans([letter, letter, await photograph()]));
    expect(facts(read)).toEqual(FACTS);
    expect(read.reading.amount!.spot!.page).toBe(3);
    expect(read.remarks).toEqual([]);
  });

  it('that was not read to its end says so, and is sure of no total', async () => {
    const read = await readPdf(await scans([await photograph(), await photograph(LETTER), await photograph(LETTER)]), {
      seconds: 0,
    });
    expect(read.remarks[0]).toMatch(/^Pages 1 to 3 were not read/);
    const some = await readPdf(
      await textPdf(async (document) => {
        const font = await document.embedFont(StandardFonts.Helvetica);
        const page = document.addPage([400, 300]);
        ROWS.forEach(({ text, right }, i) => {
          page.drawText(text, { x: 20, y: 280 - i * 16, size: 10, font });
          if (right) page.drawText(right, { x: 320, y: 280 - i * 16, size: 10, font });
        });
        const picture = await document.embedPng(await photograph(LETTER));
        document.addPage([450, 300]).drawImage(picture, { x: 0, y: 0, width: 450, height: 300 });
      }),
      { seconds: 0 },
    );
    expect(facts(some)).toEqual(FACTS);
    expect([some.reading.amount!.sure, some.reading.taxes[0]!.sure]).toEqual(['doubtful', 'doubtful']);
    expect(some.remarks[0]).toMatch(/^Page 2 was not read/);
  });
});

describe('papers', () => {
  it('are put together upright, in their order, and the same again from the same files', async () => {
    const bytes = await sharp(await photograph())
      .rotate(90)
      .png()
      .toBuffer();
    const bill = { kind: 'picture' as const, type: 'image/png', bytes, views: [], turns: [3] };
    const slip = { ...bill, kind: 'mail' as const, type: 'message/rfc822', views: [await photograph()], turns: [] };
    const made = await combinePapers([bill, slip]);
    expect(Buffer.compare(made, await combinePapers([bill, slip]))).toBe(0);
    const pages = (await PDFDocument.load(made)).getPages().map((page) => page.getWidth() > page.getHeight());
    expect(pages).toEqual([true, true]);
    expect(facts(await readPdf(made))).toEqual(FACTS);
  });

  it('are divided by pages', async () => {
    const bytes = Buffer.from(
      await textPdf(async (document) => {
        const font = await document.embedFont(StandardFonts.Helvetica);
        for (const total of ['10.00', '20.00', '30.00'])
          document
            .addPage([400, 300])
            .drawText(`Total EUR ${total} on 12.03.2026 at noon`, { x: 20, y: 200, size: 12, font });
      }),
    );
    const [first, rest] = await dividePaper({ bytes, turns: [0, 0, 0] }, [[1], [3, 2]]);
    expect((await readPdf(first!)).reading.amount!.value).toBe('10.00');
    expect((await PDFDocument.load(rest!)).getPageCount()).toBe(2);
  });
});
