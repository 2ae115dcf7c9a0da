import { audienceOf, type Audience } from './audienceOf.ts';
import type { Relation, Role } from './lifecycle.types.ts';
import type { ClaimState } from './lifecycles/claim.ts';

/** Somebody as they stand to one claim: what they are to it, and which roles they hold. */
export interface Viewer {
  name: string;
  relation: Relation | null;
  roles: readonly Role[];
}

/** Everybody a claim can meet: each relation by itself, each role by itself, and those of finance whose own it is. */
export const VIEWERS: readonly Viewer[] = [
  { name: 'its claimant', relation: 'claimant', roles: ['claimant'] },
  { name: 'its preparer', relation: 'preparer', roles: ['preparer'] },
  { name: 'its approver', relation: 'approver', roles: ['approver'] },
  { name: 'who was asked before', relation: 'decider', roles: ['approver'] },
  { name: 'owner of a code it was given', relation: 'owner', roles: ['approver'] },
  { name: 'approver who is asked something', relation: 'questioned', roles: ['approver'] },
  { name: 'claimant of another', relation: null, roles: ['claimant'] },
  { name: 'preparer of another', relation: null, roles: ['preparer'] },
  { name: 'approver of another', relation: null, roles: ['approver'] },
  { name: 'reviewer', relation: null, roles: ['reviewer'] },
  { name: 'controller', relation: null, roles: ['controller'] },
  { name: 'auditor', relation: null, roles: ['auditor'] },
  { name: 'administrator', relation: null, roles: ['administrator'] },
  { name: 'reviewer, and its claimant', relation: 'claimant', roles: ['claimant', 'reviewer'] },
  { name: 'reviewer, and its preparer', relation: 'preparer', roles: ['preparer', 'reviewer'] },
  { name: 'controller, and its approver', relation: 'approver', roles: ['approver', 'controller'] },
  { name: 'auditor, and its claimant', relation: 'claimant', roles: ['claimant', 'auditor'] },
];

/**
 * As which audience somebody sees a claim in a state, or null when there is none for them. Example: an administrator →
 * null in every state; a reviewer who is its claimant → "claimant".
 */
export function audienceFor({ relation, roles }: Viewer, state: ClaimState): Audience | null {
  const people = { claimant: 'A', preparer: 'A', approver: 'B', ...(relation ? { [relation]: 'C' } : {}) };
  const person = { id: 'C', holds: (role: Role) => roles.includes(role) };
  const approvers = relation === 'decider' ? ['C'] : [];
  return audienceOf({ state, entity: 'IE', people, approvers, submitted: state !== 'draft' }, person);
}
