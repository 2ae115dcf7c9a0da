import type { ActingPerson, ActRecord, Relation } from './lifecycle.types.ts';

/** The relations in which a substitute stands for somebody. */
const SUBSTITUTED: readonly Relation[] = ['approver', 'owner'];

/** Everybody who is something to a record; [] for nobody. */
export function whoIs({ people }: Pick<ActRecord, 'people'>, relation: Relation): readonly string[] {
  const named = people[relation] ?? [];
  return typeof named === 'string' ? [named] : named;
}

/**
 * Whether a person is something to a record, themselves or, where decisions are taken, for somebody whose substitute they are
 * where the record's entity is today. Example: B decides, C is B's substitute → C stands to it as approver; A's substitute is not its claimant.
 */
export function standsTo(
  record: Pick<ActRecord, 'people' | 'entity'>,
  relation: Relation,
  person: ActingPerson,
): boolean {
  const named = whoIs(record, relation);
  if (named.includes(person.id)) return true;
  if (!SUBSTITUTED.includes(relation)) return false;
  const absent = person.standsFor?.(record.entity) ?? [];
  return named.some((id) => absent.includes(id));
}
