import { describe, expect, it } from 'vitest';
import { actsOpen, judgeAct, judgeSystemAct } from './judgeAct.ts';
import { ROLES, type ActRecord, type Lifecycle, type Relation, type Role } from './lifecycle.types.ts';
import { advanceLifecycle } from './lifecycles/advance.ts';
import { LIFECYCLES } from './lifecycles/all.ts';
import { claimLifecycle, CLAIM_STATES, LET_THROUGH, type ClaimState } from './lifecycles/claim.ts';
import { planLifecycle, PLAN_STATES, type PlanState } from './lifecycles/planned.ts';

/**
 * What holds of expense claims whatever the tables say: separation of duties and finality as the trade has them (common
 * practice), written down by state and person and not taken from the tables.
 */
const on = { isOn: () => true };
const somebody = (...roles: Role[]) => ({ id: 'X', holds: (role: Role) => roles.includes(role) });
const EVERYTHING = somebody(...ROLES);
const record = <S extends string>(state: S, ...relations: Relation[]): ActRecord<S> => ({
  state,
  entity: 'IE',
  people: {
    ...{ claimant: 'C', preparer: 'C', approver: 'A', decider: 'A', clearer: 'R', owner: 'O', questioned: 'Q' },
    ...Object.fromEntries(relations.map((relation) => [relation, 'X'])),
  },
});
/** The states in which a person may do an act on a claim. */
const statesOf = <S extends string, A extends string>(
  lifecycle: Lifecycle<S, A>,
  act: A,
  who: ReturnType<typeof somebody>,
  ...relations: Relation[]
): S[] => lifecycle.states.filter((state) => judgeAct(lifecycle, act, record(state, ...relations), who, on).ok);
const claimStates = (act: keyof typeof claimLifecycle.acts, who = EVERYTHING, ...relations: Relation[]): ClaimState[] =>
  statesOf(claimLifecycle, act, who, ...relations);

describe('a claim', () => {
  const maker = somebody('claimant', 'preparer');
  it('is changed by its makers before it is handed in and once it came back, and at no other time', () => {
    for (const act of ['gather', 'edit', 'write', 'remove', 'pair', 'unpair'] as const)
      expect([act, claimStates(act, maker, 'claimant')]).toEqual([act, ['draft', 'returned']]);
  });
  it('is taken back by its makers as long as finance has not got it, and ended while it is with them', () => {
    expect(claimStates('callBack', maker, 'claimant')).toEqual(['with approver']);
    expect(claimStates('withdraw', maker, 'claimant')).toEqual(['draft', 'returned']);
    for (const state of ['in review', 'cleared', 'posted', 'paid', 'declined'] as const)
      for (const act of ['withdraw', 'callBack'] as const)
        expect(judgeAct(claimLifecycle, act, record(state, 'claimant'), maker, on)).toMatchObject({ no: 'state' });
    expect(claimStates('withdraw', EVERYTHING)).toEqual([]);
  });
  it('is approved, declined and sent back by who is asked, while it is with them', () => {
    const approver = somebody('approver');
    for (const act of ['approve', 'decline', 'return', 'declineLine'] as const)
      expect([act, claimStates(act, approver, 'approver')]).toEqual([act, ['with approver']]);
    expect(claimStates('approve', somebody('approver'))).toEqual([]);
    expect(claimStates('approve', somebody('auditor'), 'approver')).toEqual([]);
  });
  it('is reviewed and cleared by a reviewer, in review alone', () => {
    const reviewer = somebody('reviewer');
    for (const act of ['correct', 'mark', 'hold', 'clear', 'draw'] as const)
      expect([act, claimStates(act, reviewer)]).toEqual([act, ['in review']]);
    expect(
      claimStates('clear', somebody('claimant', 'preparer', 'approver', 'controller', 'administrator', 'auditor')),
    ).toEqual([]);
  });
  it('is posted by a controller once it is cleared, and not by who cleared it alone', () => {
    expect(claimStates('post', somebody('controller'))).toEqual(['cleared']);
    expect(claimStates('post', EVERYTHING, 'clearer')).toEqual([]);
    expect(claimStates('post', somebody('reviewer', 'approver', 'administrator', 'auditor'))).toEqual([]);
  });
  it('that is posted changes by a reversal and by payments alone', () => {
    expect(actsOpen(claimLifecycle, record('posted' as ClaimState), EVERYTHING, on)).toEqual([
      'reverse',
      'pay',
      'payPart',
      'rejectPayment',
    ]);
    expect(actsOpen(claimLifecycle, record('paid' as ClaimState), EVERYTHING, on)).toEqual([]);
    for (const state of ['declined', 'withdrawn'] as const)
      expect(actsOpen(claimLifecycle, record(state as ClaimState), EVERYTHING, on)).toEqual([]);
  });
  it('of one\u2019s own is decided about, reviewed, posted and paid by nobody who made it, whatever they hold', () => {
    const own = [
      'approve',
      'approvePart',
      'decline',
      'return',
      'declineLine',
      'restoreLine',
      'clear',
      'correct',
      'mark',
      'hold',
      'post',
      'reverse',
      'pay',
      'agreeCode',
    ] as const;
    for (const relation of ['claimant', 'preparer'] as const)
      for (const act of own)
        expect([act, claimStates(act, EVERYTHING, relation, 'approver', 'owner')]).toEqual([act, []]);
  });
  it('that was let through counts, one that was not does not', () => {
    expect(CLAIM_STATES.filter((s) => !LET_THROUGH.includes(s))).toEqual([
      ...['draft', 'with approver', 'in review', 'returned', 'declined', 'withdrawn', 'reversed'],
    ]);
  });
});

describe('a plan', () => {
  it('is changed as a draft, decided while it is asked for, and used up by its claim alone', () => {
    const states = (act: keyof typeof planLifecycle.acts, who: ReturnType<typeof somebody>, ...as: Relation[]) =>
      statesOf(planLifecycle, act, who, ...as);
    expect(states('edit', somebody('claimant'), 'claimant')).toEqual(['draft']);
    expect(states('approve', somebody('approver'), 'approver')).toEqual(['with approver']);
    expect(states('approve', EVERYTHING, 'approver', 'claimant')).toEqual([]);
    for (const act of ['useUp', 'takeUp', 'lapse'] as const) expect([act, states(act, EVERYTHING)]).toEqual([act, []]);
    const system = (act: 'useUp' | 'takeUp') =>
      PLAN_STATES.filter((s) => judgeSystemAct(planLifecycle, act, s as PlanState).ok);
    expect([system('useUp'), system('takeUp')]).toEqual([['approved'], ['used up']]);
  });
});

describe('an advance', () => {
  it('is paid out once it was granted, given back while it is out, and settled by nobody', () => {
    const states = (act: keyof typeof advanceLifecycle.acts, who = EVERYTHING, ...as: Relation[]) =>
      statesOf(advanceLifecycle, act, who, ...as);
    expect(states('payOut')).toEqual(['to pay out']);
    expect(states('giveBack')).toEqual(['paid out']);
    expect(states('payOut', EVERYTHING, 'claimant')).toEqual([]);
    for (const act of ['settle', 'reopen', 'remind', 'reroute'] as const) expect([act, states(act)]).toEqual([act, []]);
  });
});

describe('what the application does by itself', () => {
  it('nobody does, with every role and in every relation', () => {
    const relations = ['claimant', 'preparer', 'approver', 'decider', 'clearer', 'owner', 'holder', 'maker'] as const;
    for (const lifecycle of LIFECYCLES)
      for (const [name, rule] of Object.entries(lifecycle.acts))
        if (rule.bySystem)
          for (const state of lifecycle.states)
            expect([name, judgeAct(lifecycle, name, record(state, ...relations), EVERYTHING, on).ok]).toEqual([
              name,
              false,
            ]);
  });
  it('is judged by the state alone', () => {
    expect(judgeSystemAct(advanceLifecycle, 'settle', 'paid out').ok).toBe(true);
    expect(judgeSystemAct(advanceLifecycle, 'settle', 'requested')).toMatchObject({ no: 'state', from: ['paid out'] });
  });
});
