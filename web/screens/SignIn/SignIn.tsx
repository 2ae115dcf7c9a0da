import { useEffect, useState } from 'react';
import { askForLetter, demoPeople, signIn, type DemoPerson } from '../../api/session.ts';
import { Field, Problem } from '../../parts/Field.tsx';
import { useEntry } from '../../parts/useEntry.ts';
import { useSubmit } from '../../parts/useSubmit.ts';

/** Sign-in; in demo mode also a list of the demo's people to pick from. */
export function SignIn({ demo }: { demo: boolean }) {
  const [forgotten, setForgotten] = useState(false);
  return (
    <main className="mx-auto grid min-h-dvh max-w-5xl content-center gap-10 p-6 md:grid-cols-[20rem_1fr]">
      <div className="self-start">
        <h1 className="text-3xl font-semibold tracking-wide">Ebbet</h1>
        <p className="quiet mb-6">Claims, proved and posted.</p>
        {forgotten ? (
          <LetterForm onBack={() => setForgotten(false)} />
        ) : (
          <EntryForm onForgotten={() => setForgotten(true)} />
        )}
      </div>
      {demo && <DemoPeople />}
    </main>
  );
}

function EntryForm({ onForgotten }: { onForgotten: () => void }) {
  const entry = useEntry('', signIn);
  return (
    <form onSubmit={entry.submit}>
      <Field
        id="email"
        label="E-mail"
        type="email"
        complete="username"
        first
        value={entry.email}
        onChange={entry.setEmail}
      />
      <Field
        id="password"
        label="Password"
        type="password"
        complete="current-password"
        value={entry.password}
        onChange={entry.setPassword}
      />
      {entry.asksCode && (
        <Field
          id="code"
          label="Code of your authenticator"
          complete="one-time-code"
          hint="Without your phone, one of the codes you kept for that."
          first
          digits
          value={entry.code}
          onChange={entry.setCode}
        />
      )}
      <button className="btn btn-primary mt-1 w-full" disabled={entry.busy}>
        Sign in
      </button>
      <Problem says={entry.problem} />
      <button type="button" className="link mt-4 text-sm" onClick={onForgotten}>
        I do not know my password
      </button>
    </form>
  );
}

function LetterForm({ onBack }: { onBack: () => void }) {
  const [email, setEmail] = useState('');
  const [sent, setSent] = useState(false);
  const form = useSubmit(async () => {
    await askForLetter(email);
    setSent(true);
  });
  return (
    <form onSubmit={form.submit}>
      {sent ? (
        <p role="status">
          If {email} belongs to somebody here, a mail is on its way with a link that sets a new password within an hour.
        </p>
      ) : (
        <>
          <Field id="email" label="E-mail" type="email" complete="username" first value={email} onChange={setEmail} />
          <button className="btn btn-primary mt-1 w-full" disabled={form.busy}>
            Send me a link
          </button>
        </>
      )}
      <Problem says={form.problem} />
      <button type="button" className="link mt-4 text-sm" onClick={onBack}>
        Back to signing in
      </button>
    </form>
  );
}

function DemoPeople() {
  const [demo, setDemo] = useState<{ people: DemoPerson[]; password: string } | null>(null);
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
            <DemoButton person={person} password={demo.password} />
          </li>
        ))}
      </ul>
    </section>
  );
}

function DemoButton({ person, password }: { person: DemoPerson; password: string }) {
  const entry = useSubmit(() => signIn(person.email, password));
  return (
    <>
      <button
        type="button"
        disabled={entry.busy}
        className="w-full rounded-field border border-base-300 bg-base-100 px-3 py-1.5 text-left hover:border-primary"
        onClick={() => entry.submit()}
      >
        <span className="block truncate font-medium">{person.name}</span>
        <span className="quiet block text-sm">{person.roles.join(', ')}</span>
      </button>
      <Problem says={entry.problem} />
    </>
  );
}
