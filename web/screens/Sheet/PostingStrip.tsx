import { memo } from 'react';
import { ChevronDown, ChevronUp } from 'lucide-react';
import type { Assessment, JournalRow } from '../../../core/documents/assessment.schema.ts';
import { fromMinor, toMinor } from '../../../core/numbers/amount.ts';
import { accountName, sayCoding, useChart, type Chart } from '../../api/chart.ts';
import type { ClaimView } from '../../api/claims.ts';
import { JournalHead, JournalMoney } from '../../parts/journalCells.tsx';
import { rowsNotIn } from './rowsNotIn.ts';
import { Money } from '../../parts/Money.tsx';
import { KeyHint } from '../../parts/keys.tsx';

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
export const PostingStrip = memo(function PostingStrip(props: PostingStripProps) {
  const { view, assessment, changed, date, open, onToggle } = props;
  const { journal } = assessment;
  const ledger = view.claim.ledgerCurrency;
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
        <Outcome assessment={assessment} ledger={ledger} date={date} />
        {changed && <span className="badge badge-sm">as typed, not saved</span>}
        <span className="ml-auto">
          <KeyHint of="journal" />
        </span>
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
});

interface OutcomeProps {
  assessment: Assessment;
  ledger: string;
  date: string;
}

/** Whether there is a journal, over how much, and what forbids it. */
function Outcome({ assessment: { journal, findings }, ledger, date }: OutcomeProps) {
  const stop = findings.find((f) => f.severity === 'stop');
  const why = stop && `${stop.line ? `line ${stop.line}, ` : ''}${stop.says}`;
  if (journal.length === 0)
    return <span className="text-error">cannot be made: {why ?? 'there is nothing to post'}</span>;
  const total = sum(
    journal.map((row) => row.debit),
    ledger,
  );
  return (
    <>
      <span>
        balanced, {journal.length} rows, <Money amount={total} currency={ledger} strong /> on either side, {date}
      </span>
      {why && <span className="text-error">{why}</span>}
    </>
  );
}

function JournalTable({ rows, before, ledger }: { rows: JournalRow[]; before: JournalRow[] | null; ledger: string }) {
  const { data: chart } = useChart();
  const accounts = [...new Set(rows.map((row) => row.account))].sort();
  const changed = new Set(before ? rowsNotIn(before, rows) : []);
  return (
    <table className="w-full text-sm">
      <JournalHead ledger={ledger} third="Line" sticky />
      <tbody>
        {accounts.flatMap((account) =>
          rows
            .filter((row) => row.account === account)
            .map((row, i) => (
              <JournalLine key={`${account}${i}`} row={row} first={i === 0} changed={changed.has(row)} chart={chart} />
            )),
        )}
      </tbody>
    </table>
  );
}

interface JournalLineProps {
  row: JournalRow;
  first: boolean;
  changed: boolean;
  chart: Chart | undefined;
}

const JournalLine = memo(function JournalLine({ row, first, changed, chart }: JournalLineProps) {
  return (
    <tr className={`border-t border-base-300 ${changed ? 'bg-primary/12' : ''}`}>
      <td className="py-0.5 pl-4">
        {first && (
          <>
            <span className="font-mono">{row.account}</span> {accountName(chart, row.account)}
          </>
        )}
      </td>
      <td className="quiet px-2">{sayCoding(row.coding, chart)}</td>
      <td className="quiet px-2">{[row.line, row.item, row.taxCode].filter(Boolean).join(' ')}</td>
      <JournalMoney row={row} />
    </tr>
  );
});

function sum(amounts: string[], currency: string): string {
  return fromMinor(
    amounts.reduce((a, x) => a + toMinor(x, currency), 0n),
    currency,
  );
}
