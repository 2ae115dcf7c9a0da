import { DECIDERS } from '../lifecycle.types.ts';
import { act, beginnings, defineLifecycle, GO_ON, MAKERS_TOLD, NEXT_TOLD, way } from './_lib/define.ts';

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
const decide = (
  event: string,
  to: PlanState | null,
  needs: readonly ('reason' | 'comment')[],
  undoneBy: string | null = null,
) =>
  act<PlanState>({
    event,
    needs,
    ways: [way(['with approver'], to, { roles: DECIDERS, as: ['approver'] })],
    never: MAKERS,
    undoneBy,
    tells: NEXT_TOLD,
  });

const BEGIN = beginnings<PlanState>('draft');

/** A plan, agreed before the money is spent. */
export const planLifecycle = defineLifecycle('plan', PLAN_STATES, {
  begin: act<PlanState>({ event: 'drafted', ways: BEGIN }),
  edit: act<PlanState>({ event: 'edited', ways: [way(['draft'], null, { as: MAKERS })] }),
  submit: act<PlanState>({
    event: 'submitted',
    ways: [way(['draft'], 'with approver', { as: MAKERS })],
    undoneBy: 'callBack',
    tells: NEXT_TOLD,
  }),
  withdraw: act<PlanState>({
    event: 'withdrawn',
    ways: [way(['draft', 'approved'], 'withdrawn', { as: MAKERS })],
    undoneBy: 'bringBack',
  }),
  callBack: act<PlanState>({
    event: 'called back',
    ways: [way(['with approver'], 'draft', { as: MAKERS })],
    undoneBy: 'submit',
  }),
  bringBack: act<PlanState>({ event: 'brought back', ways: [way(['withdrawn'], 'draft', { as: MAKERS })] }),
  approve: decide('approved', 'approved', ['comment'], 'takeBack'),
  approvePart: decide('approved', null, ['comment'], 'takeBack'),
  takeBack: act<PlanState>({
    event: 'decision taken back',
    ways: [
      way(['with approver'], null, { roles: DECIDERS, as: ['decider'] }),
      way(['approved'], 'with approver', { roles: DECIDERS, as: ['decider'] }),
    ],
    never: MAKERS,
  }),
  decline: { ...decide('declined', 'declined', ['reason']), tells: MAKERS_TOLD },
  book: act<PlanState>({ event: 'booked', ways: [way(['approved'], null, { roles: ['preparer'] })], undoneBy: 'book' }),
  claim: act<PlanState>({ event: 'claimed', ways: [way(['approved'], null, { as: MAKERS })] }),
  useUp: act<PlanState>({ event: 'used up', bySystem: true, ways: [way(['approved'], 'used up')], undoneBy: 'takeUp' }),
  takeUp: act<PlanState>({ event: 'to be claimed again', bySystem: true, ways: [way(['used up'], 'approved')] }),
  lapse: act<PlanState>({ event: 'lapsed', bySystem: true, ways: [way(['approved'], 'lapsed')], tells: MAKERS_TOLD }),
  reroute: act<PlanState>({ ...GO_ON, ways: [way(['with approver'], null)] }),
});
export type PlanAct = keyof typeof planLifecycle.acts;

export const POSTING_RUN_STATES = ['proposed', 'running', 'paused', 'finished', 'dropped'] as const;
export type PostingRunState = (typeof POSTING_RUN_STATES)[number];
export const PAYMENT_RUN_STATES = ['proposed', 'released', 'finished', 'dropped'] as const;
export type PaymentRunState = (typeof PAYMENT_RUN_STATES)[number];
const CONTROLLER = { roles: ['controller'] } as const;

/** A run that posts many claims, one transaction a claim. */
export const postingRunLifecycle = defineLifecycle('posting run', POSTING_RUN_STATES, {
  propose: act<PostingRunState>({ event: 'proposed', ways: [way(null, 'proposed', CONTROLLER)] }),
  start: act<PostingRunState>({
    event: 'started',
    ways: [way(['proposed', 'paused'], 'running', CONTROLLER)],
    undoneBy: 'pause',
  }),
  pause: act<PostingRunState>({ event: 'paused', ways: [way(['running'], 'paused', CONTROLLER)], undoneBy: 'start' }),
  finish: act<PostingRunState>({ event: 'finished', bySystem: true, ways: [way(['running'], 'finished')] }),
  drop: act<PostingRunState>({ event: 'dropped', ways: [way(['proposed', 'paused'], 'dropped', CONTROLLER)] }),
});

/** A run of payments: put together by one person, released by another. */
export const paymentRunLifecycle = defineLifecycle('payment run', PAYMENT_RUN_STATES, {
  propose: act<PaymentRunState>({ event: 'proposed', ways: [way(null, 'proposed', CONTROLLER)] }),
  release: act<PaymentRunState>({
    event: 'released',
    ways: [way(['proposed'], 'released', CONTROLLER)],
    never: ['maker'],
  }),
  finish: act<PaymentRunState>({ event: 'finished', bySystem: true, ways: [way(['released'], 'finished')] }),
  drop: act<PaymentRunState>({ event: 'dropped', ways: [way(['proposed'], 'dropped', CONTROLLER)] }),
});
