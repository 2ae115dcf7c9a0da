import type { Line } from '../../documents/case.schema.ts';
import { mileage } from '../../figures/allowance/mileage.ts';
import type { LineFigures, OpenCase } from '../../figures/figures.types.ts';
import type { Verdict } from '../../figures/policy/policy.types.ts';
import { fromMinor, toMinor } from '../../numbers/amount.ts';

/**
 * Journeys beside what their person drove before as it counts now (`driven`, by line, in the unit of the journey): where a
 * journey was computed with another distance, what is allowed of it may not be more than it comes to now. Nothing of journeys
 * whose distance before is the same. Example: 100 km at 0.45 computed from 0, of which 10,000 km now stand before at 0.25 → 20.00 too much.
 */
export function judgeDriven(
  { case: { book } }: OpenCase,
  lines: readonly LineFigures[],
  driven: Readonly<Record<string, string>>,
): Verdict[] {
  return lines.flatMap(({ line, amount }) => {
    const now = driven[line.id];
    const { journey } = line;
    if (now === undefined || !journey || now === (journey.before ?? '0')) return [];
    const worth = mileage({ ...journey, before: now, date: line.date }, book.mileageRates ?? []);
    if (worth?.currency !== line.currency) return [];
    return [verdict(line, now, worth.amount, amount - toMinor(worth.amount, line.currency))];
  });
}

function verdict(line: Line, now: string, worth: string, excess: bigint): Verdict {
  const { unit, before } = line.journey!;
  const kept = excess <= 0n;
  const difference = kept ? null : fromMinor(excess, line.currency);
  const changed = `${before ?? '0'} ${unit} stood before this journey when it was computed; ${now} ${unit} count now, so it comes to ${worth} ${line.currency}`;
  return {
    ...{ rule: 'distance-before', kind: 'limit', severity: 'ask', kept, line: line.id, item: null },
    ...{ subject: 'distance before', actual: before ?? '0', allowed: now, unit, difference },
    says: kept ? `${changed}.` : `${changed}, ${difference} less. Allow that much less.`,
    wants: 'What was driven before counts as it is when the claim is cleared and posted.',
    ...{ short: 'distance', owner: null },
  };
}
