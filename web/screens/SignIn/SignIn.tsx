import { useEffect, useState, type FormEvent } from 'react';
import { demoPeople, signIn, type Person } from '../../api/session.ts';

/** Sign-in; in demo mode also a list of the demo's people to pick from. */
export function SignIn({ demo }: { demo: boolean }) {
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const enter = async (mail: string, secret: string) => {
    setBusy(true);
    setProblem(null);
    try {
      await signIn(mail, secret);
    } catch (error) {
      setProblem((error as Error).message);
      setBusy(false);
    }
  };
  return (
    <main className="mx-auto grid min-h-dvh max-w-5xl content-center gap-10 p-6 md:grid-cols-[20rem_1fr]">
      <EntryForm busy={busy} problem={problem} onEnter={enter} />
      {demo && <DemoPeople onPick={enter} busy={busy} />}
    </main>
  );
}

interface EntryFormProps {
  busy: boolean;
  problem: string | null;
  onEnter: (email: string, password: string) => Promise<void>;
}

function EntryForm({ busy, problem, onEnter }: EntryFormProps) {
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void onEnter(email, password);
  };
  return (
    <form onSubmit={submit} className="self-start">
      <h1 className="text-3xl font-semibold tracking-wide">Ebbet</h1>
      <p className="quiet mb-6">Claims, proved and posted.</p>
      <Entry name="E-mail" type="email" complete="username" first value={email} onChange={setEmail} />
      <Entry name="Password" type="password" complete="current-password" value={password} onChange={setPassword} />
      <button className="btn btn-primary mt-1 w-full" disabled={busy}>
        Sign in
      </button>
      {problem && (
        <p role="alert" className="mt-3 text-error">
          {problem}
        </p>
      )}
    </form>
  );
}

interface EntryProps {
  name: string;
  type: 'email' | 'password';
  complete: string;
  first?: boolean;
  value: string;
  onChange: (value: string) => void;
}

function Entry({ name, type, complete, first = false, value, onChange }: EntryProps) {
  return (
    <>
      <label className="mb-1 block font-medium" htmlFor={type}>
        {name}
      </label>
      <input
        id={type}
        className="input mb-3 w-full"
        type={type}
        required
        autoFocus={first}
        autoComplete={complete}
        value={value}
        onChange={(e) => onChange(e.target.value)}
      />
    </>
  );
}

function DemoPeople({ onPick, busy }: { onPick: (email: string, password: string) => Promise<void>; busy: boolean }) {
  const [demo, setDemo] = useState<{ people: Required<Person>[]; password: string } | null>(null);
  useEffect(() => {
    demoPeople().then(setDemo, () => setDemo(null));
  }, []);
  return (
    <section aria-labelledby="demo-title">
      <h2 id="demo-title" className="font-semibold">
        People of the demo
      </h2>
      <p className="quiet mb-2 text-sm">Saltmarsh Commons is invented. Pick somebody to sign in as them.</p>
      <ul className="grid gap-1 sm:grid-cols-2">
        {demo?.people.map((person) => (
          <li key={person.id}>
            <button
              type="button"
              disabled={busy}
              className="w-full rounded-field border border-base-300 bg-base-100 px-3 py-1.5 text-left hover:border-primary"
              onClick={() => void onPick(person.email, demo.password)}
            >
              <span className="block truncate font-medium">{person.name}</span>
              <span className="quiet block text-sm">{person.roles.join(', ')}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
