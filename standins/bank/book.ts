/**
 * A small bank that issues cards. It shares no code with the application, so that one mistake cannot agree with itself.
 * Amounts are whole minor units; what is spent is positive.
 */
export interface Purchase {
  reference: string;
  card: string;
  /** ISO 8601. */
  purchasedOn: string;
  bookedOn: string;
  settled: number;
  /** What the merchant charged when that was in another currency. */
  charged?: { amount: number; currency: string };
  merchant: string;
  country: string;
  categoryCode: string;
}
export interface Card {
  id: string;
  currency: string;
  /** What was owed before the first purchase, in minor units. */
  owed: number;
  /** A card on which nothing is bought by itself. */
  idle?: boolean;
}
export interface Book {
  cards: Card[];
  purchases: Purchase[];
}

/** One account over some days: what was owed before, what was bought, what is owed after. */
export interface AccountStatement {
  id: string;
  card: Card;
  from: string;
  to: string;
  owedBefore: number;
  owedAfter: number;
  purchases: Purchase[];
}

export function statementOf(book: Book, cardId: string, from: string, to: string): AccountStatement {
  const card = book.cards.find((c) => c.id === cardId);
  if (!card) throw new Error(`no card ${cardId}`);
  const own = book.purchases.filter((p) => p.card === cardId).sort(byBooking);
  const sum = (list: Purchase[]) => list.reduce((a, p) => a + p.settled, 0);
  const owedBefore = card.owed + sum(own.filter((p) => p.bookedOn < from));
  const purchases = own.filter((p) => p.bookedOn >= from && p.bookedOn <= to);
  return {
    id: `${cardId}-${from}-${to}`,
    card,
    from,
    to,
    owedBefore,
    owedAfter: owedBefore + sum(purchases),
    purchases,
  };
}

const byBooking = (a: Purchase, b: Purchase): number => (a.bookedOn + a.reference < b.bookedOn + b.reference ? -1 : 1);

const DECIMALS: Record<string, number> = { JPY: 0, BHD: 3 };

/** Minor units as a decimal with a point: (1234, "EUR") → "12.34". */
export function decimal(minor: number, currency: string, mark = '.'): string {
  const places = DECIMALS[currency] ?? 2;
  const digits = String(Math.abs(minor)).padStart(places + 1, '0');
  const whole = digits.slice(0, digits.length - places);
  return `${minor < 0 ? '-' : ''}${whole}${places ? mark + digits.slice(-places) : ''}`;
}
