import type { ActRecord, Told } from './lifecycle.types.ts';
import { whoIs } from './standsTo.ts';

/** As what somebody hears of an act: whose record it is, or who is asked to decide. */
export type HearsAs = 'maker' | 'decider';
export interface Hearer {
  person: string;
  as: HearsAs;
}

/**
 * Who hears of an act, each once: the people of the record afterwards that the act tells, of those who decide only whom it asks
 * anew, and not who did it. Whoever did something before is looked up in the history by who keeps it. Example: an approval by
 * P1 that asks P2 next → P2 as decider, the claimant as maker.
 */
export function concerned(
  tells: readonly Told[],
  before: Pick<ActRecord, 'people'>,
  after: Pick<ActRecord, 'people'>,
  actor: string | null,
): Hearer[] {
  const makers = new Set([...whoIs(after, 'claimant'), ...whoIs(after, 'preparer')]);
  const heard = new Map<string, HearsAs>();
  for (const told of tells) {
    if (typeof told !== 'string') continue;
    const decides = told === 'approver' || told === 'owner';
    const asked = decides ? new Set(whoIs(before, told)) : null;
    for (const person of whoIs(after, told))
      if (person !== actor && !asked?.has(person) && !(decides && makers.has(person)) && !heard.has(person))
        heard.set(person, decides || (told === 'questioned' && !makers.has(person)) ? 'decider' : 'maker');
  }
  return [...heard].map(([person, as]) => ({ person, as }));
}
