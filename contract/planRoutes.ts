import { planLifecycle } from '../core/workflow/lifecycles/planned.ts';
import * as plans from './plans.ts';
import { doing, route, whoMay, type RouteContract } from './route.ts';

const { act, file, off } = doing(planLifecycle, plans.planAnswer);

/** Every address of plans. */
export const PLAN_ROUTES: readonly RouteContract[] = [
  route('get', '/plans', 'signed in', 'One’s own plans, and those to decide about.', plans.plansAnswer),
  route('get', '/plans/templates', 'signed in', 'The kinds of trip.', plans.templatesAnswer),
  route('get', '/plans/:number', 'signed in', 'A plan with its estimates.', plans.planAnswer),
  route('post', '/plans', whoMay(planLifecycle, 'begin'), 'Begins a plan.', plans.planClaimAnswer, {
    body: plans.beginPlanSchema,
    status: 201,
  }),
  act('put', '/plans/:number', 'edit', 'Changes what a plan says of the trip.', plans.planHeaderSchema),
  act('post', '/plans/:number/estimates', 'edit', 'Adds estimates.', plans.addEstimatesSchema),
  act(
    'put',
    '/plans/:number/estimates',
    'edit',
    'Changes some estimates, or says what it would come to.',
    plans.estimatesSchema,
  ),
  off('/plans/:number/estimates/:estimate', 'edit', 'Takes an estimate off.'),
  file('/plans/:number/attachments', 'edit', 'Adds a file to a plan.'),
  off('/plans/:number/attachments/:id', 'edit', 'Takes a file off a plan.'),
  act('post', '/plans/:number/bookings', 'book', 'Records a booking for an approved plan.', plans.addBookingSchema),
  act('put', '/plans/:number/bookings/:booking', 'book', 'Changes a booking.', plans.editBookingSchema),
  off('/plans/:number/bookings/:booking', 'book', 'Takes a booking off.'),
  file('/plans/:number/bookings/:booking/attachments', 'book', 'Adds a file to a booking.'),
  off('/plans/:number/bookings/:booking/attachments/:id', 'book', 'Takes a file off a booking.'),
  act('post', '/plans/:number/submit', 'submit', 'Sends a plan to its approver.', plans.seenPlanSchema),
  act('post', '/plans/:number/call-back', 'callBack', 'Takes a plan back to change it.', plans.seenPlanSchema),
  act('post', '/plans/:number/withdraw', 'withdraw', 'Ends a plan that is not wanted.', plans.seenPlanSchema),
  act('post', '/plans/:number/bring-back', 'bringBack', 'Takes an ended plan up again.', plans.seenPlanSchema),
  act('post', '/plans/:number/approve', 'approve', 'Approves a plan.', plans.approvePlanSchema),
  act('post', '/plans/:number/take-back', 'takeBack', 'Takes back a decision.', plans.seenPlanSchema),
  act('post', '/plans/:number/decline', 'decline', 'Declines a plan.', plans.declinePlanSchema),
  route(
    'post',
    '/plans/:number/claim',
    whoMay(planLifecycle, 'claim'),
    'Begins the claim of an approved plan.',
    plans.planClaimAnswer,
    { body: plans.seenPlanSchema, status: 201 },
  ),
];
