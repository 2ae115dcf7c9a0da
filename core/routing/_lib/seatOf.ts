import { DECIDERS, type Role } from '../../workflow/lifecycle.types.ts';
import { holdsOn } from '../../numbers/isoDate.ts';
import type { Detour, RouteBook, RoutedRecord, RoutePerson } from '../route.types.ts';

/** Who decides where the book names somebody, and how it came to them; null: nobody is left. */
export interface Seat {
  person: string | null;
  detours: Detour[];
}

/** What is looked up of people, once for a route. */
export interface Staff {
  find(id: string): RoutePerson | undefined;
  substituteOf(id: string): string | undefined;
  /** Why somebody does not decide themselves, or null when they can. */
  hindered(id: string): Detour['why'] | null;
}

export function staffOf({ people, substitutes, roles }: RouteBook, record: RoutedRecord): Staff {
  const { on, entity, claimant, preparer } = record;
  const byId = new Map(people.map((p) => [p.id, p]));
  const deciding = new Set(
    roles.filter((r) => isDecider(r.role) && (r.entity === null || r.entity === entity)).map((r) => r.person),
  );
  const away = new Map(substitutes.filter((s) => holdsOn(s, on)).map((s) => [s.person, s.substitute]));
  return {
    find: (id) => byId.get(id),
    substituteOf: (id) => away.get(id),
    hindered(id) {
      const person = byId.get(id);
      if (id === claimant) return 'own';
      if (id === preparer) return 'prepared';
      if (!person) return 'unknown';
      if (!person.active) return 'left';
      if (away.has(id)) return 'away';
      return deciding.has(id) ? null : 'no role';
    },
  };
}
const isDecider = (role: Role): boolean => (DECIDERS as readonly Role[]).includes(role);

/**
 * The person who decides in somebody's place when they cannot: their substitute when they have left or are away, else their
 * own usual approver, and so on upwards. Nobody is passed twice, so it ends.
 */
export function seatOf(named: string, staff: Staff): Seat {
  const [detours, passed]: [Detour[], Set<string>] = [[], new Set()];
  for (let at = named; !passed.has(at);) {
    passed.add(at);
    const why = staff.hindered(at);
    if (why === null) return { person: at, detours };
    const next = insteadOf(at, why, staff);
    detours.push({ person: at, why, to: next?.id ?? null, as: next?.as ?? null });
    if (!next) return { person: null, detours };
    at = next.id;
  }
  return { person: null, detours };
}

function insteadOf(id: string, why: Detour['why'], staff: Staff): { id: string; as: 'substitute' | 'above' } | null {
  const substitute = why === 'left' || why === 'away' ? staff.substituteOf(id) : undefined;
  if (substitute !== undefined && staff.hindered(substitute) === null) return { id: substitute, as: 'substitute' };
  const above = staff.find(id)?.usualApprover;
  return above ? { id: above, as: 'above' } : null;
}
