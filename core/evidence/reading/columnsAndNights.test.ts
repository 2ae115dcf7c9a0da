import { describe, expect, it } from 'vitest';
import { wordsOf } from '../../../test/fixtures/wordsOf.ts';
import { cardPlaces } from './cardPlaces.ts';
import { readDocument } from './readDocument.ts';
import type { Word } from './reading.types.ts';

const AS_OF = '2026-06-30';
const read = (text: string) => readDocument(wordsOf(text), AS_OF);

describe('a folio of several nights', () => {
  const nights = [10, 11, 12, 13].map((d) => `${d}/03/2026 Room and breakfast 96.00`).join('\n');
  it('is of its last day, not of a night whose price looks like a time', () => {
    const text = `#Tideway Hotel\nGuest Ida Quill\n${nights}\nInvoice date 14/03/2026\nTotal EUR 384.00`;
    expect(read(text).date?.value).toBe('2026-03-14');
    expect(read(`#Bar\n12/03/2026 96.00 soup\n14/03/2026 14:22\nTotal EUR 96.00`).date?.value).toBe('2026-03-14');
  });
  it('has the taxes of all its nights', () => {
    const rows = Array(4).fill('Room 85.71 VAT 12% 10.29 96.00').join('\n');
    expect(read(`#Tideway Hotel\n${rows}\nTotal EUR 384.00`).taxes).toMatchObject([{ rate: '12', tax: '41.16' }]);
    const bare = Array(3).fill('incl. VAT 23% 8.98').join('\n');
    expect(read(`#Inn\n${bare}\nTotal EUR 144.00`).taxes).toMatchObject([{ rate: '23', tax: '26.94' }]);
  });
});

describe('the day of a purchase', () => {
  it.each([
    ['Kjøpsdato 04.03.2026\nGyldig til 31.03.2026', '2026-03-04'],
    ['Gültigkeit 09.03.2026\nKaufdatum 04.03.2026', '2026-03-04'],
    ['Entry 04/03/2026 08:10\nExit 05/03/2026 17:30', '2026-03-05'],
  ])('is told from others: %s', (rows, date) => {
    expect(read(`#Quay Parking\n${rows}\nTotal EUR 9.00`).date?.value).toBe(date);
  });
  it('says in which order it was read', () => {
    expect(read('#Diner\n03/04/2026\nTotal $9.00').date?.because).toMatch(/^month before day; it could also be/);
    expect(read('#Diner\n03/04/2026\nTotal 9.00').date?.because).toMatch(/^day before month; it could also be/);
  });
});

describe('a name beside another column', () => {
  it('ends where the other begins', () => {
    expect(read('#LAGOON FERRIES          TICKET 48000017\nTotal EUR 8.40').merchant?.value).toBe('LAGOON FERRIES');
    expect(read('#THE LITTLE QUAY BOOKSHOP\nTotal EUR 8.40').merchant?.value).toBe('THE LITTLE QUAY BOOKSHOP');
  });
});

describe('places where a masked card number may stand', () => {
  const word = (text: string, x: number, y: number, confidence = 96): Word => ({
    text,
    page: 1,
    confidence,
    box: { x, y, width: text.length * 0.02, height: 0.02 },
  });
  const rows = (places: ReturnType<typeof cardPlaces>) => places.map(({ box }) => Number(box.y.toFixed(3)));
  it('are beside the word for it, up to an amount, and below it, near and far', () => {
    const places = cardPlaces([word('VISA', 0.1, 0.5), word('26.00', 0.8, 0.5)]);
    expect(rows(places)).toEqual([0.5, 0.527, 0.538]);
    expect(places[0]!.box.x + places[0]!.box.width).toBeCloseTo(0.8, 5);
  });
  it('are below it where only rubbish stands there, and not where a row does', () => {
    expect(rows(cardPlaces([word('VISA', 0.1, 0.5), word('~i', 0.3, 0.535, 20)]))).toEqual([0.5, 0.527, 0.538]);
    expect(rows(cardPlaces([word('VISA', 0.1, 0.5), word('Thanks', 0.3, 0.535)]))).toEqual([0.5]);
  });
});
