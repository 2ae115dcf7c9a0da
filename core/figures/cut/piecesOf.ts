import type { Item, Line } from '../../documents/case.schema.ts';
import { toMinor } from '../../numbers/amount.ts';

/** A part of a line before it is computed, amounts in minor units of the line's currency. */
export interface Piece {
  /** The item, or null for the line itself. */
  item: Item | null;
  personal: boolean;
  /** As it was claimed: what evidence, quantities, tax entries and splits are judged by. */
  claimed: bigint;
  /** What of it stands after finance cut it. */
  allowed: bigint;
}

/**
 * The parts a line consists of, in the order in which their amounts run up to it (rule 31): its items, or itself as one.
 * What was cut of own money is gone; what was cut of a card charge stays as personal parts at the end, since the bank took
 * it. Example: a card line of 20.00 of which 5.00 are cut → 15.00, and 5.00 personal.
 */
export function piecesOf(line: Line): Piece[] {
  const sources = line.items?.length
    ? line.items.map((item) => ({ item, source: item }))
    : [{ item: null, source: line }];
  const pieces = sources.map(({ item, source }) => {
    const claimed = toMinor(source.amount, line.currency);
    const cut = source.cut ? toMinor(source.cut.amount, line.currency) : 0n;
    return { item, personal: line.personal === true || source.personal === true, claimed, allowed: claimed - cut };
  });
  if (line.paidBy !== 'card') return pieces;
  return [...pieces, ...pieces.flatMap(privateOf)];
}

function privateOf({ item, claimed, allowed }: Piece): Piece[] {
  const cut = claimed - allowed;
  return cut === 0n ? [] : [{ item, personal: true, claimed: cut, allowed: cut }];
}
