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
 * of different formats, add nothing. The bank's reference decides; an entry or a charge without one is the same as
 * another of that day and amount, one for one, so two equal coffees stay two. Example: the same file twice → all
 * entries known the second time, none fresh.
 */
export function newEntries(entries: readonly StatementEntry[], charges: readonly KnownCharge[]): Sorted {
  const byReference = new Map(charges.filter((c) => c.reference !== null).map((c) => [c.reference!, c]));
  const taken = new Set<string>();
  const known: Sorted['known'] = [];
  const take = (entry: StatementEntry, charge: KnownCharge) => {
    taken.add(charge.id);
    known.push({ entry, id: charge.id });
  };
  const seen = new Set<string>();
  const unsettled: StatementEntry[] = [];
  for (const entry of entries) {
    const same = entry.reference === null ? undefined : byReference.get(entry.reference);
    if (same) take(entry, same);
    else if (entry.reference === null || !seen.has(entry.reference)) unsettled.push(entry);
    if (entry.reference !== null) seen.add(entry.reference);
  }
  const likeKey = (bookedOn: string, settled: string) => `${bookedOn} ${settled}`;
  const alike = groupBy(charges, (c) => likeKey(c.bookedOn, c.settled));
  const fresh = unsettled.filter((entry) => {
    const free = alike
      .get(likeKey(entry.bookedOn, entry.settled))
      ?.find((c) => !taken.has(c.id) && (c.reference === null || entry.reference === null));
    if (free) take(entry, free);
    return !free;
  });
  return { fresh, known };
}
