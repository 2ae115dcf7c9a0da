import { useState, type FormEvent } from 'react';
import type { AdvanceAnswer } from '../../api/advances.ts';
import { DayEntry, Entry } from '../../parts/Entry.tsx';
import { Problem } from '../../parts/Field.tsx';
import { useKept, useSending } from '../../parts/kept.ts';
import { readMoney } from '../../parts/readMoney.ts';
import { todayHere } from '../../parts/today.ts';
import { FormButtons } from './FormButtons.tsx';

interface Moved {
  date: string;
  amount: string;
  bank?: string;
  account?: string;
  reference: string | null;
}
interface MoneyMovedFormProps {
  view: AdvanceAnswer;
  what: 'payout' | 'return';
  onClose: () => void;
  onMoved: (moved: Moved) => Promise<unknown>;
}

/** Records what the bank moved: the payout of an advance, or money given back of it. */
export function MoneyMovedForm({ view: { advance, standing }, what, onClose, onMoved }: MoneyMovedFormProps) {
  const { currency, ledgerCurrency, bankAccount } = advance;
  const foreign = currency !== ledgerCurrency;
  const [typed, setTyped, drop] = useKept(what, {
    ...{ date: todayHere(), bank: '', reference: '', account: bankAccount?.code ?? '' },
    amount: standing?.open.amount ?? advance.amount,
  });
  const sending = useSending(drop);
  const [problem, setProblem] = useState<string | null>(null);
  const set = (fields: Partial<typeof typed>) => setTyped({ ...typed, ...fields });
  const send = async (event: FormEvent) => {
    event.preventDefault();
    const amount = readMoney(typed.amount, currency);
    const bank = typed.bank.trim() ? readMoney(typed.bank, ledgerCurrency) : null;
    if (!typed.date) return setProblem('Say on which day the bank moved it.');
    if (!amount.ok) return setProblem(amount.problem);
    if (amount.currency !== currency) return setProblem(`The advance is in ${currency}.`);
    if (bank && !bank.ok) return setProblem(bank.problem);
    setProblem(null);
    const { account } = typed;
    const moved = {
      ...{ date: typed.date, amount: amount.amount, reference: typed.reference.trim() || null },
      ...(bank ? { bank: bank.amount } : {}),
      ...(account.trim() ? { account: account.trim() } : {}),
    };
    await sending(onMoved(moved));
  };
  return (
    <form onSubmit={(e) => void send(e)} className="mt-3 border-t border-base-300 pt-1" noValidate>
      <div className="grid gap-x-3 sm:grid-cols-2">
        <DayEntry
          label={what === 'payout' ? 'Paid out on' : 'Given back on'}
          value={typed.date}
          onChange={(date) => set({ date })}
        />
        {what === 'return' && (
          <Entry label={`How much, in ${currency}`} value={typed.amount} onChange={(amount) => set({ amount })} />
        )}
        {foreign && (
          <Entry
            label={`What the bank moved, in ${ledgerCurrency}`}
            placeholder="by the rate of the day"
            value={typed.bank}
            onChange={(bank) => set({ bank })}
          />
        )}
        <Entry
          label={`Account of the bank${bankAccount ? ` (${bankAccount.name})` : ''}`}
          value={typed.account}
          onChange={(account) => set({ account })}
        />
        <Entry
          label="How the bank names it"
          placeholder="Reference on the statement"
          value={typed.reference}
          onChange={(reference) => set({ reference })}
        />
      </div>
      <p className="quiet mt-2 text-sm">It is posted at once. Its proof is added beside it afterwards.</p>
      <Problem says={problem} />
      <FormButtons
        act={what === 'payout' ? 'Record and post the payout' : 'Record and post it'}
        onClose={() => (drop(), onClose())}
      />
    </form>
  );
}
