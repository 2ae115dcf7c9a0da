import { fromMinor, magnitude, toMinor } from '../../numbers/amount.ts';
import { daysBetween } from '../../numbers/isoDate.ts';
import type { Statement, StatementEntry } from './statement.types.ts';

/**
 * What does not agree in a statement, in words with the difference; empty when all totals hold: closing = opening −
 * spent + come back, the count and sum it states of itself, no entry of nothing or of another time. Example: opening 100.00, spent 30.00, closing 80.00 →
 * one text, a difference of 10.00.
 */
export function checkStatement(statement: Statement): string[] {
  const { currency, entries, opening, closing } = statement;
  const problems: string[] = [];
  const spent = entries.reduce((a, e) => a + toMinor(e.settled, currency), 0n);
  if (opening !== null && closing !== null) {
    const expected = toMinor(opening, currency) - spent;
    const difference = toMinor(closing, currency) - expected;
    if (difference !== 0n)
      problems.push(
        `Its entries lead from ${opening} to ${fromMinor(expected, currency)} ${currency}, but it closes with ${closing}: ${fromMinor(difference, currency)} does not agree.`,
      );
  }
  problems.push(...ofStated(statement), ...statement.entries.flatMap((e, i) => ofEntry(e, i + 1, statement)));
  return problems;
}

/** What the document says of itself, against what the standard counts; several countings are usual, and one has to hold. */
function ofStated(statement: Statement): string[] {
  const { stated, entries, currency } = statement;
  const counted = statement.counted ?? [{ count: entries.length, sum: fromMinor(sumOf(statement), currency) }];
  const fits = counted.some(
    ({ count, sum }) => (stated.count ?? count) === count && (stated.sum === null || stated.sum === sum),
  );
  if (fits) return [];
  const { count, sum } = counted[0]!;
  const texts = [];
  if (stated.count !== null && stated.count !== count)
    texts.push(`It says it has ${stated.count} entries, and ${count} are in it.`);
  if (stated.sum !== null && stated.sum !== sum)
    texts.push(`It says its entries come to ${stated.sum} ${currency}, and they come to ${sum}.`);
  return texts;
}

const DAYS_APART = 366;

/** An entry that no card has: of nothing, or of another time than the statement's. */
function ofEntry({ settled, bookedOn }: StatementEntry, number: number, { from, to }: Statement): string[] {
  const texts = [];
  if (!/[1-9]/.test(settled)) texts.push(`Its entry ${number} is of ${settled}.`);
  const early = from !== null && daysBetween(bookedOn, from) > DAYS_APART;
  const late = to !== null && daysBetween(to, bookedOn) > DAYS_APART;
  if (early || late) texts.push(`Its entry ${number} is of ${bookedOn}, more than a year beyond its days.`);
  return texts;
}

/** The sum of all amounts without their signs, as statements count it. */
const sumOf = ({ entries, currency }: Statement): bigint =>
  entries.reduce((a, e) => a + magnitude(toMinor(e.settled, currency)), 0n);
