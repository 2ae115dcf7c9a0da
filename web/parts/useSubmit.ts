import { useState, type FormEvent } from 'react';

/** A short form that is sent: whether it is on its way, and what the server said against it. */
export function useSubmit(run: () => Promise<void>) {
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const submit = async (event?: FormEvent): Promise<void> => {
    event?.preventDefault();
    setBusy(true);
    setProblem(null);
    try {
      await run();
    } catch (error) {
      setProblem((error as Error).message);
    }
    setBusy(false);
  };
  return { busy, problem, submit: (event?: FormEvent) => void submit(event) };
}
