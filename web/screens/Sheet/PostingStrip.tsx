import { ChevronDown, ChevronUp } from 'lucide-react';
import type { Assessment, JournalRow } from '../../../core/documents/assessment.schema.ts';
import { fromMinor, toMinor } from '../../../core/numbers/amount.ts';
import { accountName, sayCoding, useChart } from '../../api/chart.ts';
import type { ClaimView } from '../../api/claims.ts';
import { groupDigits, Money } from '../../parts/Money.tsx';

interface PostingStripProps {
  view: ClaimView;
  assessment: Assessment;
  /** True while something typed is shown that is not saved yet. */
  changed: boolean;
  /** The posting date the journal is of. */
  date: string;
  open: boolean;
  onToggle: () => void;
}

/** The journal as it would be posted now: one line at rest, grouped by account when open, with what an edit changed marked. */
export function PostingStrip({ view, assessment, changed, date, open, onToggle }: PostingStripProps) {
  const { journal, findings } = assessment;
  const ledger = view.claim.ledgerCurrency;
  const stop = findings.find((f) => f.severity === 'stop');
  const total = sum(
    journal.map((row) => row.debit),
    ledger,
  );
  return (
    <section aria-label="Posting" className="shrink-0 border-t-2 border-secondary bg-base-100">
      <button
        type="button"
        aria-expanded={open}
        className="flex w-full items-center gap-3 px-4 py-1.5 text-left"
        onClick={onToggle}
      >
        {open ? <ChevronDown size={16} /> : <ChevronUp size={16} />}
        <strong>Journal</strong>
        {journal.length === 0 ? (
          <span className="text-error">
            cannot be made:{' '}
            {stop ? `${stop.line ? `line ${stop.line}, ` : ''}${stop.says}` : 'there is nothing to post'}
          </span>
        ) : (
          <span>
            balanced, {journal.length} rows, <Money amount={total} currency={ledger} strong /> on either side, {date}
          </span>
        )}
        {changed && <span className="badge badge-sm">as typed, not saved</span>}
        {journal.length > 0 && stop && (
          <span className="text-error">
            {stop.line ? `line ${stop.line}, ` : ''}
            {stop.says}
          </span>
        )}
        <kbd className="kbd kbd-xs ml-auto">j</kbd>
      </button>
      {open && journal.length > 0 && (
        <div
          className="max-h-[32vh] overflow-auto border-t border-base-300"
          tabIndex={0}
          role="group"
          aria-label="Journal rows"
        >
          <JournalTable rows={journal} before={changed ? view.assessment.journal : null} ledger={ledger} />
        </div>
      )}
    </section>
  );
}

function JournalTable({ rows, before, ledger }: { rows: JournalRow[]; before: JournalRow[] | null; ledger: string }) {
  const { data: chart } = useChart();
  const accounts = [...new Set(rows.map((row) => row.account))].sort();
  const known = new Set(before?.map((row) => JSON.stringify(row)));
  return (
    <table className="w-full text-sm">
      <thead className="quiet sticky top-0 bg-base-200 text-left text-xs">
        <tr>
          <th className="py-0.5 pl-4 font-normal">Account</th>
          <th className="px-2 font-normal">Coding</th>
          <th className="px-2 font-normal">Line</th>
          <th className="px-2 text-right font-normal">In currency</th>
          <th className="px-2 text-right font-normal">Debit {ledger}</th>
          <th className="px-2 pr-4 text-right font-normal">Credit {ledger}</th>
        </tr>
      </thead>
      <tbody>
        {accounts.flatMap((account) =>
          rows
            .filter((row) => row.account === account)
            .map((row, i) => (
              <tr
                key={`${account}${i}`}
                className={`border-t border-base-300 ${before && !known.has(JSON.stringify(row)) ? 'bg-primary/12' : ''}`}
              >
                <td className="py-0.5 pl-4">
                  {i === 0 && (
                    <>
                      <span className="font-mono">{account}</span> {accountName(chart, account)}
                    </>
                  )}
                </td>
                <td className="quiet px-2">{sayCoding(row.coding, chart)}</td>
                <td className="quiet px-2">{[row.line, row.item, row.taxCode].filter(Boolean).join(' ')}</td>
                <td className="money px-2">
                  {groupDigits(row.amount)} <span className="quiet text-xs">{row.currency}</span>
                </td>
                <td className="money px-2">{blankZero(row.debit)}</td>
                <td className="money px-2 pr-4">{blankZero(row.credit)}</td>
              </tr>
            )),
        )}
      </tbody>
    </table>
  );
}

const blankZero = (amount: string): string => (/[1-9]/.test(amount) ? groupDigits(amount) : '');

function sum(amounts: string[], currency: string): string {
  return fromMinor(
    amounts.reduce((a, x) => a + toMinor(x, currency), 0n),
    currency,
  );
}
