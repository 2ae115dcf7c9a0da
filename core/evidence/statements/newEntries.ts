import { groupBy } from '../../numbers/groupBy.ts';
import type { StatementEntry } from './statement.types.ts';

/** A charge that is there already, as far as it tells whether an entry is the same. */
export interface KnownCharge {
  id: string;
  reference: string | null;
  bookedOn: string;
  settled: string;
}
export interface Sorted {
  fresh: StatementEntry[];
  /** Entries that are there already, each with the charge it is. */
  known: { entry: StatementEntry; id: string }[];
}

/**
 * Sorts a statement's entries into new ones and those already there, so that importing twice, or overlapping statements
 * of different formats, add nothing, and nothing is ever dropped. The same movement is the same day, amount and side, and
 * the same reference; one without a reference is the same as any of that day and amount. Always one for one, so two equal
 * coffees stay two, and a reference that comes back with anything else is another movement. Example: the same file twice →
 * all entries known the second time, none fresh.
 */
export function newEntries(entries: readonly StatementEntry[], charges: readonly KnownCharge[]): Sorted {
  const known: Sorted['known'] = [];
  const pass = (some: readonly StatementEntry[], free: ReadonlyMap<string, KnownCharge[]>, keyOf: KeyOf) =>
    some.filter((entry) => {
      const charge = free.get(keyOf(entry))?.shift();
      if (charge) known.push({ entry, id: charge.id });
      return !charge;
    });
  const notTaken = () => {
    const taken = new Set(known.map((k) => k.id));
    return charges.filter((c) => !taken.has(c.id));
  };
  // Those that are sure come first, so that one without a reference takes none of theirs.
  const unsure = pass(entries, groupBy(charges, referredTo), referredTo);
  const named = unsure.filter((e) => e.reference !== null);
  const unnamed = unsure.filter((e) => e.reference === null);
  const unclaimed = notTaken().filter((c) => c.reference === null);
  const left = new Set([...pass(named, groupBy(unclaimed, movementOf), movementOf)]);
  for (const entry of pass(unnamed, groupBy(notTaken(), movementOf), movementOf)) left.add(entry);
  return { fresh: entries.filter((e) => left.has(e)), known };
}

type Movement = Pick<KnownCharge, 'reference' | 'bookedOn' | 'settled'>;
type KeyOf = (movement: Movement) => string;
const movementOf: KeyOf = ({ bookedOn, settled }) => `${bookedOn} ${settled}`;
const referredTo: KeyOf = (movement) => `${movementOf(movement)} ${movement.reference ?? ''}`;
