import { ArrowLeft } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { Link, Navigate, useParams } from 'react-router';
import { isFinance, useClaim, type ClaimAnswer, type MakerView } from '../../api/claims.ts';
import { Downloads } from '../../parts/Downloads.tsx';
import { Attachments } from '../../parts/Attachments.tsx';
import { History } from '../../parts/History.tsx';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { RouteOf } from '../../parts/RouteOf.tsx';
import { TideBar } from '../../parts/TideBar.tsx';
import { sayHeader } from '../../words/sayHeader.ts';
import { reasonOf, whereItIs } from '../../words/whereItIs.ts';
import { DraftFoot, DraftPage } from '../../parts/draft/DraftFoot.tsx';
import { ClaimActs, ClaimBack } from './ClaimActs.tsx';
import { ClaimAdvances } from './ClaimAdvances.tsx';
import { ClaimLines } from './ClaimLines.tsx';
import { ClaimSettlement } from './ClaimSettlement.tsx';
import { ClaimFindings } from '../../parts/ClaimFindings.tsx';
import { Questions } from './Questions.tsx';
import { HeaderFields } from './prepare/HeaderFields.tsx';
import { PlanEstimates } from './prepare/PlanEstimates.tsx';
import { PreparedLines } from './prepare/PreparedLines.tsx';
import { useDraft, type Draft } from './prepare/useDraft.ts';

/** How soon a claim is looked at again while a receipt of it is still being read. */
const LOOK_AGAIN_MS = 1500;

/** A claim as its claimant, or its approver, sees it: where it is, with whom, what will be paid and why, what finance changed. */
export default function ClaimPage() {
  const { number = '' } = useParams();
  const { data: view, error, mutate } = useClaim(number, LOOK_AGAIN_MS);
  useLookAfterReading(view, mutate);
  if (!view) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  if (isFinance(view)) return <Navigate to={`/desk/${number}`} replace />;
  const show = (next: ClaimAnswer) => void mutate(next, { revalidate: false });
  return <OpenClaim view={view} show={show} reload={() => void mutate()} />;
}

/** What a paper says is compared right after it was read, so the claim is looked at once more then. */
function useLookAfterReading(view: ClaimAnswer | undefined, mutate: () => Promise<unknown>): void {
  const waiting = view ? Object.values(view.receipts).filter((r) => r.state === 'waiting').length : 0;
  const before = useRef(waiting);
  useEffect(() => {
    const read = waiting < before.current;
    before.current = waiting;
    if (!read) return;
    const timer = setTimeout(() => void mutate(), LOOK_AGAIN_MS);
    return () => clearTimeout(timer);
  }, [waiting, mutate]);
}

interface OpenClaimProps {
  view: MakerView;
  show: (next: ClaimAnswer) => void;
  reload: () => void;
}

function OpenClaim(props: OpenClaimProps) {
  const { view, show } = props;
  const draft = useDraft(view, show);
  return view.may.includes('write') ? (
    <WrittenClaim {...props} draft={draft} />
  ) : (
    <ToldClaim {...props} draft={draft} />
  );
}

const Past = ({ view }: { view: MakerView }) => (
  <section className="mb-4">
    <h2 className="mt-6 mb-1 font-semibold">History</h2>
    <History events={view.history} className="rounded-box border border-base-300 bg-base-100 px-4 py-1 text-sm" />
  </section>
);

type WithDraft = OpenClaimProps & { draft: Draft };

/** In preparation the lines are the page: its head is folded, and what it comes to stays at the foot. */
function WrittenClaim({ view, draft, show, reload }: WithDraft) {
  const acts = { view, draft, onDone: show, onFail: reload };
  return (
    <DraftPage>
      <HeaderFields view={view} draft={draft} />
      <Reason view={view} />
      <ClaimAdvances view={view} draft={draft} />
      <Questions {...{ view, draft, show, reload }} />
      <PreparedLines {...{ view, draft, reload }} onChanged={show} />
      <div className="mt-2 flex flex-wrap items-center gap-3">
        {view.document.lines.length > 0 && <Downloads number={view.claim.number} />}
        <ClaimBack {...acts} />
      </div>
      <Past view={view} />
      <DraftFoot>
        <ClaimSettlement view={view} inRow />
        <div className="ml-auto">
          <ClaimActs {...acts} />
        </div>
      </DraftFoot>
    </DraftPage>
  );
}

function ToldClaim({ view, draft, show, reload }: WithDraft) {
  const { number, revision } = view.claim;
  const acts = { view, draft, onDone: show, onFail: reload };
  return (
    <div className="mx-auto w-full max-w-4xl px-4 pb-10">
      <Title view={view} />
      <Purpose view={view} />
      <div className="mt-2">
        <Attachments of="the claim" attachments={view.attachments} onAdd={undefined} onRemove={undefined} />
      </div>
      <div className="mt-3 grid gap-3 rounded-box border border-base-300 bg-base-100 p-4 sm:grid-cols-2">
        <div>
          <TideBar pieces={view.tide} wide />
          <p className="mt-1">{whereItIs(view)}</p>
          <div className="mt-3 flex flex-wrap items-start gap-2">
            <ClaimActs {...acts} />
            <ClaimBack {...acts} />
          </div>
        </div>
        <ClaimSettlement view={view} />
      </div>
      <RouteOf kind="claim" number={number} revision={revision} title="Who decides about it" />
      <ClaimAdvances view={view} />
      <Reason view={view} />
      <Questions {...{ view, draft, show, reload }} />
      <div className="mt-3 rounded-box bg-base-100">
        <ClaimFindings findings={view.findings} explanations={view.document.explanations} />
      </div>
      {view.plan && <PlanEstimates view={view} plan={view.plan} draft={null} />}
      <ClaimLines view={view} onDone={show} onFail={reload} />
      {view.document.lines.length > 0 && <Downloads number={number} className="mt-2" />}
      <Past view={view} />
    </div>
  );
}

function Title({ view: { claim, audience } }: { view: MakerView }) {
  return (
    <h1 className="flex items-center gap-2 pt-3 text-xl font-semibold">
      <Link
        to={audience === 'approver' ? '/approvals' : '/claims'}
        aria-label={audience === 'approver' ? 'Back to your approvals' : 'Back to your claims'}
      >
        <ArrowLeft size={16} />
      </Link>
      <span className="font-mono text-base">{claim.number}</span>
      {audience === 'approver' && <span className="truncate">{claim.claimant}</span>}
    </h1>
  );
}

function Purpose({ view: { claim } }: { view: MakerView }) {
  return (
    <>
      <p className="text-lg">{claim.purpose}</p>
      <p className="quiet text-sm">
        {sayHeader(claim)}
        {claim.version > 1 && ` · version ${claim.version}`}
      </p>
      {claim.note && <p className="mt-1 border-l-2 border-base-300 pl-2">{claim.note}</p>}
      {claim.financeNote && (
        <p className="mt-1 border-l-2 border-base-300 pl-2">For finance alone: {claim.financeNote}</p>
      )}
    </>
  );
}

function Reason({ view }: { view: MakerView }) {
  const reason = reasonOf(view);
  if (!reason) return null;
  return (
    <p className="mt-3 border-l-4 border-warning bg-base-100 px-3 py-2">
      <strong>{view.claim.state === 'returned' ? 'It was returned' : 'Why'}:</strong> {reason}
    </p>
  );
}
