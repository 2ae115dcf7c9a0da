import type { Person } from '../api/session.ts';

export interface Place {
  path: string;
  name: string;
  roles: readonly string[] | null;
}

/** The places in the order of the work. A person sees those of their roles; their own claims everybody sees. */
const PLACES: readonly Place[] = [
  { path: '/desk', name: 'Desk', roles: ['reviewer', 'controller', 'auditor'] },
  { path: '/ledger', name: 'Ledger', roles: ['reviewer', 'controller', 'auditor'] },
  { path: '/claims', name: 'Claims', roles: null },
];

export function placesOf(person: Person): Place[] {
  return PLACES.filter((place) => place.roles === null || place.roles.some((role) => person.roles.includes(role)));
}
