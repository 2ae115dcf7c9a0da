import type { Lifecycle } from '../lifecycle.types.ts';
import { advanceLifecycle } from './advance.ts';
import { claimLifecycle } from './claim.ts';
import { cardMonthLifecycle, chargeLifecycle, receiptLifecycle, statementLifecycle } from './gathering.ts';
import { correctionLifecycle, periodLifecycle, settingLifecycle, signInLifecycle, tokenLifecycle } from './keeping.ts';
import { paymentRunLifecycle, planLifecycle, postingRunLifecycle } from './planned.ts';

/** Every kind of record, in the order of the work; the state diagrams and the checks of all of them come from here. */
export const LIFECYCLES: readonly Lifecycle[] = [
  planLifecycle,
  advanceLifecycle,
  receiptLifecycle,
  chargeLifecycle,
  cardMonthLifecycle,
  statementLifecycle,
  claimLifecycle,
  postingRunLifecycle,
  paymentRunLifecycle,
  periodLifecycle,
  settingLifecycle,
  correctionLifecycle,
  tokenLifecycle,
  signInLifecycle,
];
