import { act, defineLifecycle, way } from './_lib/define.ts';

export const SETTING_STATES = ['in force', 'ended'] as const;
export type SettingState = (typeof SETTING_STATES)[number];
const ADMINISTRATOR = { roles: ['administrator'] } as const;

/**
 * A row of the master data. One that was used is ended and followed by another, never changed. What decides about oneself
 * (one's own card, role, budget, rate) somebody else keeps.
 */
export const settingLifecycle = defineLifecycle('setting', SETTING_STATES, {
  add: act<SettingState>({ event: 'added', ways: [way(null, 'in force', ADMINISTRATOR)], never: ['owner'] }),
  follow: act({ event: 'followed', ways: [way(['in force', 'ended'], 'in force', ADMINISTRATOR)], never: ['owner'] }),
  change: act({ event: 'changed', ways: [way(['in force'], null, ADMINISTRATOR)], never: ['owner'] }),
  // one with an end can end sooner
  end: act({
    event: 'ended',
    ways: [way(['in force', 'ended'], 'ended', ADMINISTRATOR)],
    never: ['owner'],
    needs: ['date'],
  }),
});

export const CORRECTION_STATES = ['asked for', 'done', 'dropped'] as const;
export type CorrectionState = (typeof CORRECTION_STATES)[number];

/**
 * A published rate that was entered wrongly: one person asks for the right one, another one lets it be. Whose claim may take
 * it does neither. What was posted stays as it is.
 */
export const correctionLifecycle = defineLifecycle('rate correction', CORRECTION_STATES, {
  ask: act<CorrectionState>({
    event: 'asked for',
    ways: [way(null, 'asked for', ADMINISTRATOR)],
    never: ['owner'],
    needs: ['reason'],
    undoneBy: 'drop',
  }),
  confirm: act<CorrectionState>({
    event: 'rate corrected',
    ways: [way(['asked for'], 'done', ADMINISTRATOR)],
    never: ['maker', 'owner'],
  }),
  drop: act<CorrectionState>({ event: 'dropped', ways: [way(['asked for'], 'dropped', ADMINISTRATOR)] }),
});
export type CorrectionAct = keyof typeof correctionLifecycle.acts;

export const PERIOD_STATES = ['open', 'closed'] as const;
export type PeriodState = (typeof PERIOD_STATES)[number];

/** A period of an entity's ledger. */
export const periodLifecycle = defineLifecycle('period', PERIOD_STATES, {
  close: act<PeriodState>({
    event: 'closed',
    ways: [way(['open'], 'closed', { roles: ['controller'] })],
    undoneBy: 'reopen',
  }),
  reopen: act<PeriodState>({
    event: 'reopened',
    ways: [way(['closed'], 'open', { roles: ['controller'] })],
    needs: ['reason'],
    undoneBy: 'close',
  }),
});

export const TOKEN_STATES = ['valid', 'revoked'] as const;
export type TokenState = (typeof TOKEN_STATES)[number];

/** A token by which a person's scripts act for them. */
export const tokenLifecycle = defineLifecycle('token', TOKEN_STATES, {
  make: act<TokenState>({ event: 'made', ways: [way(null, 'valid')] }),
  revoke: act<TokenState>({ event: 'revoked', ways: [way(['valid'], 'revoked', { as: ['owner'] })] }),
});

export const SIGN_IN_STATES = ['password', 'two factors'] as const;
export type SignInState = (typeof SIGN_IN_STATES)[number];

/** How a person signs in: by password, or by password and an authenticator's code. Everybody keeps their own. */
export const signInLifecycle = defineLifecycle('sign-in', SIGN_IN_STATES, {
  begin: act<SignInState>({ event: 'begun', ways: [way(null, 'password')] }),
  change: act({ event: 'password changed', ways: [way(SIGN_IN_STATES, null, { as: ['owner'] })] }),
  add: act({
    event: 'second factor added',
    ways: [way(['password'], 'two factors', { as: ['owner'] })],
    undoneBy: 'remove',
  }),
  remove: act({
    event: 'second factor removed',
    ways: [way(['two factors'], 'password', { as: ['owner'] })],
    undoneBy: 'add',
  }),
});
