import { DECIDERS, type Role } from '../../core/workflow/lifecycle.types.ts';
import type { Person } from '../api/session.ts';

export interface Place {
  path: string;
  name: string;
  roles: readonly Role[] | null;
}

/** The places in the order of the work. A person sees those of their roles; their own claims everybody sees. */
export const PLACES: readonly Place[] = [
  { path: '/plans', name: 'Plans', roles: null },
  { path: '/advances', name: 'Advances', roles: null },
  { path: '/gather', name: 'Gather', roles: null },
  { path: '/claims', name: 'Claims', roles: null },
  { path: '/approvals', name: 'Approvals', roles: DECIDERS },
  { path: '/desk', name: 'Desk', roles: ['reviewer', 'controller', 'auditor'] },
  { path: '/ledger', name: 'Ledger', roles: ['reviewer', 'controller', 'auditor'] },
  { path: '/setup', name: 'Setup', roles: ['administrator', 'auditor'] },
];

export function placesOf(person: Person): Place[] {
  return PLACES.filter((place) => place.roles === null || place.roles.some((role) => person.roles.includes(role)));
}

/** Where a person begins: at the queue when they have one, at their claims otherwise. */
export function homeOf(person: Person): string {
  return placesOf(person).some((place) => place.path === '/desk') ? '/desk' : '/claims';
}
