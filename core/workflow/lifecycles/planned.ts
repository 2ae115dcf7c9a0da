import { act, defineLifecycle, way } from './_lib/define.ts';

export const PLAN_STATES = [
  'draft',
  'with approver',
  'approved',
  'declined',
  'withdrawn',
  'used up',
  'lapsed',
] as const;
export type PlanState = (typeof PLAN_STATES)[number];
const MAKERS = ['claimant', 'preparer'] as const;
const decide = (event: string, to: PlanState, needs: readonly ('reason' | 'comment')[]) =>
  act<PlanState>({
    event,
    needs,
    ways: [way(['with approver'], to, { roles: ['approver'], as: ['approver'] })],
    never: MAKERS,
  });

/** A plan, agreed before the money is spent. `lapse` and `useUp` are acts of the system. */
export const planLifecycle = defineLifecycle('plan', PLAN_STATES, {
  begin: act<PlanState>({ event: 'drafted', ways: [way(null, 'draft', { roles: ['claimant', 'preparer'] })] }),
  edit: act<PlanState>({ event: 'edited', ways: [way(['draft'], null, { as: MAKERS })] }),
  submit: act<PlanState>({
    event: 'submitted',
    ways: [way(['draft'], 'with approver', { as: MAKERS })],
    undoneBy: 'withdraw',
  }),
  withdraw: act<PlanState>({
    event: 'withdrawn',
    ways: [way(['with approver', 'approved'], 'withdrawn', { as: MAKERS })],
  }),
  approve: decide('approved', 'approved', ['comment']),
  decline: decide('declined', 'declined', ['reason']),
  claim: act<PlanState>({ event: 'claimed', ways: [way(['approved'], null, { as: MAKERS })] }),
  useUp: act<PlanState>({ event: 'used up', ways: [way(['approved'], 'used up')] }),
  lapse: act<PlanState>({ event: 'lapsed', ways: [way(['approved'], 'lapsed')] }),
});

export const RUN_STATES = ['proposed', 'running', 'paused', 'released', 'finished', 'dropped'] as const;
export type RunState = (typeof RUN_STATES)[number];
const CONTROLLER = { roles: ['controller'] } as const;

/** A run that posts many claims, one transaction a claim. `finish` is an act of the system. */
export const postingRunLifecycle = defineLifecycle('posting run', RUN_STATES, {
  propose: act<RunState>({ event: 'proposed', ways: [way(null, 'proposed', CONTROLLER)] }),
  start: act<RunState>({
    event: 'started',
    ways: [way(['proposed', 'paused'], 'running', CONTROLLER)],
    undoneBy: 'pause',
  }),
  pause: act<RunState>({ event: 'paused', ways: [way(['running'], 'paused', CONTROLLER)], undoneBy: 'start' }),
  finish: act<RunState>({ event: 'finished', ways: [way(['running'], 'finished')] }),
  drop: act<RunState>({ event: 'dropped', ways: [way(['proposed', 'paused'], 'dropped', CONTROLLER)] }),
});

/** A run of payments: put together by one person, released by another. `finish` is an act of the system. */
export const paymentRunLifecycle = defineLifecycle('payment run', RUN_STATES, {
  propose: act<RunState>({ event: 'proposed', ways: [way(null, 'proposed', CONTROLLER)] }),
  release: act<RunState>({ event: 'released', ways: [way(['proposed'], 'released', CONTROLLER)], never: ['maker'] }),
  finish: act<RunState>({ event: 'finished', ways: [way(['released'], 'finished')] }),
  drop: act<RunState>({ event: 'dropped', ways: [way(['proposed'], 'dropped', CONTROLLER)] }),
});
