import { useState } from 'react';
import type { Line } from '../../../core/documents/case.schema.ts';
import { useChart, type Chart } from '../../api/chart.ts';
import type { ClaimAnswer, MakerView } from '../../api/claims.ts';
import { gather } from '../../api/gather.ts';
import { Money } from '../../parts/Money.tsx';
import { ReceiptViewer } from '../../parts/ReceiptViewer.tsx';
import { spotsOf } from '../../parts/spots.ts';
import { sayChange } from '../../words/whereItIs.ts';
import { failed } from '../../parts/failed.ts';
import { DraftItems } from './DraftItems.tsx';

interface ClaimLinesProps {
  view: MakerView;
  onChanged: (view: ClaimAnswer) => void;
  onFail: () => void;
}
/** What is open under a line. */
type Open = 'receipt' | 'items' | null;

const NOTHING = { line: '', what: null };

/** The lines of a claim, each with what finance changed, what the rules say of it, its receipt and its items. */
export function ClaimLines({ view, onChanged, onFail }: ClaimLinesProps) {
  const { data: chart } = useChart();
  const [open, setOpen] = useState<{ line: string; what: Open }>(NOTHING);
  const close = () => setOpen(NOTHING);
  const saved = (next: ClaimAnswer) => {
    close();
    onChanged(next);
  };
  const fail = (error: unknown) => {
    failed(error);
    onFail();
  };
  const { number, revision } = view.claim;
  const toggle = (line: string, what: Open) =>
    setOpen(open.line === line && open.what === what ? NOTHING : { line, what });
  return (
    <>
      <h2 className="mt-6 mb-1 font-semibold">Lines</h2>
      <ul className="rounded-box border border-base-300 bg-base-100">
        {view.document.lines.map((line) => (
          <li key={line.id} className="border-b border-base-300 px-4 py-2 last:border-b-0">
            <LineFacts view={view} line={line} chart={chart} />
            <LineActs
              {...{ view, line }}
              open={open.line === line.id ? open.what : null}
              toggle={(what) => toggle(line.id, what)}
              remove={() => void gather.removeLine(number, line.id, revision).then(onChanged, fail)}
              takeOff={(what) => void takeOff(view, line, what).then(onFail, fail)}
            />
            {open.line === line.id && open.what === 'items' && (
              <DraftItems key={revision} {...{ view, line, chart }} onSaved={saved} onFail={fail} onClose={close} />
            )}
            {open.line === line.id && open.what === 'receipt' && <LineReceipt view={view} line={line} />}
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
      <LineRemarks view={view} line={line} />
    </>
  );
}

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
      .filter((f) => f.line === line.id)
      .map((f, i) => (
        <p key={i} className="quiet mt-1 text-sm">
          {f.says}
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

interface LineActsProps extends LineProps {
  open: Open;
  toggle: (what: Open) => void;
  remove: () => void;
  takeOff: (what: 'charge' | 'receipt') => void;
}

/** Undoes a pair: the line is as it was before it had the charge or the receipt. */
const takeOff = ({ claim: { number, revision } }: MakerView, line: Line, what: 'charge' | 'receipt') =>
  gather.unpair({ [number]: revision }, [{ claim: number, line: line.id }], what);

function LineActs({ view, line, open, toggle, remove, takeOff: onTakeOff }: LineActsProps) {
  const may = (act: MakerView['may'][number]) => view.may.includes(act);
  const expander = (what: Open, label: string) => (
    <button type="button" className="link mr-3 text-sm" aria-expanded={open === what} onClick={() => toggle(what)}>
      {label}
    </button>
  );
  return (
    <div className="mt-1">
      {view.receipts[line.id] ? expander('receipt', 'Receipt') : <span className="quiet mr-3 text-sm">No receipt</span>}
      {may('edit') && !line.personal && expander('items', line.items?.length ? 'Items' : 'Break into items')}
      {may('unpair') && view.receipts[line.id] && (
        <button type="button" className="link mr-3 text-sm" onClick={() => onTakeOff('receipt')}>
          Take the receipt off
        </button>
      )}
      {may('unpair') && line.rate?.kind === 'card' && (
        <button type="button" className="link mr-3 text-sm" onClick={() => onTakeOff('charge')}>
          Take the charge off
        </button>
      )}
      {may('remove') && (
        <button type="button" className="link text-sm" onClick={remove}>
          Take the line off
        </button>
      )}
    </div>
  );
}

function LineReceipt({ view, line }: LineProps) {
  const receipt = view.receipts[line.id]!;
  return (
    <div className="mt-2 flex h-96">
      <ReceiptViewer
        id={receipt.id}
        pages={receipt.pages}
        marks={spotsOf(receipt.reading, 'amount')}
        label={`Receipt of line ${line.id}`}
      />
    </div>
  );
}
