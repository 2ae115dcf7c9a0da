import { fromMinor } from '../../core/numbers/amount.ts';
import type { Context } from '../../server/platform/context.ts';
import { loadAdvance, type AdvanceSeed } from '../advances.ts';
import { loadPlan } from '../loadPlans.ts';
import type { PlanSeed } from '../plans.ts';
import { randomFrom } from '../random.ts';
import { APPROVERS, people } from './organisation.ts';

const PLANS = 24;
const ADVANCES = 8;
/** What a day in the field costs besides what the limits allow, in minor units. */
const COSTS: Record<string, [number, number]> = {
  IE: [2000, 18000],
  NO: [20000, 190000],
  JP: [1200, 22000],
  BH: [4000, 60000],
};

/** Plans for field work at home, decided about or not; dates count from the day. */
export function yearPlans(): (PlanSeed & { begun: number })[] {
  const travellers = people.filter((p) => APPROVERS[p.entity] !== p.id);
  return Array.from({ length: PLANS }, (_, i) => {
    const random = randomFrom(40_000 + i);
    const { id, entity, currency } = random.pick(travellers);
    const price = () => ({ price: { amount: fromMinor(BigInt(random.whole(...COSTS[entity]!)), currency), currency } });
    const begins = random.whole(-40, 45);
    return {
      ...{ claimant: id, kind: 'field-home', country: entity, begins },
      purpose: `${random.pick(['Spring', 'Autumn', 'Neap-tide'])} round ${i + 1}`,
      days: random.whole(1, 4),
      coding: { costCentre: '410', fund: '10', project: 'REED-11' },
      state: random.pick(['approved', 'approved', 'with approver', 'declined', 'draft'] as const),
      set: { '1': price(), '3': price() },
      begun: begins - random.whole(12, 30),
    };
  });
}

export async function loadOthers(context: Context, day: string): Promise<void> {
  for (const plan of yearPlans()) await loadPlan(context, plan, day, Math.min(-1, plan.begun));
  for (const advance of yearAdvances()) await loadAdvance(context, advance, day);
}

/** Cash paid out in the currency of the entity, of which nothing is accounted for yet. */
function yearAdvances(): AdvanceSeed[] {
  const free = people.filter((p) => APPROVERS[p.entity] !== p.id);
  return Array.from({ length: ADVANCES }, (_, i) => {
    const random = randomFrom(50_000 + i);
    const { id, entity, currency } = free.splice(random.whole(0, free.length - 1), 1)[0]!;
    const amount = fromMinor(BigInt(random.whole(...COSTS[entity]!) * 3), currency);
    const begun = -random.whole(7, 54);
    return {
      ...{ number: `A-${101 + i}`, person: id, begun, state: 'paid out', dueIn: begun + 49 },
      ask: { kind: 'purchases', purpose: 'Cash for the field', amount, currency },
    };
  });
}
