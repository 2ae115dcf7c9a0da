import { useState } from 'react';
import { ApiError } from '../api/client.ts';
import { useSubmit } from './useSubmit.ts';

/** Signing in: e-mail and password, then, for those who have one, the code of the second factor. */
export function useEntry(mail: string, enter: (email: string, password: string, code?: string) => Promise<void>) {
  const [email, setEmail] = useState(mail);
  const [password, setPassword] = useState('');
  const [code, setCode] = useState('');
  const [asksCode, setAsksCode] = useState(false);
  const sent = useSubmit(() =>
    enter(email, password, asksCode ? code : undefined).catch((error: unknown) => {
      if (!(error instanceof ApiError) || error.code !== 'code-needed') throw error;
      setAsksCode(true);
    }),
  );
  return { email, setEmail, password, setPassword, code, setCode, asksCode, ...sent };
}
