import { DECIDERS } from '../lifecycle.types.ts';
import { act, defineLifecycle, way } from './_lib/define.ts';

export const ADVANCE_STATES = [
  'requested',
  'in review',
  'to pay out',
  'paid out',
  'settled',
  'declined',
  'withdrawn',
] as const;
export type AdvanceState = (typeof ADVANCE_STATES)[number];

/** A cash advance: asked for, approved, given a date by which it is accounted for, paid out, settled to exactly zero. */
export const advanceLifecycle = defineLifecycle('advance', ADVANCE_STATES, {
  request: act<AdvanceState>({ event: 'requested', ways: [way(null, 'requested', { roles: ['claimant'] })] }),
  withdraw: act({ event: 'withdrawn', ways: [way(['requested'], 'withdrawn', { as: ['claimant'] })] }),
  approve: act({
    event: 'approved',
    ways: [way(['requested'], 'in review', { roles: DECIDERS, as: ['approver'] })],
    never: ['claimant'],
    undoneBy: 'takeBack',
  }),
  approvePart: act({
    event: 'approved',
    ways: [way(['requested'], null, { roles: DECIDERS, as: ['approver'] })],
    never: ['claimant'],
    undoneBy: 'takeBack',
  }),
  takeBack: act({
    event: 'decision taken back',
    ways: [
      way(['requested'], null, { roles: DECIDERS, as: ['decider'] }),
      way(['in review'], 'requested', { roles: DECIDERS, as: ['decider'] }),
    ],
    never: ['claimant'],
  }),
  decline: act({
    event: 'declined',
    ways: [
      way(['requested'], 'declined', { roles: DECIDERS, as: ['approver'] }),
      way(['in review'], 'declined', { roles: ['reviewer'] }),
    ],
    never: ['claimant'],
    needs: ['reason'],
  }),
  grant: act({
    event: 'granted',
    ways: [way(['in review'], 'to pay out', { roles: ['reviewer'] })],
    never: ['claimant'],
    needs: ['date'],
  }),
  payOut: act({
    event: 'paid out',
    ways: [way(['to pay out'], 'paid out', { roles: ['controller'] })],
    never: ['claimant'],
    needs: ['date'],
  }),
  giveBack: act({
    event: 'given back',
    ways: [way(['paid out'], null, { roles: ['controller'] })],
    never: ['claimant'],
    needs: ['date'],
  }),
  settle: act({ event: 'settled', ways: [way(['paid out'], 'settled', { roles: ['controller'] })] }),
  reopen: act({ event: 'reopened', ways: [way(['settled'], 'paid out', { roles: ['controller'] })] }),
});
