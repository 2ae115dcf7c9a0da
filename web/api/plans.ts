import useSWR from 'swr';
import {
  planAnswer,
  planClaimAnswer,
  plansAnswer,
  templatesAnswer,
  type BeginPlan,
  type BookingSet,
  type EstimateSet,
  type NewBookingSaid,
  type NewEstimate,
  type PlanAnswer,
  type PlanHeaderSet,
} from '../../contract/plans.ts';
import type { Coding } from '../../core/documents/case.schema.ts';
import { pathOfAct } from '../../contract/route.ts';
import { act, getter, send } from './client.ts';
import { upload } from './upload.ts';

export type {
  Booking,
  EstimateSet,
  NewEstimate,
  PlanAnswer,
  PlanHeaderSet,
  PlanListRow,
} from '../../contract/plans.ts';
export type Estimate = PlanAnswer['estimates'][number];

const pathOf = (number: string, rest = ''): string => `/plans/${encodeURIComponent(number)}${rest}`;
const filesOf = (booking?: string) => (booking ? `/bookings/${booking}/attachments` : '/attachments');
const put = (number: string, rest: string, body: unknown) => send('PUT', pathOf(number, rest), planAnswer, body);
const post = (number: string, rest: string, body: unknown) => act(pathOf(number, rest), planAnswer, body);

export const usePlans = () => useSWR('/plans', getter(plansAnswer));
export const usePlan = (number: string) => useSWR(pathOf(number), getter(planAnswer));
export const useTemplates = () => useSWR('/plans/templates', getter(templatesAnswer));

/** What is done with plans; each act answers with the plan as it is afterwards. */
export const plans = {
  load: (number: string): Promise<PlanAnswer> => send('GET', pathOf(number), planAnswer),
  begin: (plan: BeginPlan) => send('POST', '/plans', planClaimAnswer, plan),
  edit: (number: string, revision: number, set: PlanHeaderSet) => put(number, '', { revision, set }),
  add: (number: string, revision: number, estimates: NewEstimate[]) =>
    post(number, '/estimates', { revision, estimates }),
  set: (number: string, revision: number, id: string, set: EstimateSet) =>
    put(number, '/estimates', { revision, ids: [id], set }),
  /** Puts codes on several estimates; `rehearse` only says what it would come to. */
  code: (number: string, revision: number, ids: readonly string[], codes: Coding, rehearse: boolean) =>
    put(number, '/estimates', { revision, ids, set: {}, codes, rehearse }),
  remove: (number: string, revision: number, id: string) =>
    send('DELETE', pathOf(number, `/estimates/${encodeURIComponent(id)}?revision=${revision}`), planAnswer),
  act: (number: string, revision: number, name: 'submit' | 'callBack' | 'withdraw' | 'bringBack' | 'takeBack') =>
    post(number, `/${pathOfAct(name)}`, { revision }),
  approve: (number: string, revision: number, comment: string) => post(number, '/approve', { revision, comment }),
  decline: (number: string, revision: number, reason: string) => post(number, '/decline', { revision, reason }),
  addBooking: (number: string, revision: number, booking: NewBookingSaid) =>
    post(number, '/bookings', { revision, booking }),
  editBooking: (number: string, revision: number, id: string, set: BookingSet) =>
    put(number, `/bookings/${id}`, { revision, set }),
  removeBooking: (number: string, revision: number, id: string): Promise<PlanAnswer> =>
    send('DELETE', pathOf(number, `/bookings/${id}?revision=${revision}`), planAnswer),
  /** Adds a file to a plan, or to a booking of it. */
  attach: (number: string, revision: number, file: File, booking?: string): Promise<PlanAnswer> =>
    upload(pathOf(number, `${filesOf(booking)}?revision=${revision}`), planAnswer, file, () => undefined),
  detach: (number: string, revision: number, id: string, booking?: string): Promise<PlanAnswer> =>
    send('DELETE', pathOf(number, `${filesOf(booking)}/${id}?revision=${revision}`), planAnswer),
  claim: (number: string, revision: number) => send('POST', pathOf(number, '/claim'), planClaimAnswer, { revision }),
};
