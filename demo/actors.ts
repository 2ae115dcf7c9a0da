import { actorWith, type Actor } from '../server/platform/context.ts';
import { people } from './people.ts';
import { people as others } from './year/organisation.ts';

/** A person of the demo as one who acts. */
export function actorOf(id: string): Actor {
  const person = [...people, ...others].find((p) => p.id === id)!;
  return actorWith(
    { id, name: person.name, email: `${person.mail}@saltmarsh.example`, factor: 'off' },
    person.roles.map((role) => ({ role, entity: null })),
  );
}

export const clockAt = (now: Date) => ({ now: () => now });
export const moment = (date: string, hour: number): Date => new Date(`${date}T${String(hour).padStart(2, '0')}:00:00Z`);
