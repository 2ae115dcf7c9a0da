import { Command } from 'cmdk';
import { useDeferredValue, useState } from 'react';
import { useNavigate } from 'react-router';
import { useChart } from '../api/chart.ts';
import { useOwnClaims } from '../api/claims.ts';
import { useQueue } from '../api/desk.ts';
import type { Person } from '../api/session.ts';
import { Dialog } from './Dialog.tsx';
import { placesOf } from './places.ts';
import { toast } from './toast.tsx';

interface PaletteProps {
  person: Person;
  onClose: () => void;
}
interface Entry {
  key: string;
  name: string;
  about: string;
  run: () => void;
}

const LEAST_LETTERS = 2;

/** Goes to any place, claim or person's claims, and tells what a code means, from a few letters. */
export default function Palette({ person, onClose }: PaletteProps) {
  const [typed, setTyped] = useState('');
  const [marked, setMarked] = useState('');
  const groups = useEntries(person, typed.trim(), onClose);
  const keys = groups.flatMap((group) => group.entries.map((entry) => entry.key));
  // What comes from the server replaces what was marked: then the first one is.
  const current = keys.includes(marked) ? marked : (keys[0] ?? '');
  return (
    <Dialog title="Go to" onClose={onClose}>
      <Command label="Go to" shouldFilter={false} value={current} onValueChange={setMarked}>
        <Command.Input
          autoFocus
          value={typed}
          onValueChange={setTyped}
          placeholder="A place, claim, person, purpose or code"
          className="input w-full"
        />
        <Command.List className="mt-2 max-h-[55dvh] overflow-auto">
          <Command.Empty className="quiet py-3">Nothing here has these letters.</Command.Empty>
          {groups
            .filter((group) => group.entries.length > 0)
            .map((group) => (
              <Command.Group key={group.name} heading={group.name} className="quiet mb-2 text-xs">
                {group.entries.map((entry) => (
                  <Command.Item
                    key={entry.key}
                    value={entry.key}
                    onSelect={entry.run}
                    className="flex cursor-pointer items-baseline gap-3 rounded px-2 py-1 text-sm text-base-content data-[selected=true]:bg-base-200"
                  >
                    <span className="font-medium">{entry.name}</span>
                    <span className="quiet min-w-0 flex-1 truncate">{entry.about}</span>
                  </Command.Item>
                ))}
              </Command.Group>
            ))}
        </Command.List>
      </Command>
    </Dialog>
  );
}

function useEntries(person: Person, words: string, onClose: () => void): { name: string; entries: Entry[] }[] {
  const navigate = useNavigate();
  const go = (path: string) => () => {
    onClose();
    void navigate(path);
  };
  const seesDesk = placesOf(person).some((place) => place.path === '/desk');
  const asked = words.length >= LEAST_LETTERS;
  // Enter takes what is marked, so what is here already is found by what is typed now; only the server is asked later
  const later = useDeferredValue(words);
  const queue =
    useQueue(seesDesk && asked ? new URLSearchParams({ state: 'any', q: later }).toString() : null).data?.[0]?.claims
    ?? [];
  const own = useOwnClaims().data?.claims ?? [];
  const chart = useChart().data;
  const has = (...texts: (string | null)[]) => texts.join(' ').toLowerCase().includes(words.toLowerCase());
  const places = placesOf(person).filter((place) => has(place.name));
  const mine = asked ? own.filter((c) => has(c.number, c.purpose)) : [];
  const codes = asked ? (chart?.values ?? []).filter((v) => has(v.code, v.name)).slice(0, 8) : [];
  const dimension = (id: string) => chart?.dimensions.find((d) => d.id === id)?.name ?? id;
  return [
    { name: 'Places', entries: places.map((p) => ({ key: p.path, name: p.name, about: '', run: go(p.path) })) },
    {
      name: 'Claims on the Desk',
      entries: (asked && seesDesk ? queue : []).slice(0, 8).map((c) => ({
        key: c.number,
        name: c.number,
        about: `${c.claimant}, ${c.purpose}`,
        run: go(`/desk/${c.number}`),
      })),
    },
    {
      name: 'Your claims',
      entries: mine
        .slice(0, 8)
        .map((c) => ({ key: `own ${c.number}`, name: c.number, about: c.purpose, run: go(`/claims/${c.number}`) })),
    },
    {
      name: 'Codes',
      entries: codes.map((v) => ({
        key: `${v.dimension} ${v.code} ${v.from ?? ''}`,
        name: v.code,
        about: `${dimension(v.dimension)}, ${v.name}${v.owner ? `; questions to ${v.owner}` : ''}`,
        run: () => {
          void navigator.clipboard?.writeText(v.code).catch(() => undefined);
          toast({ text: `${v.code} is copied` });
          onClose();
        },
      })),
    },
  ];
}
