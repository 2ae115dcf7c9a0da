import { useState, type FormEvent } from 'react';
import { send } from '../api/client.ts';
import { sessionAnswer, signedInAnswer } from '../../contract/session.ts';
import type { Person } from '../api/session.ts';

/** Lets somebody whose session ended sign in again above their work, so that nothing typed is lost. */
export function SessionEnded({ person, onBack }: { person: Person; onBack: () => void }) {
  const [email, setEmail] = useState(person.email);
  const [password, setPassword] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    try {
      await send('POST', '/session', signedInAnswer, { email, password });
      const { person: now } = await send('GET', '/session', sessionAnswer);
      if (now?.id !== person.id) window.location.assign('/');
      else onBack();
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <form
      onSubmit={(e) => void submit(e)}
      role="alertdialog"
      aria-label="Session ended"
      className="flex flex-wrap items-center gap-2 border-b border-base-300 bg-base-100 px-4 py-2"
    >
      <strong>Your session has ended.</strong>
      <span className="quiet">Sign in again as {person.name}; the page stays as it is.</span>
      <Entry name="E-mail" type="email" complete="username" value={email} onChange={setEmail} />
      <Entry name="Password" type="password" complete="current-password" value={password} onChange={setPassword} />
      <button className="btn btn-primary btn-sm">Sign in</button>
      {problem && (
        <span role="alert" className="text-error">
          {problem}
        </span>
      )}
    </form>
  );
}

interface EntryProps {
  name: string;
  type: 'email' | 'password';
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
    autoFocus={type === 'password'}
    value={value}
    onChange={(e) => onChange(e.target.value)}
  />
);
