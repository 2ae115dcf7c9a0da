/** A column as a person has it: which, and how wide in rem. */
export interface Arranged<Id extends string = string> {
  id: Id;
  width: number;
}

/** In rem; the contract holds to the same. */
export const [NARROWEST, WIDEST] = [4, 24];

/** The columns with one made wider or narrower, within bounds. */
export const sized = <Id extends string>(columns: readonly Arranged<Id>[], id: Id, width: number): Arranged<Id>[] =>
  columns.map((c) => (c.id === id ? { ...c, width: Math.max(NARROWEST, Math.min(WIDEST, width)) } : c));

/** The columns with one hidden, or shown at the end. */
export const toggled = <Id extends string>(columns: readonly Arranged<Id>[], one: Arranged<Id>): Arranged<Id>[] =>
  columns.some((c) => c.id === one.id) ? columns.filter((c) => c.id !== one.id) : [...columns, one];
