import { useState, type FormEvent } from 'react';
import type { AdvanceAnswer } from '../../api/advances.ts';
import { DayEntry, Entry } from '../../parts/Entry.tsx';
import { Problem } from '../../parts/Field.tsx';
import { useKept, useSending } from '../../parts/kept.ts';
import { readMoney } from '../../parts/readMoney.ts';
import { FormButtons } from './FormButtons.tsx';

interface GrantFormProps {
  view: AdvanceAnswer;
  onClose: () => void;
  onGrant: (grant: { amount?: string; dueBy: string; reason?: string }) => Promise<unknown>;
}

/** What a reviewer grants: all that is asked for or less, and the day by which it is accounted for. */
export function GrantForm({ view: { advance, problems }, onClose, onGrant }: GrantFormProps) {
  const [amount, setAmount] = useState(advance.amount);
  const [dueBy, setDueBy] = useState(advance.dueBy ?? advance.proposedDue);
  const [reason, setReason, drop] = useKept('grant', '');
  const sending = useSending(drop);
  const [problem, setProblem] = useState<string | null>(null);
  const money = readMoney(amount, advance.currency);
  const less = money.ok && money.amount !== advance.requested;
  const wanted = less || (problems.length > 0 && !advance.exception);
  const grant = async (event: FormEvent) => {
    event.preventDefault();
    if (!money.ok) return setProblem(money.problem);
    if (money.currency !== advance.currency) return setProblem(`It was asked for in ${advance.currency}.`);
    if (!dueBy) return setProblem('Set the day by which it is to be accounted for.');
    if (wanted && !reason.trim()) return setProblem(less ? 'Say why it is less.' : 'Say why there is an exception.');
    setProblem(null);
    const said = reason.trim();
    await sending(onGrant({ dueBy, ...(less ? { amount: money.amount } : {}), ...(said ? { reason: said } : {}) }));
  };
  return (
    <form onSubmit={(e) => void grant(e)} className="mt-3 border-t border-base-300 pt-1" noValidate>
      <div className="grid gap-x-3 sm:grid-cols-2">
        <Entry label={`Granted, in ${advance.currency}`} value={amount} onChange={setAmount} />
        <DayEntry label="To be accounted for by" value={dueBy} onChange={setDueBy} />
      </div>
      {(wanted || reason) && (
        <Entry label={less ? 'Why it is less' : 'Why there is an exception'} value={reason} onChange={setReason} />
      )}
      <Problem says={problem} />
      <FormButtons act="Grant" onClose={() => (drop(), onClose())} />
    </form>
  );
}
