import { useState } from 'react';
import { changePassword } from '../../api/account.ts';
import { Field, NewPasswordField, Problem } from '../../parts/Field.tsx';
import { toast } from '../../parts/toast.tsx';
import { useSubmit } from '../../parts/useSubmit.ts';

/** Changes one's own password, by whoever knows the one before. */
export function Password() {
  const [open, setOpen] = useState(false);
  return (
    <section className="mt-6" aria-labelledby="password-title">
      <h2 id="password-title" className="mb-1 font-semibold">
        Password
      </h2>
      {open ? (
        <PasswordForm onDone={() => setOpen(false)} />
      ) : (
        <button type="button" className="btn btn-sm border-base-300 bg-base-100" onClick={() => setOpen(true)}>
          Change it
        </button>
      )}
    </section>
  );
}

function PasswordForm({ onDone }: { onDone: () => void }) {
  const [current, setCurrent] = useState('');
  const [password, setPassword] = useState('');
  const form = useSubmit(async () => {
    await changePassword(current, password);
    toast({ text: 'Your new password holds; your other sessions have ended' });
    onDone();
  });
  return (
    <form onSubmit={form.submit} className="max-w-80">
      <Field
        id="current"
        label="The password you have now"
        type="password"
        complete="current-password"
        first
        value={current}
        onChange={setCurrent}
      />
      <NewPasswordField value={password} onChange={setPassword} />
      <button className="btn btn-primary btn-sm" disabled={form.busy}>
        Take this password
      </button>{' '}
      <button type="button" className="btn btn-sm" onClick={onDone}>
        Cancel
      </button>
      <Problem says={form.problem} />
    </form>
  );
}
