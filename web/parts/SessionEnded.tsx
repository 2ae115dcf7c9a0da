import { say, send, tellSignedIn } from '../api/client.ts';
import { sessionAnswer, signedInAnswer } from '../../contract/session.ts';
import type { Person } from '../api/session.ts';
import { useEntry } from './useEntry.ts';

/** Lets somebody whose session ended sign in again above their work, so that nothing typed is lost. */
export function SessionEnded({ person, onBack }: { person: Person; onBack: () => void }) {
  const entry = useEntry(person.email, async (email, password, code) => {
    await say('POST', '/session', signedInAnswer, { email, password, ...(code ? { code } : {}) });
    const { person: now } = await send('GET', '/session', sessionAnswer);
    if (now?.id !== person.id) window.location.assign('/');
    else {
      onBack();
      tellSignedIn();
    }
  });
  return (
    <form
      onSubmit={entry.submit}
      role="alertdialog"
      aria-label="Session ended"
      className="flex flex-wrap items-center gap-2 border-b border-base-300 bg-base-100 px-4 py-2"
    >
      <strong>Your session has ended.</strong>
      <span className="quiet">Sign in again as {person.name}; the page stays as it is.</span>
      <Entry name="E-mail" type="email" complete="username" value={entry.email} onChange={entry.setEmail} />
      <Entry
        name="Password"
        type="password"
        complete="current-password"
        value={entry.password}
        onChange={entry.setPassword}
      />
      {entry.asksCode && (
        <Entry name="Code" type="text" complete="one-time-code" value={entry.code} onChange={entry.setCode} />
      )}
      <button className="btn btn-primary btn-sm" disabled={entry.busy}>
        Sign in
      </button>
      {entry.problem && (
        <span role="alert" className="text-error">
          {entry.problem}
        </span>
      )}
    </form>
  );
}

interface EntryProps {
  name: string;
  type: 'email' | 'password' | 'text';
  complete: string;
  value: string;
  onChange: (value: string) => void;
}

const Entry = ({ name, type, complete, value, onChange }: EntryProps) => (
  <input
    className={`input input-sm ${type === 'email' ? 'w-64' : 'w-44'}`}
    type={type}
    required
    placeholder={name}
    aria-label={name}
    autoComplete={complete}
    autoFocus={type !== 'email'}
    value={value}
    onChange={(e) => onChange(e.target.value)}
  />
);
