import useSWR from 'swr';
import {
  approvalsAnswer,
  routeAnswer,
  type RouteAnswer,
  type TryRoute,
  type Waiting,
} from '../../contract/approvals.ts';
import { advanceAnswer } from '../../contract/advances.ts';
import { claimAnswer } from '../../contract/claims.ts';
import { planAnswer } from '../../contract/plans.ts';
import { getter, send } from './client.ts';

export type { RouteAnswer, RouteNeed, RouteSkip, TryRoute, Waiting } from '../../contract/approvals.ts';

export const useApprovals = () => useSWR('/approvals', getter(approvalsAnswer));

/** Who decides about a record; asked again whenever its revision is another. */
export const useRoute = (kind: Waiting['kind'], number: string, revision: number) =>
  useSWR([`/approval-routes/${kind}/${encodeURIComponent(number)}`, revision], ([path]) => getter(routeAnswer)(path));

export const tryRoute = (wanted: TryRoute): Promise<RouteAnswer> =>
  send('POST', '/approval-routes/tries', routeAnswer, wanted);

type Seen = Pick<Waiting, 'kind' | 'number' | 'revision'>;
/** A decision from the list, about the record as it was listed there. */
async function decide({ kind, number, revision }: Seen, act: string, more: object = {}): Promise<void> {
  const path = `/${kind}s/${encodeURIComponent(number)}/${act}`;
  await send('POST', path, ANSWERS[kind], { revision, ...more });
}
const ANSWERS = { claim: claimAnswer, plan: planAnswer, advance: advanceAnswer };
export const decisions = {
  approve: (seen: Seen) => decide(seen, 'approve'),
  agree: (seen: Seen) => decide(seen, 'agree-code'),
  takeBack: (seen: Seen) => decide(seen, 'take-back'),
};
