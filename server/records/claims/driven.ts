import type { Line } from '../../../core/documents/case.schema.ts';
import { sumDistances } from '../../../core/figures/allowance/mileage.ts';
import type { Db } from '../../platform/db/connect.ts';
import { lockDriven, selectJourneys } from './driven.queries.ts';

/** Whose journeys, and on which claim: its own are counted from its document. */
export interface Driver {
  id: bigint;
  claimant_id: string;
}
type Journeyed = Pick<Line, 'id' | 'date' | 'journey'>;

/**
 * What a person drove with the vehicle of each journey of a claim before it in the calendar year, in the unit of the journey: all
 * that stands on other claims of theirs that are cleared or posted, whatever its day, and what the claim has before it. So the
 * distances of a year are counted once each, in the order in which they are let through, as budgets are.
 */
export async function drivenBefore(
  db: Db,
  driver: Driver,
  lines: readonly Journeyed[],
): Promise<Record<string, string>> {
  const journeys = lines.filter((l) => l.journey);
  if (journeys.length === 0) return {};
  const others = await selectJourneys(db, driver);
  return Object.fromEntries(
    journeys.map((line) => {
      const same = (of: Pick<Journeyed, 'date' | 'journey'>) =>
        of.journey!.vehicle === line.journey!.vehicle && of.date.slice(0, 4) === line.date.slice(0, 4);
      const before = [...others, ...journeys.filter((j) => isEarlier(j, line))].filter(same);
      return [
        line.id,
        sumDistances(
          before.map((j) => j.journey!),
          line.journey!.unit,
        ),
      ];
    }),
  );
}

const isEarlier = (a: Journeyed, b: Journeyed): boolean =>
  a.date < b.date || (a.date === b.date && Number(a.id) < Number(b.id));

/** Holds off others who let journeys of the same person through, until the transaction ends. */
export async function holdDriven(trx: Db, driver: Driver, lines: readonly Journeyed[]): Promise<void> {
  if (lines.some((l) => l.journey)) await lockDriven(trx, driver.claimant_id);
}
