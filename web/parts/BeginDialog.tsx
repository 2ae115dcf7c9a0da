import { useState, type FormEvent, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { Dialog } from './Dialog.tsx';

interface BeginDialogProps {
  title: string;
  onClose: () => void;
  /** Why it cannot begin as it is filled in. */
  problem: string | null;
  /** Begins it; where it is then. */
  begin: () => Promise<string>;
  children: ReactNode;
}

/** A form that begins a record and goes to it; what is wrong is said when it is sent. */
export function BeginDialog({ title, onClose, problem, begin, children }: BeginDialogProps) {
  const navigate = useNavigate();
  const [said, setSaid] = useState<string | null>(null);
  const send = async (event: FormEvent) => {
    event.preventDefault();
    if (problem) return setSaid(problem);
    try {
      await navigate(await begin());
    } catch (error) {
      setSaid((error as Error).message);
    }
  };
  return (
    <Dialog title={title} onClose={onClose}>
      <form onSubmit={(e) => void send(e)} noValidate>
        {children}
        {said && (
          <p role="alert" className="mt-2 text-error">
            {said}
          </p>
        )}
        <button className="btn btn-primary btn-sm mt-3">Begin</button>
      </form>
    </Dialog>
  );
}
