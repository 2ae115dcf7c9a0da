import { z } from 'zod';
import type { AdvanceAnswer } from '../../api/advances.ts';
import { Problem } from '../../parts/Field.tsx';
import { DayOf, TextEntry } from '../../parts/form/entries.tsx';
import { moneyTyped, wanted } from '../../parts/form/typedSchemas.ts';
import { useTypedForm } from '../../parts/form/useTypedForm.ts';
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

const amountOf = (typed: string, currency: string): string => {
  const money = readMoney(typed, currency);
  if (!money.ok) throw new Error(money.problem);
  return money.amount;
};

const schemaOf = ({ currency, ledgerCurrency }: AdvanceAnswer['advance']) =>
  z.object({
    date: wanted('Say on which day the bank moved it.'),
    amount: moneyTyped(currency).refine((typed) => {
      const money = readMoney(typed, currency);
      return !money.ok || money.currency === currency;
    }, `The advance is in ${currency}.`),
    bank: z.literal('').or(moneyTyped(ledgerCurrency)),
    account: z.string(),
    reference: z.string(),
  });

/** Records what the bank moved: the payout of an advance, or money given back of it. */
export function MoneyMovedForm({ view: { advance, standing }, what, onClose, onMoved }: MoneyMovedFormProps) {
  const { currency, ledgerCurrency, bankAccount } = advance;
  const start = {
    date: todayHere(),
    amount: standing?.open.amount ?? advance.amount,
    bank: '',
    account: bankAccount?.code ?? '',
    reference: '',
  };
  const typed = useTypedForm({ says: what, schema: schemaOf(advance), start }, (said) =>
    onMoved({
      date: said.date,
      amount: amountOf(said.amount, currency),
      reference: said.reference.trim() || null,
      ...(said.bank.trim() ? { bank: amountOf(said.bank, ledgerCurrency) } : {}),
      ...(said.account.trim() ? { account: said.account.trim() } : {}),
    }),
  );
  const { control, formState } = typed.form;
  const foreign = currency !== ledgerCurrency;
  return (
    <form onSubmit={typed.submit} className="mt-3 border-t border-base-300 pt-1" noValidate>
      <div className="grid gap-x-3 sm:grid-cols-2">
        <DayOf control={control} name="date" label={what === 'payout' ? 'Paid out on' : 'Given back on'} />
        {what === 'return' && <TextEntry control={control} name="amount" label={`How much, in ${currency}`} decimal />}
        {foreign && (
          <TextEntry
            control={control}
            name="bank"
            label={`What the bank moved, in ${ledgerCurrency}`}
            placeholder="by the rate of the day"
            decimal
          />
        )}
        <TextEntry
          control={control}
          name="account"
          label={`Account of the bank${bankAccount ? ` (${bankAccount.name})` : ''}`}
        />
        <TextEntry
          control={control}
          name="reference"
          label="How the bank names it"
          placeholder="Reference on the statement"
        />
      </div>
      <p className="quiet mt-2 text-sm">It is posted at once. Its proof is added beside it afterwards.</p>
      <Problem says={formState.errors.root?.message ?? null} />
      <FormButtons
        act={what === 'payout' ? 'Record and post the payout' : 'Record and post it'}
        onClose={() => (typed.forget(), onClose())}
      />
    </form>
  );
}
