import { useState } from 'react';
import { Link, useLocation } from 'react-router';
import { takeNewPassword } from '../../api/session.ts';
import { NewPasswordField, Problem } from '../../parts/Field.tsx';
import { useSubmit } from '../../parts/useSubmit.ts';

/** Where the link of a letter leads: a new password, once. What the link holds stands behind the #, which no log sees. */
export default function NewPassword() {
  const letter = useLocation().hash.slice(1);
  const [password, setPassword] = useState('');
  const [done, setDone] = useState(false);
  const form = useSubmit(async () => {
    await takeNewPassword(letter, password);
    setDone(true);
  });
  return (
    <main className="mx-auto grid min-h-dvh max-w-80 content-center p-6">
      <h1 className="mb-4 text-xl font-semibold">A new password</h1>
      {done ? (
        <p role="status">
          Your new password holds, and every session of yours has ended.{' '}
          <Link to="/" reloadDocument className="link">
            Sign in
          </Link>
        </p>
      ) : (
        <form onSubmit={form.submit}>
          <NewPasswordField first value={password} onChange={setPassword} />
          <button className="btn btn-primary w-full" disabled={form.busy}>
            Take this password
          </button>
          <Problem says={form.problem} />
        </form>
      )}
    </main>
  );
}
