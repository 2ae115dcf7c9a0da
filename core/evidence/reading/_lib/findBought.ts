import { magnitude } from '../../../numbers/amount.ts';
import type { FoundItem } from '../reading.types.ts';
import { plain, spotAt, type TextLine } from './lines.ts';
import type { Money } from './money.ts';
import type { Total } from './findTotal.ts';
import { NO_ITEM } from './paymentWords.ts';
import { CHANGE, EXTRA, HANDED, PAID_BY, PART_OF_TOTAL, STRONG_TOTAL, TAX, TOTAL } from './vocabulary.ts';

const NAMED = 2;
/** Among how many words at its head a row says what it is. */
const LABEL = 2;
const LONGEST = 120;

/**
 * What was bought: the rows above the total that have words and an amount at their end; words on the row above count
 * where quantity and price have one of their own. @param total null looks at every row
 */
export function findBought(
  lines: readonly TextLine[],
  amounts: readonly Money[],
  total: Total | null,
  write: (minor: bigint) => string,
): FoundItem[] {
  return lines.flatMap((line, index) => {
    if (total && index >= total.line) return [];
    const money = amounts.filter((a) => a.line === index && a.exact).at(-1);
    if (!money || isNone(line.text) || !endsWith(line, money)) return [];
    if (total && magnitude(money.minor) > magnitude(total.minor)) return [];
    const words = wordsBefore(line, money) ?? wordsAbove(lines, amounts, index);
    if (words === null) return [];
    const spot = spotAt(line, 0, line.text.length);
    return [{ text: words.slice(0, LONGEST), amount: write(money.minor), spot }];
  });
}

/** A row that begins with a word for a sum, a tax or a payment is no item; further on such a word is part of a name. */
const isNone = (text: string): boolean => {
  const words = plain(text).split(/\s+/).slice(0, LABEL).join(' ');
  return [CHANGE, EXTRA, HANDED, NO_ITEM, PAID_BY, PART_OF_TOTAL, STRONG_TOTAL, TAX, TOTAL].some((p) => p.test(words));
};

/** Behind the amount of an item stand at most a currency and the letter or star of its tax. */
const endsWith = (line: TextLine, money: Money): boolean =>
  /^\s?\S{0,3}(?:\s\S{1,2})?$/.test(line.text.slice(money.end));

const hasName = (text: string): boolean => (text.match(/\p{L}/gu) ?? []).length >= NAMED;

const SIGNS = '.:·…-€$£¥ ';

function wordsBefore(line: TextLine, money: Money): string | null {
  let text = line.text.slice(0, money.start);
  while (text !== '' && SIGNS.includes(text.at(-1)!)) text = text.slice(0, -1);
  const words = text.replace(/(?<=^|\s)(?:kr|[A-Z]{3})$/u, '').trim();
  return hasName(words) ? words : null;
}

function wordsAbove(lines: readonly TextLine[], amounts: readonly Money[], index: number): string | null {
  const above = lines[index - 1];
  const bare = above && above.page === lines[index]!.page && !amounts.some((a) => a.line === index - 1 && a.exact);
  return bare && hasName(above.text) && !isNone(above.text) ? above.text : null;
}
