import { describe, expect, it } from 'vitest';
import { continueRoute, type TakenNeed } from './continueRoute.ts';
import type { Need, Route } from './route.types.ts';

const need = (people: string[], codes: string[] = []): Need => ({
  people,
  about: codes.map((code) => ({ dimension: 'project', code, amount: null })),
  detours: [],
});
const taken = (level: string, place: number, of: Need, decidedBy: string | null = null): TakenNeed => ({
  ...of,
  ...{ level, place, decidedBy },
});
const route = (...levels: [string, number, Need[]][]): Route => ({
  levels: levels.map(([name, place, needs]) => ({ id: name, name, place, needs, skipped: [] })),
  unfilled: null,
});
const waits = (needs: readonly TakenNeed[], now: Route) =>
  continueRoute(needs, now)
    ?.needs.filter((n) => n.decidedBy === null)
    .map((n) => [n.level, ...n.people]);

describe('a route goes on', () => {
  it('not at all where everybody it waits for is who it would be now', () => {
    expect(continueRoute([taken('A', 1, need(['B']))], route(['A', 1, [need(['B'])]]))).toBeNull();
  });
  it('with who decides instead of one that left', () => {
    expect(waits([taken('A', 1, need(['B']))], route(['A', 1, [need(['C'])]]))).toEqual([['A', 'C']]);
  });
  it('behind what was decided, which stays, and nobody decides twice', () => {
    const needs = [taken('A', 1, need(['B']), 'B'), taken('O', 2, need(['D'], ['P1', 'P2']))];
    const now = route(['A', 1, [need(['X'])]], ['O', 2, [need(['E'], ['P1']), need(['B'], ['P2'])]]);
    const went = continueRoute(needs, now)!;
    expect(went.needs.map((n) => [n.level, n.decidedBy, ...n.people])).toEqual([
      ['A', 'B', 'B'],
      ['O', null, 'E'],
    ]);
    expect(went.levels.map((l) => l.needs.map((n) => n.people))).toEqual([[['B']], [['E']]]);
  });
  it('asks the owner of a code for what the other owner of the level did not decide', () => {
    const needs = [taken('O', 1, need(['B'], ['P1']), 'B'), taken('O', 1, need(['D'], ['P2']))];
    expect(waits(needs, route(['O', 1, [need(['C'], ['P1', 'P2'])]]))).toEqual([['O', 'C']]);
    expect(continueRoute(needs, route(['O', 1, [need(['C'], ['P1', 'P2'])]]))!.needs.at(-1)!.about).toHaveLength(1);
  });
  it('stays where the new route would leave nobody, or only who decided', () => {
    const waiting = [taken('A', 1, need(['B']))];
    expect(continueRoute(waiting, { ...route(['A', 1, []]), unfilled: { level: 'A', ask: [] } })).toBeNull();
    const decided = [taken('A', 1, need(['B']), 'B'), taken('Z', 2, need(['C']))];
    expect(continueRoute(decided, route(['A', 1, [need(['B'])]], ['Z', 2, [need(['B'])]]))).toBeNull();
  });
  it('keeps what was decided on a level that is no longer asked', () => {
    const needs = [taken('Old', 1, need(['B']), 'B'), taken('Z', 2, need(['C']))];
    expect(continueRoute(needs, route(['Z', 2, [need(['D'])]]))!.needs.map((n) => n.people)).toEqual([['B'], ['D']]);
  });
});
