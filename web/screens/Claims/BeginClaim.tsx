import { useState, type FormEvent } from 'react';
import { useNavigate } from 'react-router';
import { drafts } from '../../api/drafts.ts';
import { useSession } from '../../api/session.ts';
import { Dialog } from '../../parts/Dialog.tsx';
import { Entry } from '../../parts/Entry.tsx';
import { PayeeChoice } from '../../parts/PayeeChoice.tsx';

/** Begins a claim from nothing: what it is for, and, of a trip, its days. */
export function BeginClaim({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate();
  const [purpose, setPurpose] = useState('');
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const self = useSession().data?.person?.id ?? '';
  const [payee, setPayee] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const begin = async (event: FormEvent) => {
    event.preventDefault();
    if (!purpose.trim()) return setProblem('Say what the claim is for.');
    if (from && to && to < from) return setProblem('The last day is before the first.');
    try {
      const { number } = await drafts.begin({
        purpose: purpose.trim(),
        tripFrom: from || null,
        tripTo: to || null,
        ...(payee && payee !== self ? { claimant: payee } : {}),
      });
      await navigate(`/claims/${number}`);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <Dialog title="A new claim" onClose={onClose}>
      <form onSubmit={(e) => void begin(e)} noValidate>
        <Entry label="What it is for" value={purpose} onChange={setPurpose} />
        <div className="grid grid-cols-2 gap-3">
          <Entry label="First day, of a trip" type="date" value={from} onChange={setFrom} />
          <Entry label="Last day" type="date" value={to} onChange={setTo} />
        </div>
        <PayeeChoice value={payee || self} onChange={setPayee} />
        {problem && (
          <p role="alert" className="mt-2 text-error">
            {problem}
          </p>
        )}
        <button className="btn btn-primary btn-sm mt-3">Begin</button>
      </form>
    </Dialog>
  );
}
