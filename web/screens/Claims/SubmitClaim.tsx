import { useState } from 'react';
import type { MakerView } from '../../api/claims.ts';
import { TieMark } from '../../parts/TieMark.tsx';
import { differsOf, sayDiffers } from '../../words/sayDiffers.ts';
import { groupDigits } from '../../../core/numbers/groupDigits.ts';
import { Dialog } from '../../parts/Dialog.tsx';
import { wordsWanted } from '../../../core/workflow/wordsWanted.ts';
import { useChart } from '../../api/chart.ts';
import type { Draft } from './prepare/useDraft.ts';
import { WordCell } from './prepare/WordCell.tsx';
import { RouteOf } from '../../parts/RouteOf.tsx';
import { ClaimAdvances } from './ClaimAdvances.tsx';
import { ClaimSettlement } from './ClaimSettlement.tsx';

interface SubmitClaimProps {
  view: MakerView;
  draft: Draft;
  again: boolean;
  /** With the version of the statement that was accepted, where one is asked for. */
  onSubmit: (accepted: string | undefined) => Promise<unknown>;
  onClose: () => void;
}

/** What is handed in, before it is: what it comes to, to whom it goes, and what stands against it. */
export function SubmitClaim({ view, draft, again, onSubmit, onClose }: SubmitClaimProps) {
  const statement = useChart().data?.statement ?? null;
  const [accepted, setAccepted] = useState(false);
  const [busy, setBusy] = useState(false);
  const stops = view.findings.filter((f) => f.severity === 'stop');
  const asks = view.findings.filter((f) => f.severity === 'ask');
  const wanted = wordsWanted(view.findings, view.document.explanations).length;
  const empty = view.document.lines.length === 0;
  const go = async () => {
    setBusy(true);
    await onSubmit(statement?.version);
    setBusy(false);
  };
  return (
    <Dialog title={again ? 'Submit it again?' : 'Submit it?'} onClose={onClose}>
      <ClaimSettlement view={view} />
      <ClaimAdvances view={view} />
      <Facts view={view} />
      <RouteOf kind="claim" {...view.claim} title="Who decides about it" />
      <Said title="This has to be put right first" findings={stops} />
      <Differs view={view} />
      <Asked {...{ view, draft, asks }} />
      <Unused view={view} />
      {empty && <p className="mt-3 text-error">There are no lines yet. Add what was spent.</p>}
      {statement && (
        <label className="mt-4 flex cursor-pointer gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm mt-0.5"
            checked={accepted}
            onChange={(e) => setAccepted(e.target.checked)}
          />
          <span>{statement.text}</span>
        </label>
      )}
      <div className="mt-4 flex items-center gap-3">
        <button
          type="button"
          className="btn btn-primary btn-sm"
          disabled={busy || empty || stops.length > 0 || wanted > 0 || (statement !== null && !accepted)}
          onClick={() => void go()}
        >
          {again ? 'Submit again' : 'Submit'}
        </button>
        <span className="quiet text-sm">
          Afterwards it cannot be changed, unless you take it back or it is returned.
        </span>
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

/** Estimates of the plan without a line; they are not carried anywhere. */
function Unused({ view }: { view: MakerView }) {
  const unused = (view.plan?.estimates ?? []).filter((e) => e.lines.length === 0);
  if (unused.length === 0) return null;
  const sums = unused.map((e) => `${e.id} (${groupDigits(e.amount)} ${view.claim.currency})`).join(', ');
  return (
    <p className="mt-3">
      {unused.length === 1 ? 'One estimate' : `${unused.length} estimates`} of plan {view.plan!.number} had no cost:{' '}
      {sums}. {unused.length === 1 ? 'It ends' : 'They end'} with the plan.
    </p>
  );
}

const sayWithout = (view: MakerView): string => {
  const count = view.document.lines.filter((l) => !view.receipts[l.id]).length;
  return count === 1 ? '1 line' : `${count} lines`;
};

interface SaidProps {
  title: string;
  findings: MakerView['findings'];
}
function Said({ title, findings }: SaidProps) {
  if (findings.length === 0) return null;
  return (
    <section className="mt-3">
      <h3 className="font-semibold text-error">{title}</h3>
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

/** Where lines are not what their evidence says: finance will ask. */
function Differs({ view }: { view: MakerView }) {
  const differs = differsOf(view);
  if (differs.length === 0) return null;
  return (
    <section className="mt-3">
      <h3 className="font-semibold">Not as the evidence says; finance will look at it</h3>
      <ul className="text-sm">
        {differs.flatMap((d) =>
          sayDiffers(d).map((says) => (
            <li key={`${d.line} ${d.kind} ${says}`} className="flex items-center gap-1.5 py-0.5">
              <TieMark state="off" label={d.kind} size={14} /> Line {d.line}, {says}
            </li>
          )),
        )}
      </ul>
    </section>
  );
}

/** What is asked, each with the claimant's word. */
function Asked({ view, draft, asks }: { view: MakerView; draft: Draft; asks: MakerView['findings'] }) {
  if (asks.length === 0) return null;
  return (
    <section className="mt-3">
      <h3 className="font-semibold">This is asked; say why</h3>
      <ul className="text-sm">
        {asks.map((f, i) => (
          <li key={`${f.line} ${f.code} ${f.says}`} className="py-1">
            {f.line && `Line ${f.line}: `}
            {f.says}
            <WordCell {...{ view, draft }} finding={f} row={i} />
          </li>
        ))}
      </ul>
    </section>
  );
}
