import { fromMinor, toMinor } from '../../numbers/amount.ts';
import type { Statement } from './statement.types.ts';

/**
 * What does not agree in a statement, in words with the difference; empty when all totals hold: closing = opening −
 * spent + come back, and the count and sum it states of itself. Example: opening 100.00, spent 30.00, closing 80.00 →
 * one text, a difference of 10.00.
 */
export function checkStatement(statement: Statement): string[] {
  const { currency, entries, opening, closing, stated } = statement;
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
  if (stated.count !== null && stated.count !== entries.length)
    problems.push(`It says it has ${stated.count} entries, and ${entries.length} are in it.`);
  if (stated.sum !== null && sumOf(statement) !== toMinor(stated.sum, currency))
    problems.push(
      `It says its entries come to ${stated.sum} ${currency}, and they come to ${fromMinor(sumOf(statement), currency)}.`,
    );
  return problems;
}

/** The sum of all amounts without their signs, as statements count it. */
const sumOf = ({ entries, currency }: Statement): bigint =>
  entries.reduce((a, e) => {
    const minor = toMinor(e.settled, currency);
    return a + (minor < 0n ? -minor : minor);
  }, 0n);
