import type { RouteLevel } from '../route.schema.ts';
import type { ChargedCode, Need, RouteBook, RoutedRecord, Skip } from '../route.types.ts';
import { seatOf, type Seat, type Staff } from './seatOf.ts';

/** Whom one level asks, and what it leaves out and why. */
export interface Asked {
  needs: Need[];
  skipped: Skip[];
}

/** The people a level names, each with who decides in their place. Whether its threshold is reached is judged before. */
export function askedBy(level: RouteLevel, record: RoutedRecord, book: RouteBook, staff: Staff): Asked {
  const { who } = level;
  switch (who.is) {
    case 'approver':
      return one(upwards(record.claimant, who.steps, staff));
    case 'person':
      return one(seatOf(who.person, staff));
    case 'sponsor':
      return sponsor(record, staff);
    case 'role':
      return anyWith(who.role, record, book, staff);
    case 'owner':
      return owners(
        record.charged.filter((c) => who.dimensions.includes(c.dimension)),
        staff,
      );
    default:
      return who satisfies never;
  }
}

const one = ({ person, detours }: Seat, about: Need['about'] = []): Asked =>
  person === null
    ? { needs: [], skipped: [{ why: 'nobody', detours, about }] }
    : { needs: [{ people: [person], about, detours }], skipped: [] };

/** So many steps up from somebody, or as far as it goes: above the top there is nobody to ask. */
function upwards(claimant: string, steps: number, staff: Staff): Seat {
  const line = [claimant];
  while (line.length <= steps) {
    const above = staff.find(line.at(-1)!)?.usualApprover;
    if (!above || line.includes(above)) break;
    line.push(above);
  }
  return line.length === 1 ? { person: null, detours: [] } : seatOf(line.at(-1)!, staff);
}

function sponsor({ claimant }: RoutedRecord, staff: Staff): Asked {
  const person = staff.find(claimant);
  if (person?.kind !== 'contractor') return { needs: [], skipped: [{ why: 'not a contractor' }] };
  return person.sponsor === null ? one({ person: null, detours: [] }) : one(seatOf(person.sponsor, staff));
}

/** Any one of those who hold a role decides; who cannot is replaced as everywhere. */
function anyWith(role: string, { entity }: RoutedRecord, { roles }: RouteBook, staff: Staff): Asked {
  const holders = roles.filter((r) => r.role === role && (r.entity === null || r.entity === entity));
  const seats = [...new Set(holders.map((h) => h.person))].sort().map((person) => seatOf(person, staff));
  // somebody who can decide is there: who cannot need not be replaced
  const present = seats.filter((s) => s.person !== null && s.detours.length === 0);
  const chosen = present.length > 0 ? present : seats.filter((s) => s.person !== null);
  const detours = seats.flatMap((s) => s.detours);
  if (chosen.length === 0) return one({ person: null, detours });
  return { needs: [{ people: [...new Set(chosen.map((s) => s.person!))], about: [], detours }], skipped: [] };
}

/** One decision an owner, about all that is charged to their codes. */
function owners(charged: readonly ChargedCode[], staff: Staff): Asked {
  if (charged.length === 0) return { needs: [], skipped: [{ why: 'not charged' }] };
  const [needs, skipped]: [Map<string, Need>, Skip[]] = [new Map(), []];
  for (const { dimension, code, owner, amount } of charged) {
    if (owner === null) {
      skipped.push({ why: 'no owner', dimension, code });
      continue;
    }
    const { person, detours } = seatOf(owner, staff);
    const about = { dimension, code, amount };
    if (person === null) skipped.push({ why: 'nobody', detours, about: [about] });
    else add(needs, person, { people: [person], about: [about], detours });
  }
  return { needs: [...needs.values()], skipped };
}

function add(needs: Map<string, Need>, person: string, need: Need): void {
  const there = needs.get(person);
  if (!there) return void needs.set(person, need);
  there.about.push(...need.about);
  const known = new Set(there.detours.map((d) => d.person));
  there.detours.push(...need.detours.filter((d) => !known.has(d.person)));
}
