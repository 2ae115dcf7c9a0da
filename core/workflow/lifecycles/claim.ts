import { DECIDERS, type Lifecycle } from '../lifecycle.types.ts';
import { act, beginnings, defineLifecycle, GO_ON, MAKERS_TOLD, NEXT_TOLD, way } from './_lib/define.ts';

export const CLAIM_STATES = [
  'draft',
  'with approver',
  'in review',
  'cleared',
  'posted',
  'part paid',
  'paid',
  'payment rejected',
  'returned',
  'declined',
  'withdrawn',
  'reversed',
] as const;
export type ClaimState = (typeof CLAIM_STATES)[number];

/** States in which a claim is with the people who make it, and its lines may change. */
export const IN_PREPARATION: readonly ClaimState[] = ['draft', 'returned'];
/** States before a posting, in which rates and budgets still change what a claim comes to. */
export const BEFORE_POSTING: readonly ClaimState[] = ['draft', 'with approver', 'in review', 'cleared', 'returned'];
/** States in which a claim no longer counts as one: what was on it is free again. */
export const ENDED: readonly ClaimState[] = ['declined', 'withdrawn'];

/** States of claims that finance let through: what is on them counts against what comes after. */
export const LET_THROUGH: readonly ClaimState[] = ['cleared', 'posted', 'part paid', 'paid', 'payment rejected'];

const MAKERS = ['claimant', 'preparer'] as const;
const prepare = (event: string, undoneBy: string | null = null) =>
  act<ClaimState>({ event, undoneBy, ways: [way(IN_PREPARATION, null, { as: MAKERS })] });
const review = (event: string, more: Partial<Parameters<typeof act<ClaimState>>[0]> = {}) =>
  act<ClaimState>({
    event,
    ways: [way(['in review'], null, { roles: ['reviewer'] })],
    never: MAKERS,
    ...more,
  });
const decide = (event: string, to: ClaimState | null, more: { undoneBy: string }) =>
  act<ClaimState>({
    event,
    ways: [way(['with approver'], to, { roles: DECIDERS, as: ['approver'] })],
    never: MAKERS,
    tells: NEXT_TOLD,
    ...more,
  });
const pay = (event: string, from: readonly ClaimState[], to: ClaimState) =>
  act<ClaimState>({ event, ways: [way(from, to, { roles: ['controller'] })], never: MAKERS, tells: MAKERS_TOLD });

/** Where questions that were sent are answered: an approver may have it back meanwhile. */
const ASKABLE: readonly ClaimState[] = ['in review', 'with approver'];

const BEGIN = beginnings<ClaimState>('draft');

/** A claim: made, approved, reviewed, posted, paid. Nobody decides about a claim that is theirs or that they made. */
export const claimLifecycle = defineLifecycle('claim', CLAIM_STATES, {
  begin: act<ClaimState>({ event: 'drafted', ways: BEGIN }),
  gather: prepare('gathered', 'remove'),
  edit: prepare('edited', 'edit'),
  write: prepare('lines written', 'remove'),
  remove: prepare('line removed'),
  pair: prepare('paired', 'unpair'),
  unpair: prepare('unpaired', 'pair'),
  submit: act({
    event: 'submitted',
    ways: [way(['draft'], 'with approver', { as: MAKERS })],
    undoneBy: 'callBack',
    tells: NEXT_TOLD,
  }),
  resubmit: act({
    event: 'submitted',
    ways: [way(['returned'], 'with approver', { as: MAKERS })],
    undoneBy: 'callBack',
    tells: [...NEXT_TOLD, { did: 'asked' }],
  }),
  withdraw: act({
    event: 'withdrawn',
    ways: [way(IN_PREPARATION, 'withdrawn', { as: MAKERS })],
    undoneBy: 'bringBack',
  }),
  callBack: act({ event: 'called back', ways: [way(['with approver'], 'draft', { as: MAKERS })], undoneBy: 'submit' }),
  bringBack: act({ event: 'brought back', ways: [way(['withdrawn'], 'draft', { as: MAKERS })] }),
  reroute: act({ ...GO_ON, ways: [way(['with approver', 'in review'], null)] }),
  approve: decide('approved', 'in review', { undoneBy: 'takeBack' }),
  approvePart: decide('approved', null, { undoneBy: 'takeBack' }),
  takeBack: act({
    event: 'decision taken back',
    ways: [
      way(['with approver'], null, { roles: DECIDERS, as: ['decider'] }),
      way(['in review'], 'with approver', { roles: DECIDERS, as: ['decider'] }),
    ],
    never: MAKERS,
  }),
  declineLine: act({
    event: 'line declined',
    ways: [
      way(['with approver'], null, { roles: DECIDERS, as: ['approver'] }),
      way(['in review'], null, { roles: ['reviewer'] }),
    ],
    never: MAKERS,
    needs: ['reason'],
    undoneBy: 'restoreLine',
  }),
  restoreLine: act({
    event: 'line restored',
    ways: [
      way(['with approver'], null, { roles: DECIDERS, as: ['approver'] }),
      way(['in review'], null, { roles: ['reviewer'] }),
    ],
    never: MAKERS,
    undoneBy: 'declineLine',
  }),
  return: act({
    event: 'returned',
    ways: [
      way(['with approver'], 'returned', { roles: DECIDERS, as: ['approver'] }),
      way(['in review'], 'returned', { roles: ['reviewer'] }),
    ],
    never: MAKERS,
    needs: ['reason'],
    tells: MAKERS_TOLD,
  }),
  returnToApprover: review('sent back to the approver', {
    ways: [way(['in review'], 'with approver', { roles: ['reviewer'] })],
    needs: ['reason'],
    tells: NEXT_TOLD,
  }),
  decline: act({
    event: 'declined',
    ways: [
      way(['with approver'], 'declined', { roles: DECIDERS, as: ['approver'] }),
      way(['in review'], 'declined', { roles: ['reviewer'] }),
    ],
    never: MAKERS,
    needs: ['reason'],
    tells: MAKERS_TOLD,
  }),
  agreeCode: act({
    event: 'code agreed',
    ways: [way(['in review'], null, { roles: DECIDERS, as: ['owner'] })],
    never: MAKERS,
    tells: [{ did: 'corrected' }],
  }),
  refuseCode: act({
    event: 'code not agreed',
    ways: [way(['in review'], null, { roles: DECIDERS, as: ['owner'] })],
    never: MAKERS,
    needs: ['reason'],
    tells: [{ did: 'corrected' }],
  }),
  correct: review('corrected', { undoneBy: 'correct', tells: ['owner'] }),
  mark: review('marked', { undoneBy: 'mark' }),
  ask: review('asked', { undoneBy: 'dropQuery' }),
  sendQueries: review('questions sent', { tells: ['questioned'] }),
  dropQuery: review('question taken back'),
  attachAnswer: act({ event: 'file added to an answer', ways: [way(ASKABLE, null, { as: ['questioned'] })] }),
  answer: act({
    event: 'answered',
    ways: [way(ASKABLE, null, { as: ['questioned'] })],
    tells: [{ did: 'questions sent' }],
  }),
  draw: review('drawn for a full look'),
  hold: review('held', { needs: ['reason', 'date'], undoneBy: 'release' }),
  release: review('released', { undoneBy: 'hold' }),
  clear: review('cleared', {
    ways: [way(['in review'], 'cleared', { roles: ['reviewer'] })],
    undoneBy: 'reopen',
    tells: MAKERS_TOLD,
  }),
  reopen: review('reopened', { ways: [way(['cleared', 'reversed'], 'in review', { roles: ['reviewer'] })] }),
  post: act({
    event: 'posted',
    ways: [way(['cleared'], 'posted', { roles: ['controller'] })],
    never: MAKERS,
    apart: { relation: 'clearer', setting: 'clearing-and-posting-apart' },
    undoneBy: 'reverse',
    tells: MAKERS_TOLD,
  }),
  reverse: act({
    event: 'reversed',
    ways: [way(['posted'], 'reversed', { roles: ['controller'] })],
    never: MAKERS,
    needs: ['reason', 'date'],
    tells: MAKERS_TOLD,
  }),
  pay: pay('paid', ['posted', 'part paid', 'payment rejected'], 'paid'),
  payPart: pay('part paid', ['posted', 'part paid', 'payment rejected'], 'part paid'),
  rejectPayment: pay('payment rejected', ['posted', 'part paid'], 'payment rejected'),
} satisfies Lifecycle<ClaimState>['acts']);

export type ClaimAct = keyof typeof claimLifecycle.acts;
