import { ArrowLeft } from 'lucide-react';
import { Link, useParams } from 'react-router';
import { usePlan, type PlanAnswer } from '../../api/plans.ts';
import { Attachments } from '../../parts/Attachments.tsx';
import { History } from '../../parts/History.tsx';
import { Money } from '../../parts/Money.tsx';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { SavedOrNot } from '../../parts/SavedOrNot.tsx';
import { RouteOf } from '../../parts/RouteOf.tsx';
import { TideBar } from '../../parts/TideBar.tsx';
import { SAYS_OF_PLANS, sayMoment } from '../../words/sayEvent.ts';
import { Bookings } from './Bookings.tsx';
import { EstimateTable } from './EstimateTable.tsx';
import { DraftFoot, DraftPage } from '../../parts/draft/DraftFoot.tsx';
import { PlanActs, PlanBack } from './PlanActs.tsx';
import { PlanProblems } from './PlanProblems.tsx';
import { TripFields, TripTold } from './TripFields.tsx';
import { usePlanDraft, type PlanDraft } from './usePlanDraft.ts';

/** A plan: the trip, what it will cost and how that came about, what is missing, and where it is. */
export default function PlanPage() {
  const { number = '' } = useParams();
  const { data: view, error, mutate } = usePlan(number);
  if (!view) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  return (
    <OpenPlan view={view} show={(next) => void mutate(next, { revalidate: false })} reload={() => void mutate()} />
  );
}

interface OpenPlanProps {
  view: PlanAnswer;
  show: (next: PlanAnswer) => void;
  reload: () => void;
}

function OpenPlan(props: OpenPlanProps) {
  const draft = usePlanDraft(props.view, props.show);
  return props.view.may.includes('edit') ? (
    <WrittenPlan {...props} draft={draft} />
  ) : (
    <ToldPlan {...props} draft={draft} />
  );
}

type WithDraft = OpenPlanProps & { draft: PlanDraft };

/** In preparation the estimates are the page: its head is folded, and what it comes to stays at the foot. */
function WrittenPlan(props: WithDraft) {
  const { view, draft, show, reload } = props;
  const { number, revision } = view.plan;
  const acts = { view, draft, onDone: show, onFail: reload };
  return (
    <DraftPage>
      <TripFields view={view} draft={draft} />
      <PlanProblems view={view} />
      <Estimates {...props} written />
      <RouteOf kind="plan" number={number} revision={revision} title="Who decides about it" />
      <div className="mt-2 flex">
        <PlanBack {...acts} />
      </div>
      <Past view={view} />
      <DraftFoot>
        <Estimated view={view} inRow />
        <div className="ml-auto">
          <PlanActs {...acts} />
        </div>
      </DraftFoot>
    </DraftPage>
  );
}

function Estimates({ view, draft, show, reload, written }: WithDraft & { written: boolean }) {
  return (
    <>
      <div className="mt-5 mb-1 flex items-center gap-3">
        <h2 className="font-semibold">Estimates</h2>
        {written && <SavedOrNot state={draft.state} />}
      </div>
      <EstimateTable view={view} draft={draft} written={written} onChanged={show} />
      <Bookings view={view} draft={draft} onChanged={show} onFail={reload} />
    </>
  );
}

function Past({ view }: { view: PlanAnswer }) {
  if (view.history.length === 0) return null;
  return (
    <section className="mb-4">
      <h2 className="mt-6 mb-1 font-semibold">History</h2>
      <History
        events={view.history}
        says={SAYS_OF_PLANS}
        className="rounded-box border border-base-300 bg-base-100 px-4 py-1 text-sm"
      />
    </section>
  );
}

function ToldPlan(props: WithDraft) {
  const { view, draft, show, reload } = props;
  const { plan } = view;
  const acts = { view, draft, onDone: show, onFail: reload };
  return (
    <div className="mx-auto w-full max-w-7xl px-4 pb-10">
      <h1 className="flex items-center gap-2 pt-3 text-xl font-semibold">
        <Link to="/plans" aria-label="Back to your plans">
          <ArrowLeft size={16} />
        </Link>
        <span className="font-mono text-base">{plan.number}</span>
        <span className="quiet text-base font-normal">{plan.kindName}</span>
        {!view.may.includes('submit') && <span className="truncate">{plan.claimant}</span>}
      </h1>
      <TripTold view={view} />
      <div className="mt-2">
        <Attachments of="the plan" attachments={view.attachments} onAdd={undefined} onRemove={undefined} />
      </div>
      <div className="mt-3 grid gap-3 rounded-box border border-base-300 bg-base-100 p-4 sm:grid-cols-[minmax(0,1fr)_auto]">
        <div>
          <TideBar pieces={plan.tide} wide />
          <p className="mt-1">{whereItIs(view)}</p>
          <div className="mt-3 flex flex-wrap items-start gap-2">
            <PlanActs {...acts} />
            <PlanBack {...acts} />
          </div>
        </div>
        <Estimated view={view} />
      </div>
      <RouteOf kind="plan" number={plan.number} revision={plan.revision} title="Who decides about it" />
      <PlanProblems view={view} />
      <Estimates {...props} written={false} />
      <Past view={view} />
    </div>
  );
}

const Estimated = ({ view: { plan }, inRow = false }: { view: PlanAnswer; inRow?: boolean }) => (
  <div className={inRow ? 'flex flex-wrap items-baseline gap-x-3' : 'text-right'}>
    <span className="quiet block text-sm">Estimated in all</span>
    <span className={inRow ? '' : 'text-2xl'}>
      <Money amount={plan.total} currency={plan.currency} strong />
    </span>
    {plan.ratesOf && <span className="quiet block text-sm">by the rates of {plan.ratesOf}</span>}
  </div>
);

function whereItIs({ plan }: PlanAnswer): string {
  const since = plan.tide.at(-1) ? ` since ${sayMoment(plan.tide.at(-1)!.from)}` : '';
  const maker = plan.preparer === plan.claimant ? '' : ` It was prepared by ${plan.preparer}.`;
  return `${WHERE[plan.state](plan)}${since}.${maker}`;
}

type Plan = PlanAnswer['plan'];
const WHERE: Record<Plan['state'], (plan: Plan) => string> = {
  draft: () => 'It is in preparation',
  'with approver': (plan) => `It is with ${plan.deciders.join(' and ') || 'an approver'}`,
  approved: (plan) => (plan.claim ? `It became claim ${plan.claim}` : 'It is approved and waits to be claimed'),
  declined: () => 'It was declined',
  withdrawn: () => 'It was withdrawn',
  'used up': (plan) => `Its claim ${plan.claim ?? ''} is posted`,
  lapsed: () => 'It ended, since no claim came of it in time',
};
