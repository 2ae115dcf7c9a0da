import { useState } from 'react';
import type { MakerView } from '../../api/claims.ts';
import { Dialog } from '../../parts/Dialog.tsx';
import { ClaimSettlement } from './ClaimSettlement.tsx';

interface SubmitClaimProps {
  view: MakerView;
  again: boolean;
  onSubmit: () => Promise<void>;
  onClose: () => void;
}

/** What is handed in, before it is: what it comes to, to whom it goes, and what stands against it. */
export function SubmitClaim({ view, again, onSubmit, onClose }: SubmitClaimProps) {
  const [busy, setBusy] = useState(false);
  const stops = view.findings.filter((f) => f.severity === 'stop');
  const asks = view.findings.filter((f) => f.severity === 'ask');
  const empty = view.document.lines.length === 0;
  const go = async () => {
    setBusy(true);
    await onSubmit();
    setBusy(false);
  };
  return (
    <Dialog title={again ? 'Submit it again?' : 'Submit it?'} onClose={onClose}>
      <ClaimSettlement view={view} />
      <Facts view={view} />
      <Said title="This has to be put right first" tone="text-error" findings={stops} />
      <Said title="You will be asked about this" tone="" findings={asks} />
      {empty && <p className="mt-3 text-error">There are no lines yet. Add what was spent.</p>}
      <div className="mt-4 flex items-center gap-3">
        <button
          type="button"
          autoFocus
          className="btn btn-primary btn-sm"
          disabled={busy || empty || stops.length > 0}
          onClick={() => void go()}
        >
          {again ? 'Submit again' : 'Submit'}
        </button>
        <span className="quiet text-sm">Afterwards it cannot be changed, unless it is withdrawn or comes back.</span>
      </div>
    </Dialog>
  );
}

function Facts({ view }: { view: MakerView }) {
  const { lines } = view.document;
  const receipts = new Set(Object.values(view.receipts).map((r) => r.id)).size;
  const rows: [string, string][] = [
    ['Lines', String(lines.length)],
    ['Receipts', `${receipts}${receipts < lines.length ? `, ${sayWithout(view)} without` : ''}`],
    ['Goes to', view.claim.approver ?? 'nobody: there is no approver'],
    ['Made by', view.claim.preparer === view.claim.claimant ? 'yourself' : view.claim.preparer],
  ];
  return (
    <dl className="mt-3 grid grid-cols-[8rem_1fr] border-t border-base-300 pt-2">
      {rows.map(([name, value]) => (
        <div key={name} className="contents">
          <dt className="quiet">{name}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
  );
}

const sayWithout = (view: MakerView): string => {
  const count = view.document.lines.filter((l) => !view.receipts[l.id]).length;
  return count === 1 ? '1 line' : `${count} lines`;
};

interface SaidProps {
  title: string;
  tone: string;
  findings: MakerView['findings'];
}
function Said({ title, tone, findings }: SaidProps) {
  if (findings.length === 0) return null;
  return (
    <section className="mt-3">
      <h3 className={`font-semibold ${tone}`}>{title}</h3>
      <ul className="text-sm">
        {findings.map((f, i) => (
          <li key={i} className="py-0.5">
            {f.line && `Line ${f.line}: `}
            {f.says}
          </li>
        ))}
      </ul>
    </section>
  );
}
