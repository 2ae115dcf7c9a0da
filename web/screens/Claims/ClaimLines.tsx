import { useState } from 'react';
import type { Line } from '../../../core/documents/case.schema.ts';
import { useChart, type Chart } from '../../api/chart.ts';
import type { ClaimAnswer, MakerView } from '../../api/claims.ts';
import { ChargedOn } from '../../parts/ChargedOn.tsx';
import { Money } from '../../parts/Money.tsx';
import { sayCuts, sayDeclined } from '../../words/sayCut.ts';
import { sayChange } from '../../words/whereItIs.ts';
import { wordTo } from '../../../core/workflow/wordsWanted.ts';
import { ClaimantsWord } from '../../parts/ClaimantsWord.tsx';
import { LineActs } from './LineActs.tsx';
import { LineReceipt } from './LineReceipt.tsx';
import { LineTies } from './LineTies.tsx';

interface ClaimLinesProps {
  view: MakerView;
  onDone: (next: ClaimAnswer) => void;
  onFail: () => void;
}

/** The lines of a claim that is handed in, each with what finance changed, what the rules say of it, and its receipt. */
export function ClaimLines({ view, onDone, onFail }: ClaimLinesProps) {
  const { data: chart } = useChart();
  const [open, setOpen] = useState<string | null>(null);
  return (
    <>
      <h2 className="mt-6 mb-1 font-semibold">Lines</h2>
      <ul className="rounded-box border border-base-300 bg-base-100">
        {view.document.lines.map((line) => (
          <li key={line.id} className="border-b border-base-300 px-4 py-2 last:border-b-0">
            <LineFacts view={view} line={line} chart={chart} />
            <div className="mt-1 flex flex-wrap items-center gap-x-4 text-sm">
              <ReceiptLink
                {...{ view, line }}
                open={open === line.id}
                toggle={() => setOpen(open === line.id ? null : line.id)}
              />
              <LineTies view={view} line={line} />
              <LineActs {...{ view, line, onDone, onFail }} />
            </div>
            {open === line.id && (
              <div className="mt-2 flex h-96">
                <LineReceipt view={view} line={line} />
              </div>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}

interface LineProps {
  view: MakerView;
  line: Line;
}

function LineFacts({ view, line, chart }: LineProps & { chart: Chart | undefined }) {
  const name = chart?.categories.find((c) => c.id === line.category)?.name;
  return (
    <>
      <div className="flex items-baseline gap-3">
        <span className="min-w-0 flex-1">
          <span className="block font-medium">{line.merchant}</span>
          <span className="quiet text-sm">
            {line.date} · {name ?? (line.personal ? 'Private' : `${line.items?.length ?? 0} items`)} ·{' '}
            {line.description}
          </span>
        </span>
        <LineAmount view={view} line={line} />
      </div>
      <ChargedOn rebill={line.rebill} amount={view.rebilled[line.id]} currency={view.claim.currency} />
      <NotAllowed view={view} line={line} />
      <LineRemarks view={view} line={line} />
    </>
  );
}

/** Why a line, or a part of it, leaves the total. */
const NotAllowed = ({ view, line }: LineProps) =>
  (sayDeclined(view.declined, line) ?? sayCuts(line)).map(({ says, reason }) => (
    <p key={says} className="mt-1 border-l-4 border-error pl-2 text-sm">
      <strong>{says}:</strong> {reason}{' '}
      {line.paidBy === 'card' && <span className="quiet">The card paid it, so it is private.</span>}
    </p>
  ));

const LineRemarks = ({ view, line }: LineProps) => (
  <>
    {view.changes
      .filter((c) => c.line === line.id)
      .map((change) => (
        <p key={change.field} className="mt-1 text-sm">
          <strong>Finance changed</strong> {sayChange(change)}
        </p>
      ))}
    {view.findings
      .filter((f) => f.line === line.id && f.code !== 'cut')
      .map((f, i) => (
        <p key={i} className="quiet mt-1 text-sm">
          {f.says} <ClaimantsWord word={wordTo(f, view.document.explanations)} />
        </p>
      ))}
  </>
);

const LineAmount = ({ view, line }: LineProps) => (
  <span className="text-right">
    <Money amount={line.amount} currency={line.currency} strong />
    {line.currency !== view.claim.currency && (
      <span className="quiet block text-sm">
        = <Money amount={view.amounts[line.id]} currency={view.claim.currency} />
      </span>
    )}
  </span>
);

function ReceiptLink({ view, line, open, toggle }: LineProps & { open: boolean; toggle: () => void }) {
  return (
    <>
      {view.receipts[line.id] ? (
        <button type="button" className="link" aria-expanded={open} onClick={toggle}>
          Receipt
        </button>
      ) : (
        <span className="quiet">No receipt</span>
      )}
    </>
  );
}
