import { describe, expect, it } from 'vitest';
import { computeRoute } from './computeRoute.ts';
import type { RouteLevel } from './route.schema.ts';
import type { Route, RouteBook, RoutePerson, RoutedRecord } from './route.types.ts';

const person = (id: string, usualApprover: string | null, more: Partial<RoutePerson> = {}): RoutePerson => ({
  ...{ id, usualApprover, kind: 'employee', active: true, sponsor: null },
  ...more,
});
const level = (id: string, place: number, who: RouteLevel['who'], more: Partial<RouteLevel> = {}) => ({
  ...{ id, name: id, of: ['claim' as const], place, who },
  ...more,
});
const approver = (person: string) => ({ person, role: 'approver' as const, entity: 'IE' });
const ROOT = { person: 'root', role: 'administrator' as const, entity: null };
const usual = level('usual', 1, { is: 'approver', steps: 1 });
/** Ada reports to Bo, Bo to Cy, Cy to Dee, who is at the top. */
const book = (levels: RouteBook['levels'], more: Partial<RouteBook> = {}): RouteBook => ({
  levels,
  people: [person('ada', 'bo'), person('bo', 'cy'), person('cy', 'dee'), person('dee', null), person('eve', 'cy')],
  substitutes: [],
  roles: [...['ada', 'bo', 'cy', 'dee', 'eve'].map((id) => approver(id)), ROOT],
  rates: [{ from: 'EUR', to: 'NOK', date: '2026-03-01', rate: '11.50' }],
  ...more,
});
const record = (more: Partial<RoutedRecord> = {}): RoutedRecord => ({
  ...{ kind: 'claim', on: '2026-03-02', entity: 'IE', claimant: 'ada', preparer: 'ada', ledgerCurrency: 'EUR' },
  ...{ total: { amount: '800.00', currency: 'EUR' }, charged: [], categories: ['meal'] },
  ...more,
});
const asked = (route: Route) => route.levels.map((l) => l.needs.map((n) => n.people.join('|')).join(' + ') || '–');
const skips = (route: Route) => route.levels.flatMap((l) => l.skipped.map((s) => s.why));

describe('the levels of a route', () => {
  it('asks the usual approver where the book says nothing', () => {
    expect(asked(computeRoute(record(), book([])))).toEqual(['bo']);
    const plansAlone = [level('director', 1, { is: 'person', person: 'dee' }, { of: ['plan'] })];
    expect(asked(computeRoute(record(), book(plansAlone)))).toEqual(['bo']);
    expect(asked(computeRoute(record({ kind: 'plan' }), book(plansAlone)))).toEqual(['dee']);
  });
  it('climbs by tiers of amount, converted by the rate of the day, each only for what is more', () => {
    const tiers = [
      usual,
      level('second', 2, { is: 'approver', steps: 2 }, { above: { amount: '500.00', currency: 'EUR' } }),
      level('third', 3, { is: 'approver', steps: 3 }, { above: { amount: '9200.00', currency: 'NOK' } }),
    ];
    expect(asked(computeRoute(record(), book(tiers)))).toEqual(['bo', 'cy', '–']);
    const more = record({ total: { amount: '800.01', currency: 'EUR' } });
    expect(asked(computeRoute(more, book(tiers)))).toEqual(['bo', 'cy', 'dee']);
    const [, , third] = computeRoute(record(), book(tiers)).levels;
    expect(third!.skipped).toEqual([{ why: 'below', total: '9200.00', currency: 'NOK', limit: '9200.00' }]);
  });
  it('reaches every threshold where the amount cannot be told, and counts what is given back like what is spent', () => {
    const tier = [level('tier', 1, { is: 'approver', steps: 2 }, { above: { amount: '500.00', currency: 'USD' } })];
    expect(asked(computeRoute(record({ total: { amount: '1.00', currency: 'EUR' } }), book(tier)))).toEqual(['cy']);
    expect(asked(computeRoute(record({ total: { amount: null, currency: 'USD' } }), book(tier)))).toEqual(['cy']);
    const back = record({ total: { amount: '-600.00', currency: 'USD' } });
    expect(asked(computeRoute(back, book(tier)))).toEqual(['cy']);
    expect(asked(computeRoute(record({ total: { amount: '-6.00', currency: 'USD' } }), book(tier)))).toEqual(['–']);
  });
  it('stops at the top, who decides once', () => {
    const tiers = [
      usual,
      level('second', 2, { is: 'approver', steps: 2 }),
      level('far', 3, { is: 'approver', steps: 9 }),
    ];
    const route = computeRoute(record({ claimant: 'bo', preparer: 'bo' }), book(tiers));
    expect(asked(route)).toEqual(['cy', 'dee', '–']);
    expect(route.levels[2]!.skipped).toMatchObject([{ why: 'decides already', person: 'dee', place: 2 }]);
  });
  it('asks the owner of each code about what is theirs, once', () => {
    const owners = [level('owners', 1, { is: 'owner', dimensions: ['project', 'grant'] })];
    const charged = [
      { dimension: 'project', code: 'P-1', owner: 'eve', amount: '300.00' },
      { dimension: 'grant', code: 'G-1', owner: 'eve', amount: '200.00' },
      { dimension: 'grant', code: 'G-2', owner: 'cy', amount: '10.00' },
      { dimension: 'grant', code: 'G-3', owner: null, amount: '5.00' },
      { dimension: 'costCentre', code: '410', owner: 'dee', amount: '515.00' },
    ];
    const route = computeRoute(record({ charged }), book(owners));
    expect(asked(route)).toEqual(['eve + cy']);
    expect(route.levels[0]!.needs[0]!.about).toEqual([
      { dimension: 'project', code: 'P-1', amount: '300.00' },
      { dimension: 'grant', code: 'G-1', amount: '200.00' },
    ]);
    expect(route.levels[0]!.skipped).toEqual([{ why: 'no owner', dimension: 'grant', code: 'G-3' }]);
    const above = [{ ...owners[0]!, above: { amount: '250.00', currency: 'EUR' } }];
    expect(asked(computeRoute(record({ charged }), book(above)))).toEqual(['eve']);
    expect(skips(computeRoute(record(), book(owners)))).toEqual(['not charged']);
  });
  it('asks the sponsor of a contractor, a role of the entity, and leaves out what does not concern it', () => {
    const levels = [
      level('sponsor', 1, { is: 'sponsor' }),
      level('controllers', 2, { is: 'role', role: 'controller' }),
      level('air', 3, { is: 'person', person: 'dee' }, { categories: ['air'] }),
      level('elsewhere', 4, { is: 'person', person: 'dee' }, { entities: ['NO'] }),
      { ...level('later', 5, { is: 'person', person: 'dee' }), from: '2026-03-03' },
    ];
    const roles = [
      { person: 'eve', role: 'controller' as const, entity: 'IE' },
      { person: 'cy', role: 'controller' as const, entity: null },
      { person: 'dee', role: 'controller' as const, entity: 'NO' },
    ];
    const route = computeRoute(record(), book(levels, { roles }));
    expect(asked(route)).toEqual(['–', 'cy|eve', '–']);
    expect(skips(route)).toEqual(['not a contractor', 'category']);
    const people = [
      person('ada', 'bo', { kind: 'contractor', sponsor: 'eve' }),
      person('eve', 'cy'),
      person('cy', null),
    ];
    expect(asked(computeRoute(record(), book(levels, { people, roles: [...roles, approver('cy')] })))).toEqual([
      'eve',
      '–',
      '–',
    ]);
  });
});

describe('who decides in whose place', () => {
  it('never the claimant nor the preparer: it goes to who is above them', () => {
    const owner = [level('owner', 1, { is: 'owner', dimensions: ['project'] })];
    const charged = [{ dimension: 'project', code: 'P-1', owner: 'ada', amount: '1.00' }];
    const route = computeRoute(record({ preparer: 'bo', charged }), book(owner));
    expect(asked(route)).toEqual(['cy']);
    expect(route.levels[0]!.needs[0]!.detours).toEqual([
      { person: 'ada', why: 'own', to: 'bo', as: 'above' },
      { person: 'bo', why: 'prepared', to: 'cy', as: 'above' },
    ]);
  });
  it('a substitute on their dates, unless they cannot decide either', () => {
    const away = (substitute: string, from: string, to: string) => [{ person: 'bo', substitute, from, to }];
    const at = (substitutes: RouteBook['substitutes']) => computeRoute(record(), book([usual], { substitutes }));
    expect(asked(at(away('eve', '2026-03-01', '2026-03-02')))).toEqual(['eve']);
    expect(asked(at(away('eve', '2026-03-03', '2026-03-09')))).toEqual(['bo']);
    expect(asked(at(away('ada', '2026-03-01', '2026-03-09')))).toEqual(['cy']);
    const both = [...away('eve', '2026-03-01', '2026-03-09'), { person: 'eve', substitute: 'dee' }];
    expect(asked(at(both))).toEqual(['cy']);
  });
  it('who is above somebody without a role by which anything is decided', () => {
    const roles = [approver('cy'), { person: 'bo', role: 'auditor' as const, entity: null }];
    const [only] = computeRoute(record(), book([usual], { roles })).levels;
    expect(only!.needs).toEqual([
      { people: ['cy'], about: [], detours: [{ person: 'bo', why: 'no role', to: 'cy', as: 'above' }] },
    ]);
  });
  it('who is above somebody who has left', () => {
    const people = [person('ada', 'bo'), person('bo', 'cy', { active: false }), person('cy', null)];
    expect(asked(computeRoute(record(), book([usual], { people })))).toEqual(['cy']);
  });
});

describe('a route that nobody can decide', () => {
  it('says whom to ask when nobody is above, or two are above each other', () => {
    expect(computeRoute(record({ claimant: 'dee', preparer: 'dee' }), book([usual])).unfilled).toEqual({
      level: 'usual',
      ask: ['root'],
    });
    const people = [person('ada', 'bo'), person('bo', 'ada', { active: false })];
    expect(computeRoute(record(), book([usual], { people })).unfilled).toMatchObject({ level: 'usual' });
    const self = [level('root', 1, { is: 'person', person: 'nobody' })];
    expect(computeRoute(record({ claimant: 'root' }), book(self)).unfilled).toEqual({ level: 'root', ask: [] });
  });
  it('passes a level nobody fills to a later one, not to one beside it', () => {
    const vacant = level('vacant', 1, { is: 'person', person: 'gone' });
    const beside = level('beside', 1, { is: 'person', person: 'dee' });
    expect(computeRoute(record(), book([vacant, { ...beside, place: 2 }])).unfilled).toBeNull();
    expect(computeRoute(record(), book([vacant, beside])).unfilled).toMatchObject({ level: 'vacant' });
  });
  it('and when every level is left out', () => {
    const tier = level('tier', 1, { is: 'approver', steps: 1 }, { above: { amount: '5000.00', currency: 'EUR' } });
    expect(computeRoute(record(), book([tier])).unfilled).toEqual({ level: 'tier', ask: ['root'] });
  });
});
