import type { Found } from './reading.types.ts';

/** That a card is named on a paper says how it was paid. */
export const paidByCard = (card: Found | null): Found | null =>
  card && { ...card, value: `card ending ${card.value}`, because: 'a card is named on it' };
