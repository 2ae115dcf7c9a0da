import type { Book, Card, Purchase } from './book.ts';

/** Made-up merchants of the coast, with their ISO 18245 codes (from memory). */
const SHOPS: [name: string, country: string, code: string, from: number, to: number][] = [
  ['SLANEY QUAY STORES', 'IE', '5411', 600, 8200],
  ['REEDBED CAFE WEXFORD', 'IE', '5812', 350, 3900],
  ['CURLEW ROOMS', 'IE', '7011', 7900, 18900],
  ['ESTUARY COACHES', 'IE', '4131', 1200, 4400],
  ['TIDEWATER OUTFITTERS', 'IE', '5941', 2200, 26000],
  ['HARBOUR PARKING 2', 'IE', '7523', 200, 1800],
];

/** What is bought with a card on a day: the same for the same card and day, so that any night can be asked for again. */
export function purchasesOn(card: Card, day: string): Purchase[] {
  const next = numbers(`${card.id} ${day}`);
  const count = [0, 1, 1, 2][Math.floor(next() * 4)]!;
  return Array.from({ length: count }, (_, i) => {
    const [merchant, country, categoryCode, low, high] = SHOPS[Math.floor(next() * SHOPS.length)]!;
    const scale = card.currency === 'JPY' ? 1.6 : 1;
    return {
      reference: `${card.id}${day.replaceAll('-', '')}${String(i + 1).padStart(2, '0')}`,
      card: card.id,
      purchasedOn: day,
      bookedOn: day,
      settled: Math.round((low + next() * (high - low)) * scale),
      merchant,
      country,
      categoryCode,
    };
  });
}

/** Adds a day's purchases of every card to the book, once. */
export function passDay(book: Book, day: string): void {
  const there = new Set(book.purchases.map((p) => p.reference));
  for (const card of book.cards.filter((c) => !c.idle))
    book.purchases.push(...purchasesOn(card, day).filter((p) => !there.has(p.reference)));
}

/** Numbers from 0 to below 1 that depend on a text alone. */
function numbers(text: string): () => number {
  let state = [...text].reduce((a, c) => (Math.imul(a, 31) + c.charCodeAt(0)) | 0, 7);
  return () => {
    state = (Math.imul(state ^ (state >>> 15), 0x2c1b3c6d) + 0x9e3779b9) | 0;
    return ((state ^ (state >>> 13)) >>> 0) / 4294967296;
  };
}
