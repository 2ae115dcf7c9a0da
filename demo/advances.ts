import type { AdvanceRule } from '../core/advances/advance.schema.ts';
import type { BeginAdvance } from '../contract/advances.ts';
import { addDays } from '../core/numbers/isoDate.ts';
import { approveAdvance, grantAdvance } from '../server/features/advances/decide.service.ts';
import { beginAdvance, requestAdvance } from '../server/features/advances/advances.service.ts';
import { payOutAdvance } from '../server/features/advances/payments.service.ts';
import type { Context } from '../server/platform/context.ts';
import { selectAdvance } from '../server/records/advances/advances.queries.ts';
import { actorOf, clockAt, moment } from './actors.ts';

/** What one person may have open, and that nobody gets another advance while one is overdue. */
export const advanceRules: ({ id: string } & AdvanceRule)[] = [
  { id: 'most-open', is: { rule: 'most open', amount: '2500.00', currency: 'EUR' } },
  { id: 'none-while-overdue', is: { rule: 'none while overdue' } },
];

/** An advance, as far as it has come; days count from the day of the demo. */
export interface AdvanceSeed {
  number: string;
  person: string;
  begun: number;
  ask: Pick<BeginAdvance, 'kind' | 'purpose' | 'amount' | 'currency' | 'exception'>;
  trip?: [number, number];
  state: 'requested' | 'in review' | 'to pay out' | 'paid out';
  dueIn?: number;
  /** What the bank took, in the ledger's currency; by the rate of the day without. */
  bank?: string;
}

const CONTROLLER = 'P03';
const REVIEWER = 'P02';

export const advances: AdvanceSeed[] = [
  {
    ...{ number: 'A-031', person: 'P08', begun: -38, state: 'paid out', dueIn: -4, bank: '428.57' },
    ask: { kind: 'trip', purpose: 'Cash for Gazi Bay', amount: '60000.00', currency: 'KES' },
    trip: [-33, -12],
  },
  {
    ...{ number: 'A-032', person: 'P13', begun: -3, state: 'requested' },
    ask: { kind: 'purchases', purpose: 'Stakes and rope from the harbour market', amount: '420.00', currency: 'EUR' },
  },
  {
    ...{ number: 'A-033', person: 'P08', begun: -2, state: 'in review' },
    ask: {
      ...{ kind: 'trip', purpose: 'Porters at Mida Creek', amount: '25000.00', currency: 'KES' },
      exception: 'The porters are paid in cash each evening; the receipts of Gazi Bay come with the next boat.',
    },
    trip: [6, 11],
  },
  {
    ...{ number: 'A-034', person: 'P07', begun: -6, state: 'to pay out', dueIn: 40 },
    ask: { kind: 'float', purpose: 'Cash box of the field station', amount: '60000', currency: 'JPY' },
  },
];

/** Loads an advance through the application's own acts. */
export async function loadAdvance(context: Context, seed: AdvanceSeed, day: string): Promise<void> {
  const { number, person, begun, ask, trip, state, dueIn = 30, bank } = seed;
  const begunOn = addDays(day, begun);
  const at = (days: number): Context => ({ ...context, clock: clockAt(moment(addDays(begunOn, days), 9)) });
  const seen = async () => ({ number, revision: (await selectAdvance(context.db, number))!.revision });
  const days = trip ? { from: addDays(day, trip[0]), to: addDays(day, trip[1]) } : {};
  await beginAdvance(at(0), actorOf(person), { ...ask, ...days, number });
  await requestAdvance(at(0), actorOf(person), await seen());
  if (state === 'requested') return;
  const decider = async () => (await selectAdvance(context.db, number))!.deciders[0];
  for (let by = await decider(); by; by = await decider()) await approveAdvance(at(1), actorOf(by), await seen());
  if (state === 'in review') return;
  await grantAdvance(at(2), actorOf(REVIEWER), { ...(await seen()), dueBy: addDays(day, dueIn) });
  if (state === 'to pay out') return;
  const date = addDays(begunOn, 4);
  const paid = { date, bank, reference: `SEPA ${number}` };
  await payOutAdvance(at(4), actorOf(CONTROLLER), { ...(await seen()), ...paid });
}
