import { Bell, CircleHelp, CircleUser, Search } from 'lucide-react';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { Link, NavLink, useLocation } from 'react-router';
import { onSignedOut, sendAs } from '../api/client.ts';
import { keepKeys } from '../api/once.ts';
import { useUnread } from '../api/messages.ts';
import type { Person } from '../api/session.ts';
import { NotReached } from './NotReached.tsx';
import { page } from './page.tsx';
import { IconButton } from './IconButton.tsx';
import { keepFor } from './kept.ts';
import { keepOpen, leftKeys } from './keptQueue.ts';
import { KeyHelp } from './KeyHelp.tsx';
import { placesOf } from './places.ts';
import { SignOut } from './SignOut.tsx';
import { SessionEnded } from './SessionEnded.tsx';
import { ThemeButton } from './ThemeButton.tsx';
import { ToastRegion } from './toast.tsx';
import { warnBeforeLeaving } from './unsaved.ts';
import { useLive } from './useLive.ts';
import { useKeys } from './useKeys.ts';

const loadPalette = () => import('./Palette.tsx');
const Palette = page('Palette', loadPalette, null);

/** The keys of writes nobody knows the outcome of are kept with what else is. */
const keepOpenKeys = (): void => keepKeys(leftKeys(), keepOpen);

/** The frame of every signed-in page: the places, the person, messages, the list of keys. */
export function Shell({ person, children }: { person: Person; children: ReactNode }) {
  keepFor(person.id);
  sendAs(person.id);
  useEffect(keepOpenKeys, [person.id]);
  const [help, setHelp] = useState(false);
  const [going, setGoing] = useState(false);
  const [ended, setEnded] = useState(false);
  useEffect(() => onSignedOut(() => setEnded(true)), []);
  useEffect(warnBeforeLeaving, []);
  // What is typed right after its key would be lost while it is still on its way.
  useEffect(() => void loadPalette().catch(() => undefined), []);
  useKeys({ help: () => setHelp(true), goTo: () => setGoing(true) });
  return (
    <div className="flex min-h-dvh flex-col">
      <a href="#main" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-base-100 focus:p-2">
        Skip to the page
      </a>
      <header className="flex h-11 shrink-0 items-center gap-1 bg-neutral px-2 text-neutral-content sm:px-3">
        <span className="mr-4 hidden text-lg font-semibold tracking-wide sm:inline">Ebbet</span>
        <Places person={person} />
        <Link
          to="/account"
          className="ml-auto shrink-0 truncate pl-1 hover:underline sm:shrink sm:pl-4"
          title="Your account"
        >
          <span className="hidden sm:inline">{person.name}</span>
          <CircleUser size={17} className="m-2 sm:hidden" aria-label="Your account" />
        </Link>
        <MessagesLink />
        <IconButton label="Go to (Ctrl K)" onClick={() => setGoing(true)} icon={<Search size={17} />} />
        <span className="hidden sm:flex">
          <ThemeButton />
          <IconButton label="All keys" onClick={() => setHelp(true)} icon={<CircleHelp size={17} />} />
        </span>
        <SignOut />
      </header>
      {person.factor === 'needed' && <FactorNeeded />}
      <NotReached />
      {ended && <SessionEnded person={person} onBack={() => setEnded(false)} />}
      <main id="main" className="flex min-h-0 flex-1 flex-col">
        {children}
      </main>
      {going && <Palette person={person} onClose={() => setGoing(false)} />}
      {help && <KeyHelp onClose={() => setHelp(false)} />}
      <ToastRegion />
    </div>
  );
}

/** Roles of finance wait for a second factor: what to do, wherever the person is. */
const FactorNeeded = () => (
  <p role="status" className="border-b border-base-300 bg-warning px-4 py-2 text-warning-content">
    Your organisation asks for a second factor before you see others’ claims.{' '}
    <Link to="/account" className="font-semibold underline">
      Add it to your account
    </Link>
  </p>
);

function Places({ person }: { person: Person }) {
  const nav = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  // where the places do not all fit, the one somebody is at is in view
  useEffect(() => {
    // newer browsers answer with a promise, which is nothing an effect may answer with
    void nav.current?.querySelector('[aria-current]')?.scrollIntoView({ inline: 'nearest', block: 'nearest' });
  }, [pathname]);
  return (
    <nav ref={nav} aria-label="Places" className="flex h-full min-w-0 items-stretch overflow-x-auto">
      {placesOf(person).map((place) => (
        <NavLink
          key={place.path}
          to={place.path}
          className={({ isActive }) =>
            `flex items-center border-b-2 px-1.5 text-sm sm:px-3 sm:text-base ${isActive ? 'border-current font-semibold' : 'border-transparent opacity-85 hover:opacity-100'}`
          }
        >
          {place.name}
        </NavLink>
      ))}
    </nav>
  );
}

/** The way to the messages, with how many are new. */
function MessagesLink() {
  useLive();
  const unread = useUnread().data?.unread ?? 0;
  const label = unread === 0 ? 'Messages' : `Messages, ${unread} new`;
  return (
    <Link to="/messages" className="relative rounded p-2 opacity-90 hover:opacity-100" aria-label={label} title={label}>
      <Bell size={17} />
      {unread > 0 && (
        <span
          aria-hidden
          className="absolute -top-0.5 -right-1 min-w-4 rounded-full bg-warning px-1 text-center text-[0.65rem] leading-4 font-semibold text-warning-content"
        >
          {unread > 99 ? '99+' : unread}
        </span>
      )}
    </Link>
  );
}
