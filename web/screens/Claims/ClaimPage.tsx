import { ArrowLeft } from 'lucide-react';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { settlementSum } from '../../../core/figures/settlement/settlementSum.ts';
import type { Line } from '../../../core/documents/case.schema.ts';
import { useChart } from '../../api/chart.ts';
import { useClaim, type ClaimView } from '../../api/claims.ts';
import { groupDigits, Money } from '../../parts/Money.tsx';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { spotsOf } from '../../parts/spots.ts';
import { ReceiptViewer } from '../../parts/ReceiptViewer.tsx';
import { toast } from '../../parts/toast.tsx';
import { gather } from '../../api/gather.ts';
import { DraftItems } from './DraftItems.tsx';
import { TideBar } from '../../parts/TideBar.tsx';
import { sayEvent, sayMoment } from '../../words/sayEvent.ts';

/** A claim as its claimant sees it: where it is, with whom, what will be paid and why, what finance changed. Read only. */
export default function ClaimPage() {
  const { number = '' } = useParams();
  const { data: view, error, mutate } = useClaim(number);
  if (error) return <Trouble error={error} retry={() => void mutate()} />;
  if (!view) return <Loading shape="rows" />;
  const { claim } = view;
  const reason = reasonOf(view);
  return (
    <div className="mx-auto w-full max-w-4xl px-4 pb-10">
      <h1 className="flex items-center gap-2 pt-3 text-xl font-semibold">
        <Link to="/claims" aria-label="Back to your claims">
          <ArrowLeft size={16} />
        </Link>
        <span className="font-mono text-base">{claim.number}</span>
      </h1>
      <p className="text-lg">{claim.purpose}</p>
      <p className="quiet text-sm">
        {claim.entityName}
        {claim.tripFrom && ` · ${claim.tripFrom} to ${claim.tripTo}`}
        {claim.version > 1 && ` · version ${claim.version}`}
      </p>
      <div className="mt-3 grid gap-3 rounded-box border border-base-300 bg-base-100 p-4 sm:grid-cols-2">
        <div>
          <TideBar pieces={view.tide} wide />
          <p className="mt-1">{whereItIs(view)}</p>
        </div>
        <Settlement view={view} />
      </div>
      {reason && (
        <p className="mt-3 border-l-4 border-warning bg-base-100 px-3 py-2">
          <strong>{claim.state === 'returned' ? 'It was returned' : 'Why'}:</strong> {reason}
        </p>
      )}
      <Queries view={view} />
      <Lines view={view} onChanged={(next) => void mutate(next, false)} onFail={() => void mutate()} />
      <h2 className="mt-6 mb-1 font-semibold">History</h2>
      <ol className="rounded-box border border-base-300 bg-base-100 px-4 py-1 text-sm">
        {[...view.history].reverse().map((event) => (
          <li key={event.seq} className="border-b border-base-300 py-1 last:border-b-0">
            <span className="font-medium">{event.actor}</span> {sayEvent(event)}{' '}
            <span className="quiet">{sayMoment(event.at)}</span>
          </li>
        ))}
      </ol>
    </div>
  );
}

/** The words of the last decision that needs the claimant's attention. */
function reasonOf({ claim, history }: ClaimView): string | null {
  if (!['returned', 'declined'].includes(claim.state)) return null;
  const last = [...history].reverse().find((e) => e.kind === claim.state);
  return (last?.words?.reason as string | undefined) ?? null;
}

function whereItIs({ claim, tide }: ClaimView): string {
  const since = tide.at(-1) ? ` since ${sayMoment(tide.at(-1)!.from)}` : '';
  const where: Record<string, string> = {
    draft: 'It is with you, not submitted yet',
    'with approver': `It is with ${claim.approver ?? 'an approver'}`,
    'in review': claim.holdReason
      ? `Finance holds it until ${claim.holdUntil}: ${claim.holdReason}`
      : 'It is with finance, in review',
    cleared: 'It is cleared and waits to be posted',
    posted: 'It is posted and waits to be paid',
    paid: 'It is paid',
    returned: 'It is with you again',
    reversed: 'Its posting was reversed; it is with finance',
  };
  return `${where[claim.state] ?? `It is ${claim.state}`}${since}.`;
}

function Settlement({ view }: { view: ClaimView }) {
  const sum = settlementSum(view.document.claim, view.assessment);
  const rows: [string, string | null][] = [
    ['Claimed', sum.claimed],
    ['− company-paid', sum.companyPaid],
    ['− private', sum.private],
    ['− advances', sum.advances],
  ];
  return (
    <dl aria-label="Settlement" className="grid grid-cols-[1fr_auto] content-start">
      {rows.map(([name, amount]) => (
        <div key={name} className="contents">
          <dt className="quiet">{name}</dt>
          <dd className="money">{amount === null ? '–' : groupDigits(amount)}</dd>
        </div>
      ))}
      <dt className="border-t border-base-300 font-semibold">
        {sum.toPay?.startsWith('-') ? 'You give back' : 'To pay'}
      </dt>
      <dd className="border-t border-base-300 text-right">
        <Money amount={sum.toPay?.replace('-', '') ?? null} currency={sum.currency} strong />
      </dd>
      {view.assessment.settlement.advances.map((a) => (
        <dd key={a.advance} className="quiet col-span-2 text-sm">
          Advance {a.advance}: {groupDigits(a.advancePart ?? '')} accounted for here, {groupDigits(a.left ?? '')}{' '}
          {view.document.book.advances?.find((x) => x.id === a.advance)?.currency} still to account for
        </dd>
      ))}
    </dl>
  );
}

function Queries({ view }: { view: ClaimView }) {
  if (view.queries.length === 0 || view.claim.state !== 'returned') return null;
  return (
    <section className="mt-3">
      <h2 className="font-semibold">Questions</h2>
      <ul>
        {view.queries.map((q) => (
          <li key={q.at} className="border-l-2 border-primary pl-2">
            Line {q.line}: {q.text} <span className="quiet">({q.by})</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Lines({
  view,
  onChanged,
  onFail,
}: {
  view: ClaimView;
  onChanged: (view: ClaimView) => void;
  onFail: () => void;
}) {
  const [open, setOpen] = useState<string | null>(null);
  const [editing, setEditing] = useState<string | null>(null);
  const isDraft = view.claim.state === 'draft';
  const fail = (error: unknown) => {
    toast({ text: error instanceof Error ? error.message : 'That failed. Try again.', tone: 'bad' });
    onFail();
  };
  const remove = (line: string) =>
    void gather.removeLine(view.claim.number, line, view.claim.revision).then(onChanged, fail);
  const { data: chart } = useChart();
  return (
    <>
      <h2 className="mt-6 mb-1 font-semibold">Lines</h2>
      <ul className="rounded-box border border-base-300 bg-base-100">
        {view.document.claim.lines.map((line) => {
          const receipt = view.receipts[line.id];
          const converted = view.assessment.lines.find((l) => l.id === line.id)?.claimAmount;
          return (
            <li key={line.id} className="border-b border-base-300 px-4 py-2 last:border-b-0">
              <div className="flex items-baseline gap-3">
                <span className="min-w-0 flex-1">
                  <span className="block font-medium">{line.merchant}</span>
                  <span className="quiet text-sm">
                    {line.date} ·{' '}
                    {chart?.categories.find((c) => c.id === line.category)?.name
                      ?? (line.personal ? 'Private' : `${line.items?.length ?? 0} items`)}{' '}
                    · {line.description}
                  </span>
                </span>
                <span className="text-right">
                  <Money amount={line.amount} currency={line.currency} strong />
                  {line.currency !== view.claim.currency && (
                    <span className="quiet block text-sm">
                      = <Money amount={converted} currency={view.claim.currency} />
                    </span>
                  )}
                </span>
              </div>
              {changesOf(view, line).map((change) => (
                <p key={change} className="mt-1 text-sm">
                  <strong>Finance changed</strong> {change}
                </p>
              ))}
              {view.assessment.findings
                .filter((f) => f.line === line.id)
                .map((f, i) => (
                  <p key={i} className="quiet mt-1 text-sm">
                    {f.says}
                  </p>
                ))}
              {receipt ? (
                <button
                  type="button"
                  className="link mt-1 text-sm"
                  aria-expanded={open === line.id}
                  onClick={() => setOpen(open === line.id ? null : line.id)}
                >
                  Receipt
                </button>
              ) : (
                <span className="quiet mt-1 text-sm">No receipt</span>
              )}
              {isDraft && !line.personal && (
                <button
                  type="button"
                  className="link ml-3 text-sm"
                  aria-expanded={editing === line.id}
                  onClick={() => setEditing(editing === line.id ? null : line.id)}
                >
                  {line.items?.length ? 'Items' : 'Break into items'}
                </button>
              )}
              {isDraft && (
                <button type="button" className="link ml-3 text-sm" onClick={() => remove(line.id)}>
                  Take the line off
                </button>
              )}
              {editing === line.id && (
                <DraftItems
                  key={view.claim.revision}
                  view={view}
                  line={line}
                  chart={chart}
                  onSaved={(next) => {
                    setEditing(null);
                    onChanged(next);
                  }}
                  onFail={fail}
                  onClose={() => setEditing(null)}
                />
              )}
              {open === line.id && receipt && (
                <div className="mt-2 flex h-96">
                  <ReceiptViewer
                    id={receipt.id}
                    pages={receipt.pages}
                    marks={spotsOf(receipt.reading, 'amount')}
                    label={`Receipt of line ${line.id}`}
                  />
                </div>
              )}
            </li>
          );
        })}
      </ul>
    </>
  );
}

/** What differs from the line as it was submitted, said in words; the original stays on record. */
function changesOf(view: ClaimView, line: Line): string[] {
  const before = view.submitted?.lines.find((l) => l.id === line.id);
  if (!before) return [];
  const fields = ['category', 'coding', 'split', 'tax', 'items'] as const;
  return fields
    .filter((field) => JSON.stringify(before[field] ?? null) !== JSON.stringify(line[field] ?? null))
    .map(
      (field) =>
        `${field}${field === 'category' ? ` from ${before.category ?? 'none'} to ${line.category ?? 'none'}` : ''}`,
    );
}
