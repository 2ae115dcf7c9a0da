import { describe, expect, it } from 'vitest';
import { audienceOf } from './audienceOf.ts';
import { drawLifecycle } from './drawLifecycle.ts';
import { actsOpen, judgeAct } from './judgeAct.ts';
import { RELATIONS, ROLES, type ActRecord, type ActRule, type Role } from './lifecycle.types.ts';
import { LIFECYCLES } from './lifecycles/all.ts';
import { claimLifecycle, CLAIM_STATES, type ClaimAct, type ClaimState } from './lifecycles/claim.ts';

const person = (id: string, ...roles: Role[]) => ({ id, holds: (role: Role) => roles.includes(role) });
const claim = (state: ClaimState, people: ActRecord['people'] = {}): ActRecord<ClaimState> => ({
  state,
  entity: 'IE',
  people: { claimant: 'tomas', preparer: 'tomas', approver: 'siobhan', clearer: 'maeve', ...people },
});
const on = { isOn: () => true };
const off = { isOn: () => false };
const judge = (act: ClaimAct, record: ActRecord<ClaimState>, who: ReturnType<typeof person>, rules = on) => {
  const judged = judgeAct(claimLifecycle, act, record, who, rules);
  return judged.ok ? (judged.way.to ?? 'stays') : judged.no;
};

describe('every lifecycle', () => {
  it.each(LIFECYCLES.map((l) => [l.kind, l] as const))('is whole: %s', (_, { states, acts }) => {
    for (const [name, rule] of Object.entries<ActRule<string>>(acts)) {
      expect([name, rule.ways.length]).not.toEqual([name, 0]);
      if (rule.undoneBy !== null) expect(Object.keys(acts)).toContain(rule.undoneBy);
      for (const { from, to, roles, as } of rule.ways) {
        for (const state of [...(from ?? []), ...(to === null ? [] : [to])]) expect(states).toContain(state);
        expect([name, from === null && to === null]).toEqual([name, false]);
        expect(ROLES).toEqual(expect.arrayContaining([...roles]));
        expect(RELATIONS).toEqual(expect.arrayContaining([...as]));
      }
    }
  });
  it.each(LIFECYCLES.map((l) => [l.kind, l] as const))(
    'reaches every state from its beginning: %s',
    (_, { states, acts }) => {
      const reached = new Set<string>();
      const rules = Object.values<ActRule<string>>(acts);
      for (let before = -1; before !== reached.size;) {
        before = reached.size;
        for (const { from, to } of rules.flatMap((r) => r.ways))
          if (to !== null && (from === null || from.some((f) => reached.has(f)))) reached.add(to);
      }
      const imported = states.filter((s) => s !== 'open' && s !== 'unmarked' && !reached.has(s));
      // Periods, months and charges are there before any act: they begin open or unmarked.
      expect(states.includes('open') || states.includes('unmarked') ? [] : imported).toEqual([]);
    },
  );
  it('of a claim decides about it only by somebody who neither claims nor prepared it', () => {
    const made = new Set<ClaimAct>([
      'begin',
      'gather',
      'edit',
      'write',
      'remove',
      'pair',
      'unpair',
      'submit',
      'resubmit',
      'withdraw',
      'callBack',
      'bringBack',
      'attachAnswer',
      'answer',
    ]);
    for (const act of Object.keys(claimLifecycle.acts) as ClaimAct[])
      if (!claimLifecycle.acts[act].bySystem)
        expect([act, claimLifecycle.acts[act].never]).toEqual([act, made.has(act) ? [] : ['claimant', 'preparer']]);
  });
});

describe('an act', () => {
  it('is refused for who one is before where the record is', () => {
    const everything = person('tomas', ...ROLES);
    for (const state of CLAIM_STATES) expect(judge('clear', claim(state), everything)).toBe('own');
    expect(judge('clear', claim('draft'), person('odd', 'controller'))).toBe('role');
    expect(judge('approve', claim('draft'), person('odd', 'approver'))).toBe('relation');
    expect(judge('clear', claim('cleared'), person('maeve', 'reviewer'))).toBe('state');
    expect(judge('clear', claim('in review'), person('maeve', 'reviewer'))).toBe('cleared');
    expect(judge('clear', claim('in review', { preparer: 'maeve' }), person('maeve', 'reviewer'))).toBe('own');
  });
  it('has several ways, each with its own people and states', () => {
    const approver = person('siobhan', 'approver');
    const reviewer = person('maeve', 'reviewer');
    expect(judge('return', claim('with approver'), approver)).toBe('returned');
    expect(judge('return', claim('in review'), approver)).toBe('state');
    expect(judge('return', claim('in review'), reviewer)).toBe('returned');
    expect(judge('return', claim('with approver'), reviewer)).toBe('state');
  });
  it('is kept apart from another as long as the setting is on', () => {
    const both = person('maeve', 'reviewer', 'controller');
    expect(judge('post', claim('cleared'), both)).toBe('apart');
    expect(judge('post', claim('cleared'), both, off)).toBe('posted');
    expect(judge('post', claim('cleared', { clearer: 'ines' }), both)).toBe('posted');
  });
  it('asks for a role in the entity of the record', () => {
    const local = { id: 'ren', holds: (role: Role, entity: string | null) => role === 'reviewer' && entity === 'JP' };
    const judged = (entity: string) =>
      judgeAct(claimLifecycle, 'clear', { ...claim('in review'), entity }, local, on).ok;
    expect([judged('JP'), judged('IE')]).toEqual([true, false]);
  });
  it('that makes a record needs that there is none', () => {
    const nothing = { state: null, entity: 'IE', people: { claimant: 'x' } };
    expect(judgeAct(claimLifecycle, 'begin', nothing, person('x', 'claimant'), on).ok).toBe(true);
    expect(judgeAct(claimLifecycle, 'begin', nothing, person('y', 'preparer'), on).ok).toBe(true);
    expect(judgeAct(claimLifecycle, 'begin', nothing, person('y', 'claimant'), on)).toMatchObject({ no: 'relation' });
    expect(judge('begin', claim('draft'), person('tomas', 'claimant'))).toBe('state');
  });
  it('is open to somebody in the order of the table', () => {
    const open = (state: ClaimState, who: ReturnType<typeof person>) => actsOpen(claimLifecycle, claim(state), who, on);
    expect(open('in review', person('maeve', 'reviewer'))).toEqual([
      'declineLine',
      'restoreLine',
      'return',
      'returnToApprover',
      'decline',
      'correct',
      'mark',
      'ask',
      'sendQueries',
      'dropQuery',
      'draw',
      'hold',
      'release',
      'clear',
    ]);
    expect(open('returned', person('tomas', 'claimant'))).toEqual([
      'gather',
      'edit',
      'write',
      'remove',
      'pair',
      'unpair',
      'resubmit',
      'withdraw',
    ]);
    expect(open('paid', person('tomas', ...ROLES))).toEqual([]);
  });
});

describe('the audience of a claim', () => {
  const seen = (who: ReturnType<typeof person>, submitted = true) =>
    audienceOf({ ...claim('in review'), submitted, approvers: ['siobhan'] }, who);
  it('is decided by being its maker first, then by role, then by having to approve it', () => {
    expect(seen(person('tomas', 'claimant', 'reviewer', 'auditor'))).toBe('claimant');
    expect(seen(person('siobhan', 'approver'))).toBe('approver');
    expect(seen(person('siobhan', 'approver', 'controller'))).toBe('finance');
    expect(seen(person('ottoline', 'auditor'))).toBe('auditor');
    expect(seen(person('wanjiru', 'claimant', 'approver', 'administrator'))).toBeNull();
  });
  it('of a draft is its makers alone', () => {
    expect(seen(person('tomas', 'claimant'), false)).toBe('claimant');
    for (const role of ROLES) expect(seen(person('siobhan', role), false)).toBeNull();
  });
});

describe('a state diagram', () => {
  it('draws one arrow between two states with all its acts', () => {
    const diagram = drawLifecycle(claimLifecycle);
    expect(diagram).toContain('  [*] --> draft : begin');
    expect(diagram).toContain('  state "in review" as in_review');
    expect(diagram).toContain(
      '  in_review --> in_review : reroute, declineLine, restoreLine, agreeCode, refuseCode, correct, mark',
    );
  });
});
