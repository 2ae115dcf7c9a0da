import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { computeRoute } from '../../core/routing/computeRoute.ts';
import { decidedWith, waitingNeeds, type StandingNeed } from '../../core/routing/standing.ts';
import type { Routed } from '../../core/routing/route.schema.ts';
import type { RouteBook, RoutedRecord } from '../../core/routing/route.types.ts';

const IDS = Array.from({ length: 9 }, (_, i) => `p${i}`);
const someone = fc.constantFrom(...IDS);
const maybe = fc.option(someone, { freq: 3 });
const date = fc.constantFrom('2026-02-20', '2026-03-02', '2026-03-10');

const who = fc.oneof(
  fc.record({ is: fc.constant('approver' as const), steps: fc.integer({ min: 1, max: 5 }) }),
  fc.record({ is: fc.constant('owner' as const), dimensions: fc.constant<string[]>(['project', 'grant']) }),
  fc.record({ is: fc.constant('sponsor' as const) }),
  fc.record({ is: fc.constant('role' as const), role: fc.constantFrom('controller' as const, 'approver' as const) }),
  fc.record({ is: fc.constant('person' as const), person: someone }),
);
const level = fc.record({
  id: fc.uuid(),
  name: fc.constant('level'),
  of: fc.constant<Routed[]>(['claim']),
  place: fc.integer({ min: 1, max: 5 }),
  above: fc.option(fc.record({ amount: fc.constantFrom('0.00', '100.00', '1000.00'), currency: fc.constant('EUR') })),
  who,
});
/** Organisations as they should not be: circles, people who left, substitutes of each other, claimants who own everything. */
const organisation: fc.Arbitrary<RouteBook> = fc.record({
  levels: fc.array(level, { maxLength: 7 }),
  people: fc.tuple(
    ...IDS.map((id) =>
      fc.record({
        id: fc.constant(id),
        kind: fc.constantFrom('employee' as const, 'contractor' as const),
        active: fc.boolean(),
        usualApprover: maybe,
        sponsor: maybe,
      }),
    ),
  ),
  substitutes: fc.array(fc.record({ person: someone, substitute: someone, from: date, to: date }), { maxLength: 6 }),
  roles: fc.array(
    fc.record({
      person: someone,
      role: fc.constantFrom('controller' as const, 'approver' as const, 'administrator' as const),
      entity: fc.constantFrom(null, 'IE', 'NO'),
    }),
    { maxLength: 25 },
  ),
  rates: fc.constant([]),
});
const record: fc.Arbitrary<RoutedRecord> = fc.record({
  kind: fc.constant('claim' as const),
  on: fc.constant('2026-03-02'),
  entity: fc.constant('IE'),
  claimant: someone,
  preparer: someone,
  total: fc.record({ amount: fc.constantFrom(null, '50.00', '5000.00'), currency: fc.constant('EUR') }),
  ledgerCurrency: fc.constant('EUR'),
  charged: fc.array(
    fc.record({
      dimension: fc.constantFrom('project', 'grant'),
      code: fc.constantFrom('A', 'B'),
      owner: maybe,
      amount: fc.constantFrom(null, '10.00', '900.00'),
    }),
    { maxLength: 4 },
  ),
  categories: fc.constant(['meal']),
});

describe('routes in 10,000 organisations made up at random', () => {
  it('nobody ever decides on what is theirs or what they prepared, and only who is there decides', () => {
    fc.assert(
      fc.property(organisation, record, (book, of) => {
        const deciders = computeRoute(of, book).levels.flatMap((l) => l.needs.flatMap((n) => n.people));
        expect(deciders).not.toContain(of.claimant);
        expect(deciders).not.toContain(of.preparer);
        const away = book.substitutes.filter((s) => s.from! <= of.on && of.on <= s.to!).map((s) => s.person);
        for (const id of deciders) {
          expect(book.people.find((p) => p.id === id)!.active).toBe(true);
          expect(away).not.toContain(id);
          expect(book.roles.some((r) => r.person === id && r.entity !== 'NO')).toBe(true);
        }
      }),
      { numRuns: 10_000, seed: 12 },
    );
  });
  it('every route ends when everybody on it has decided, or says at once that nobody is left', () => {
    fc.assert(
      fc.property(organisation, record, fc.infiniteStream(fc.nat(20)), (book, of, choices) => {
        const { levels, unfilled } = computeRoute(of, book);
        const needs: StandingNeed[] = levels.flatMap((l) =>
          l.needs.map(({ people }) => ({ place: l.place, people, decidedBy: null })),
        );
        if (needs.length === 0) expect(unfilled).not.toBeNull();
        for (let decisions = 0; waitingNeeds(needs).length > 0; decisions += 1) {
          expect(decisions).toBeLessThan(IDS.length * 2);
          const { people } = waitingNeeds(needs)[0]!;
          const by = people[choices.next().value! % people.length]!;
          const taken = decidedWith(needs, by, []);
          expect(taken.length).toBeGreaterThan(0);
          for (const need of taken) need.decidedBy = by;
        }
      }),
      { numRuns: 10_000, seed: 13 },
    );
  });
  it('every skipped level and every detour says why', () => {
    fc.assert(
      fc.property(organisation, record, (book, of) => {
        for (const { needs, skipped } of computeRoute(of, book).levels) {
          expect(needs.length + skipped.length).toBeGreaterThan(0);
          for (const { detours } of needs) for (const d of detours) expect(d.to === null).toBe(d.as === null);
        }
      }),
      { numRuns: 2000, seed: 14 },
    );
  });
});
