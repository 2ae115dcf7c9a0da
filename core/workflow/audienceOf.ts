import type { Finding } from '../documents/finding.ts';
import type { ActingPerson, ActRecord } from './lifecycle.types.ts';
import { standsTo } from './standsTo.ts';

/** For whom a claim, or a plan, is shown: each sees a view of its own. */
export const AUDIENCES = ['claimant', 'approver', 'finance', 'auditor'] as const;
export type Audience = (typeof AUDIENCES)[number];

/** A record as it is looked at: whether it ever went out, and everybody who is or was asked to decide about it. */
export interface LookedAt extends ActRecord {
  submitted: boolean;
  approvers: readonly string[];
}

/**
 * The audience a person belongs to for a claim, or null when the claim does not exist for them. Being the claimant or
 * preparer comes before every role, so nobody sees of their own claim what finance says among itself. Approvers and
 * finance see what was submitted, never a draft. Example: a reviewer who is the claimant → "claimant"; a stranger
 * without a role → null.
 */
export function audienceOf(claim: LookedAt, person: ActingPerson): Audience | null {
  if (standsTo(claim, 'claimant', person) || standsTo(claim, 'preparer', person)) return 'claimant';
  if (!claim.submitted) return null;
  if (person.holds('reviewer', claim.entity) || person.holds('controller', claim.entity)) return 'finance';
  if (person.holds('auditor', claim.entity)) return 'auditor';
  const asked =
    claim.approvers.includes(person.id)
    || (['approver', 'owner', 'questioned'] as const).some((r) => standsTo(claim, r, person));
  return asked ? 'approver' : null;
}

/** For whom a plan is shown besides: who books what an approved plan needs. */
export type PlanAudience = Audience | 'booker';

/**
 * As `audienceOf`, for a plan. One that is approved is shown to whoever prepares for others in its entity too, so that they
 * can book for it. Example: a preparer of another record on an approved plan → "booker", on a draft → null.
 */
export function planAudienceOf(plan: LookedAt, person: ActingPerson): PlanAudience | null {
  const books = plan.state === 'approved' && person.holds('preparer', plan.entity);
  return audienceOf(plan, person) ?? (books ? 'booker' : null);
}

/** The budgets of grants and projects are their owners' business, and when it is posted finance's: makers need not put them right. */
export const concernsMakers = ({ code }: Pick<Finding, 'code'>): boolean =>
  code !== 'budget-over' && code !== 'posting-before-line';

/** Whether an audience sees what was asked once it was sent: what approvers are asked is no matter of the makers. */
export const seesQuestion = (audience: Audience, asks: 'claimant' | 'approver'): boolean =>
  audience !== 'claimant' || asks === 'claimant';
