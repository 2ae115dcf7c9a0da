import { DECIDERS } from '../lifecycle.types.ts';
import { act, defineLifecycle, GO_ON, NEXT_TOLD, way } from './_lib/define.ts';

export const ADVANCE_STATES = [
  'draft',
  'requested',
  'in review',
  'to pay out',
  'paid out',
  'settled',
  'declined',
  'withdrawn',
] as const;
export type AdvanceState = (typeof ADVANCE_STATES)[number];

/** A cash advance: written down, asked for, approved, given a date by which it is accounted for, paid out, settled to exactly zero. */
export const advanceLifecycle = defineLifecycle('advance', ADVANCE_STATES, {
  begin: act<AdvanceState>({ event: 'begun', ways: [way(null, 'draft', { roles: ['claimant'], as: ['claimant'] })] }),
  edit: act({ event: 'edited', ways: [way(['draft'], null, { as: ['claimant'] })] }),
  request: act({
    event: 'requested',
    ways: [way(['draft'], 'requested', { roles: ['claimant'], as: ['claimant'] })],
    tells: ['approver'],
  }),
  withdraw: act({
    event: 'withdrawn',
    ways: [way(['draft', 'in review', 'to pay out'], 'withdrawn', { as: ['claimant'] })],
    undoneBy: 'bringBack',
  }),
  callBack: act({
    event: 'called back',
    ways: [way(['requested'], 'draft', { as: ['claimant'] })],
    undoneBy: 'request',
  }),
  bringBack: act({ event: 'brought back', ways: [way(['withdrawn'], 'draft', { as: ['claimant'] })] }),
  approve: act({
    event: 'approved',
    tells: NEXT_TOLD,
    ways: [way(['requested'], 'in review', { roles: DECIDERS, as: ['approver'] })],
    never: ['claimant'],
    undoneBy: 'takeBack',
  }),
  approvePart: act({
    event: 'approved',
    tells: NEXT_TOLD,
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
    tells: ['claimant'],
    ways: [
      way(['requested'], 'declined', { roles: DECIDERS, as: ['approver'] }),
      way(['in review'], 'declined', { roles: ['reviewer'] }),
    ],
    never: ['claimant'],
    needs: ['reason'],
  }),
  grant: act({
    event: 'granted',
    tells: ['claimant'],
    ways: [way(['in review', 'to pay out'], 'to pay out', { roles: ['reviewer'] })],
    never: ['claimant'],
    needs: ['date'],
  }),
  extend: act({
    event: 'given more time',
    tells: ['claimant'],
    ways: [way(['paid out'], null, { roles: ['reviewer'] })],
    never: ['claimant'],
    needs: ['date', 'reason'],
  }),
  payOut: act({
    event: 'paid out',
    tells: ['claimant'],
    ways: [way(['to pay out'], 'paid out', { roles: ['controller'] })],
    never: ['claimant'],
    needs: ['date'],
  }),
  addProof: act({
    event: 'proof added',
    ways: [way(['paid out', 'settled'], null, { roles: ['controller'] })],
    never: ['claimant'],
  }),
  giveBack: act({
    event: 'given back',
    tells: ['claimant'],
    ways: [way(['paid out'], null, { roles: ['controller'] })],
    never: ['claimant'],
    needs: ['date'],
  }),
  settle: act({
    event: 'settled',
    bySystem: true,
    ways: [way(['paid out'], 'settled')],
    tells: ['claimant'],
  }),
  remind: act({ event: 'reminded', bySystem: true, ways: [way(['paid out'], null)], tells: ['claimant'] }),
  reroute: act({ ...GO_ON, ways: [way(['requested'], null)] }),
  reopen: act({
    event: 'reopened',
    bySystem: true,
    ways: [way(['settled'], 'paid out')],
    tells: ['claimant'],
  }),
});

export type AdvanceAct = keyof typeof advanceLifecycle.acts;
