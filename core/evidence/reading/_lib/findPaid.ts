import type { Found } from '../reading.types.ts';
import { paidByCard } from '../paidByCard.ts';
import { isCardLine } from './findCard.ts';
import { confidenceAt, plain, spotAt, type TextLine } from './lines.ts';
import type { Money } from './money.ts';
import { BALANCE, OWED, SETTLED } from './paymentWords.ts';
import { HANDED, PAID_BY } from './vocabulary.ts';

const LEGIBLE = 60;
const LONGEST = 120;

/**
 * What on the paper says that it was paid, in its own words: the digits of the card, what was handed over or charged (at
 * least the total), or words such as paid and received. A word that something is still owed says nothing of payment.
 * @param total what was to be paid, in minor units
 */
export function findPaid(
  lines: readonly TextLine[],
  amounts: readonly Money[],
  total: bigint | null,
  card: Found | null,
): Found | null {
  if (card) return paidByCard(card);
  for (const [index, line] of lines.entries()) {
    const words = plain(line.text);
    if (OWED.test(words)) continue;
    const figures = amounts.filter((a) => a.line === index && a.exact);
    const settles = total !== null && figures.some((a) => a.minor >= total);
    // a figure below the total is a part of it, or nothing; nothing as what is left is all of it
    const all = settles || (BALANCE.test(words) ? figures.every((a) => a.minor === 0n) : figures.length === 0);
    if (SETTLED.test(words) && all) return said(line, 'it says that it was paid');
    if (settles && (HANDED.test(words) || PAID_BY.test(words) || isCardLine(line.text)))
      return said(line, 'the total stands beside how it was paid');
  }
  return null;
}

function said(line: TextLine, because: string): Found {
  const { length } = line.text;
  const sure = confidenceAt(line, 0, length) >= LEGIBLE ? 'likely' : 'doubtful';
  return { value: line.text.slice(0, LONGEST), sure, spot: spotAt(line, 0, length), because };
}
