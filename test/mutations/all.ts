import { MUTATIONS, type Mutation } from './mutations.ts';
import { MONEY_MUTATIONS } from './moneyMutations.ts';
import { ACCESS_MUTATIONS } from './accessMutations.ts';
import { STATE_MUTATIONS } from './stateMutations.ts';
import { HANDY_MUTATIONS } from './handyMutations.ts';
import { ADVANCE_MUTATIONS } from './advanceMutations.ts';
import { ROUTE_MUTATIONS } from './routeMutations.ts';
import { HARD_MUTATIONS } from './hardMutations.ts';
import { GATHER_MUTATIONS } from './gatherMutations.ts';
import { PLAN_MUTATIONS } from './planMutations.ts';
import { PREPARE_MUTATIONS } from './prepareMutations.ts';
import { EVIDENCE_MUTATIONS } from './evidenceMutations.ts';
import { REVIEW_MUTATIONS } from './reviewMutations.ts';
import { KEPT_MUTATIONS } from './keptMutations.ts';
import { REFUSAL_MUTATIONS } from './refusalMutations.ts';
import { LOST_MUTATIONS } from './lostMutations.ts';
import { WEB_MUTATIONS } from './webMutations.ts';

/** Every rule that is broken on purpose. */
export const ALL_MUTATIONS: readonly Mutation[] = [
  ...MUTATIONS,
  ...MONEY_MUTATIONS,
  ...ACCESS_MUTATIONS,
  ...STATE_MUTATIONS,
  ...HARD_MUTATIONS,
  ...GATHER_MUTATIONS,
  ...PREPARE_MUTATIONS,
  ...PLAN_MUTATIONS,
  ...HANDY_MUTATIONS,
  ...ROUTE_MUTATIONS,
  ...ADVANCE_MUTATIONS,
  ...EVIDENCE_MUTATIONS,
  ...REVIEW_MUTATIONS,
  ...KEPT_MUTATIONS,
  ...REFUSAL_MUTATIONS,
  ...LOST_MUTATIONS,
  ...WEB_MUTATIONS,
];

/** How often what a mutation replaces stands in its file; it has to be once. */
export const placesOf = ({ find }: Mutation, source: string): number => source.split(find).length - 1;
