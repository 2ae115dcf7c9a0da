import { ArrowLeft } from 'lucide-react';
import { memo, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { settlementSum } from '../../../core/figures/settlement/settlementSum.ts';
import type { Assessment } from '../../../core/documents/assessment.schema.ts';
import type { ClaimView } from '../../api/claims.ts';
import { Attachments } from '../../parts/Attachments.tsx';
import { Downloads } from '../../parts/Downloads.tsx';
import { Money } from '../../parts/Money.tsx';
import { ReasonForm } from '../../parts/ReasonForm.tsx';
import { sayHeader } from '../../words/sayHeader.ts';
import { TideBar } from '../../parts/TideBar.tsx';
import { AdvancesBeside } from './AdvancesBeside.tsx';
import { Decisions } from './Decisions.tsx';
import { PostPanel } from './PostPanel.tsx';
import { Pending } from './Pending.tsx';
import type { Side } from './Beside.tsx';
import { StaleNotice } from './StaleNotice.tsx';
import { Strip } from './Strip.tsx';
import { clearOn } from './clear.ts';
import type { Cell } from './cells.ts';
import type { SheetState } from './useSheet.ts';
import { KeyHint } from '../../parts/keys.tsx';
import { DayField } from '../../parts/days/DayField.tsx';

export type Panel = 'return' | 'hold' | 'post' | null;

interface HeadProps {
  sheet: SheetState;
  view: ClaimView;
  assessment: Assessment;
  panel: Panel;
  setPanel: (panel: Panel) => void;
  kinds: readonly Cell['kind'][];
  setCell: (cell: Cell) => void;
  setSide: (side: Side) => void;
  /** Who else has the claim open. */
  others: readonly string[];
}

/** Who, why, when; the settlement as a sum; the acts; and in place what an act still asks for. */
export function SheetHead(props: HeadProps) {
  const { sheet, view, assessment, panel, setPanel, kinds, setCell, setSide, others } = props;
  const { claim } = view;
  return (
    <div className="border-b border-base-300 bg-base-100">
      <div className="flex flex-wrap items-start gap-x-6 gap-y-1 px-4 py-2">
        <Facts view={view} assessment={assessment} />
        <div className="w-44 shrink-0 pt-1">
          <TideBar pieces={view.tide} />
        </div>
        <div className="flex flex-col items-end gap-1">
          <SettlementLine view={view} assessment={assessment} />
          <ActButtons {...{ sheet, view, panel, setPanel, kinds, setCell }} />
        </div>
      </div>
      {others.length > 0 && (
        <Strip tone="border-primary">
          {others.join(' and ')} {others.length === 1 ? 'has' : 'have'} this claim open too.
        </Strip>
      )}
      {view.claim.version > 1 && view.claim.state === 'in review' && (
        <Strip tone="border-primary">
          It came back as version {view.claim.version}.
          <button type="button" className="btn btn-xs ml-2" onClick={() => setSide('changes')}>
            What changed <KeyHint of="changes" />
          </button>
        </Strip>
      )}
      {sheet.stale && <StaleNotice sheet={sheet} />}
      {view.raised && (
        <Strip tone="border-warning">
          It comes to more than was approved: <bdi>{view.raised}</bdi>. Send it back to who approved it, or put the
          figures right; until then it is not cleared.
        </Strip>
      )}
      {claim.holdReason && <Held sheet={sheet} view={view} />}
      {claim.ownersAsked.length > 0 && (
        <Strip tone="border-warning">
          Waits for {claim.ownersAsked.join(' and ')} to agree to codes that were not on the approved version.
        </Strip>
      )}
      <Pending sheet={sheet} view={view} />
      {panel === 'return' && <ReturnPanel sheet={sheet} view={view} onClose={() => setPanel(null)} />}
      {panel === 'hold' && <HoldPanel sheet={sheet} onClose={() => setPanel(null)} />}
      {panel === 'post' && <PostPanel sheet={sheet} view={view} onClose={() => setPanel(null)} />}
    </div>
  );
}

interface ShownProps {
  view: ClaimView;
  assessment: Assessment;
}

const Facts = memo(function Facts({ view, assessment }: ShownProps) {
  const { claim } = view;
  return (
    <div className="min-w-0 flex-1 basis-80">
      <h1 className="flex items-baseline gap-2">
        <Link to="/desk" aria-label="Back to the Desk" className="self-center">
          <ArrowLeft size={16} />
        </Link>
        <span className="font-mono">{claim.number}</span>
        <span className="truncate text-lg font-semibold">{claim.claimant}</span>
        {claim.claimantKind === 'contractor' && <span className="badge badge-sm">contractor</span>}
        {claim.version > 1 && <span className="badge badge-sm">version {claim.version}</span>}
      </h1>
      <p className="truncate" title={claim.purpose}>
        {claim.purpose}
      </p>
      <div className="flex flex-wrap items-baseline gap-x-4 text-sm">
        <p className="quiet">
          {sayHeader(claim)} · approved by {claim.approvedBy.join(', ') || 'nobody yet'}
          {claim.clearedBy && ` · cleared by ${claim.clearedBy}`}
          {view.journals.map((j) => (
            <Link key={j.number} className="link ml-2" to={`/ledger/${j.number}`}>
              {j.number}
            </Link>
          ))}
        </p>
        <Downloads number={claim.number} />
      </div>
      <AdvancesBeside view={view} assessment={assessment} />
      {claim.note && <p className="text-sm">“{claim.note}”</p>}
      <Attachments of="the claim" attachments={view.attachments} />
      {claim.financeNote && <p className="text-sm">For finance: “{claim.financeNote}”</p>}
    </div>
  );
});

function Held({ sheet, view }: { sheet: SheetState; view: ClaimView }) {
  const { claim } = view;
  return (
    <Strip tone="border-warning">
      On hold until {claim.holdUntil}: {claim.holdReason}
      {claim.holdTold && (
        <span className="quiet">
          {' '}
          · {claim.claimant} is told: {claim.holdTold}
        </span>
      )}
      {view.may.includes('release') && (
        <button
          type="button"
          className="btn btn-xs ml-3"
          onClick={() => void sheet.run('Taken off hold', (revision) => sheet.acts.plain('release', revision))}
        >
          Take off hold
        </button>
      )}
    </Strip>
  );
}

const SettlementLine = memo(function SettlementLine({ view, assessment }: ShownProps) {
  const sum = settlementSum(view.document.claim, assessment);
  const parts: [string, string | null][] = [
    ['company-paid', sum.companyPaid],
    ['private', sum.private],
    ['advances', sum.advances],
  ];
  const owes = sum.toPay?.startsWith('-');
  return (
    <p aria-label="Settlement" className="text-right leading-snug">
      <span className="whitespace-nowrap">
        <Money amount={sum.claimed} /> <span className="quiet text-sm">claimed</span>
      </span>
      {parts.map(([name, amount]) => (
        <span key={name} className="whitespace-nowrap">
          {' '}
          − <Money amount={amount} /> <span className="quiet text-sm">{name}</span>
        </span>
      ))}
      <span className="whitespace-nowrap">
        {' '}
        = <Money amount={owes ? sum.toPay!.slice(1) : sum.toPay} currency={sum.currency} strong />{' '}
        <span className="text-sm">{owes ? 'to get back' : 'to pay'}</span>
      </span>
    </p>
  );
});

function ActButtons({
  sheet,
  view,
  panel,
  setPanel,
  kinds,
  setCell,
}: Omit<HeadProps, 'assessment' | 'setSide' | 'others'>) {
  const { number } = view.claim;
  const may = (act: ClaimView['may'][number]) => view.may.includes(act);
  const toggle = (which: Panel) => () => setPanel(panel === which ? null : which);
  const reopen = () =>
    void sheet.run(`${number} is in review again`, (revision) => sheet.acts.plain('reopen', revision));
  return (
    <div className="flex flex-wrap items-center justify-end gap-2">
      <Decisions sheet={sheet} view={view} />
      {may('hold') && <ActButton onClick={toggle('hold')}>Hold</ActButton>}
      {may('return') && <ActButton onClick={toggle('return')}>Return…</ActButton>}
      {may('clear') && (
        <ActButton main busy={sheet.busy} onClick={() => clearOn({ sheet, view, kinds, setCell })}>
          Clear <KeyHint of="clear" />
        </ActButton>
      )}
      {may('reopen') && (
        <ActButton busy={sheet.busy} onClick={reopen}>
          Take back into review
        </ActButton>
      )}
      {may('post') && (
        <ActButton main onClick={toggle('post')}>
          Post…
        </ActButton>
      )}
    </div>
  );
}

interface ActButtonProps {
  main?: boolean;
  busy?: boolean;
  onClick: () => void;
  children: ReactNode;
}

const ActButton = ({ main = false, busy = false, onClick, children }: ActButtonProps) => (
  <button type="button" className={`btn btn-sm ${main ? 'btn-primary' : ''}`} disabled={busy} onClick={onClick}>
    {children}
  </button>
);

function ReturnPanel({ sheet, view, onClose }: { sheet: SheetState; view: ClaimView; onClose: () => void }) {
  const [act, setAct] = useState<'return' | 'returnToApprover'>('return');
  const count = view.queries.filter((q) => !q.sent).length;
  const { approvedBy } = view.claim;
  const done = act === 'return' ? 'The claim is returned' : 'The claim is with its approver again';
  return (
    <ReasonForm
      label="Why it goes back"
      note={count ? `${count} ${count === 1 ? 'question goes' : 'questions go'} with it.` : null}
      act="Return the claim"
      onClose={onClose}
      onSubmit={(reason) =>
        sheet.run(done, (revision) => sheet.acts.reasoned(act, revision, reason), { whole: true, then: onClose })
      }
    >
      {approvedBy.length > 0 && (
        <select
          className="select select-sm w-56"
          aria-label="To whom it goes back"
          value={act}
          onChange={(e) => setAct(e.target.value as typeof act)}
        >
          <option value="return">to {view.claim.claimant}</option>
          <option value="returnToApprover">to who approved it last</option>
        </select>
      )}
    </ReasonForm>
  );
}

function HoldPanel({ sheet, onClose }: { sheet: SheetState; onClose: () => void }) {
  const [until, setUntil] = useState(() => new Date(Date.now() + 7 * 86_400_000).toISOString().slice(0, 10));
  const [told, setTold] = useState('');
  return (
    <ReasonForm
      label="Why it has to wait (for finance)"
      act="Hold the claim"
      onClose={onClose}
      onSubmit={(reason) =>
        sheet.run(
          'The claim is on hold',
          (revision) => sheet.acts.hold(revision, { reason, until, ...(told.trim() ? { told: told.trim() } : {}) }),
          { then: onClose },
        )
      }
    >
      <input
        className="input input-sm w-72"
        aria-label="What the claimant is told"
        placeholder="What the claimant is told, if anything"
        value={told}
        onChange={(e) => setTold(e.target.value)}
      />
      <label className="flex items-center gap-2 whitespace-nowrap">
        Look again on <DayField required className="input input-sm" value={until} onChange={(day) => setUntil(day)} />
      </label>
    </ReasonForm>
  );
}
