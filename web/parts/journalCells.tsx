import { groupDigits } from '../../core/numbers/groupDigits.ts';

interface JournalHeadProps {
  ledger: string;
  /** What the third column tells of a row. */
  third: string;
  sticky?: boolean;
}

/** The headings of a journal's rows, posted or to be posted. */
export function JournalHead({ ledger, third, sticky = false }: JournalHeadProps) {
  return (
    <thead className={`quiet bg-base-200 text-left text-xs ${sticky ? 'sticky top-0' : ''}`}>
      <tr>
        <th className="py-0.5 pl-4 font-normal">Account</th>
        <th className="px-2 font-normal">Coding</th>
        <th className="px-2 font-normal">{third}</th>
        <th className="px-2 text-right font-normal">In currency</th>
        <th className="px-2 text-right font-normal">Debit {ledger}</th>
        <th className="px-2 pr-4 text-right font-normal">Credit {ledger}</th>
      </tr>
    </thead>
  );
}

/** A row's amount in its currency, and its side in the ledger's; the other side stays blank. */
export function JournalMoney({ row }: { row: { amount: string; currency: string; debit: string; credit: string } }) {
  return (
    <>
      <td className="money px-2">
        {groupDigits(row.amount)} <span className="quiet text-xs">{row.currency}</span>
      </td>
      <td className="money px-2">{blankZero(row.debit)}</td>
      <td className="money px-2 pr-4">{blankZero(row.credit)}</td>
    </>
  );
}

const blankZero = (amount: string): string => (/[1-9]/.test(amount) ? groupDigits(amount) : '');
