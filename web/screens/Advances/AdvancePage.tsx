import { ArrowLeft } from 'lucide-react';
import { Link, useParams } from 'react-router';
import { advances, useAdvance, type AdvanceAnswer } from '../../api/advances.ts';
import { Attachments } from '../../parts/Attachments.tsx';
import { History } from '../../parts/History.tsx';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { ProblemList } from '../../parts/ProblemList.tsx';
import { RouteOf } from '../../parts/RouteOf.tsx';
import { SavedOrNot } from '../../parts/SavedOrNot.tsx';
import { TideBar } from '../../parts/TideBar.tsx';
import { ADVANCE_KINDS_SAID, whereAdvanceIs } from '../../words/sayAdvance.ts';
import { SAYS_OF_ADVANCES } from '../../words/sayEvent.ts';
import { AdvanceActs } from './AdvanceActs.tsx';
import { Payments } from './Payments.tsx';
import { RequestFields } from './RequestFields.tsx';
import { Standing } from './Standing.tsx';
import { useAdvanceDraft } from './useAdvanceDraft.ts';
import { Uses } from './Uses.tsx';

/** An advance: what for, where it is, what of it is accounted for, given back and still open, and how that came about. */
export default function AdvancePage() {
  const { number = '' } = useParams();
  const { data: view, error, mutate } = useAdvance(number);
  if (!view) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  const show = (next: AdvanceAnswer) => void mutate(next, { revalidate: false });
  return <OpenAdvance view={view} show={show} reload={() => void mutate()} />;
}

interface OpenAdvanceProps {
  view: AdvanceAnswer;
  show: (next: AdvanceAnswer) => void;
  reload: () => void;
}

function OpenAdvance({ view, show, reload }: OpenAdvanceProps) {
  const draft = useAdvanceDraft(view, show);
  const { advance } = view;
  const written = view.may.includes('edit');
  const attach = (file: File) => draft.run('the files', (r) => advances.attach(advance.number, r, file));
  const detach = ({ id }: { id: string }) => draft.run('the files', (r) => advances.detach(advance.number, r, id));
  return (
    <div className="mx-auto w-full max-w-5xl px-4 pb-10">
      <h1 className="flex items-center gap-2 pt-3 text-xl font-semibold">
        <Link to="/advances" aria-label="Back to the advances">
          <ArrowLeft size={16} />
        </Link>
        <span className="font-mono text-base">{advance.number}</span>
        {!written && <span className="truncate">{advance.person}</span>}
        {written && <SavedOrNot state={draft.state} />}
      </h1>
      {written ? <RequestFields view={view} draft={draft} /> : <Told view={view} />}
      <div className="mt-2">
        <Attachments
          of="the advance"
          attachments={view.attachments}
          onAdd={written ? attach : undefined}
          onRemove={written ? detach : undefined}
        />
      </div>
      <div className="mt-3 grid gap-x-8 gap-y-3 rounded-box border border-base-300 bg-base-100 p-4 sm:grid-cols-[minmax(0,1fr)_20rem]">
        <div>
          <TideBar pieces={advance.tide} wide />
          <p className="mt-1">{whereAdvanceIs(view)}</p>
          <AdvanceActs view={view} draft={draft} onDone={show} onFail={reload} />
        </div>
        <Standing view={view} />
      </div>
      <Problems view={view} />
      <Payments view={view} onDone={show} onFail={reload} />
      <Uses view={view} />
      <RouteOf kind="advance" number={advance.number} revision={advance.revision} title="Who decides about it" />
      <h2 className="mt-6 mb-1 font-semibold">History</h2>
      <History
        events={view.history}
        says={SAYS_OF_ADVANCES}
        className="rounded-box border border-base-300 bg-base-100 px-4 py-1 text-sm"
      />
    </div>
  );
}

function Told({ view: { advance } }: { view: AdvanceAnswer }) {
  return (
    <>
      <p className="text-lg">{advance.purpose}</p>
      <p className="quiet text-sm">
        {[
          advance.entityName,
          ADVANCE_KINDS_SAID[advance.kind],
          advance.from && (advance.to ? `${advance.from} to ${advance.to}` : advance.from),
          advance.requestedOn && `asked for on ${advance.requestedOn}`,
        ]
          .filter(Boolean)
          .join(' · ')}
        {advance.plan && (
          <>
            {' · '}
            <Link className="link" to={`/plans/${advance.plan}`}>
              plan {advance.plan}
            </Link>
          </>
        )}
      </p>
    </>
  );
}

/** What the rules say against it, and why an exception is wanted. */
function Problems({ view: { problems, advance, may } }: { view: AdvanceAnswer }) {
  if (problems.length === 0) return null;
  const written = may.includes('edit');
  return (
    <>
      <ProblemList
        problems={problems.map((p) => ({
          key: p.says,
          place: 'the rules',
          jump: written
            ? () => document.querySelector<HTMLElement>('[aria-label="Why an exception is wanted"]')?.focus()
            : null,
          says: p.says,
          beside: <span className="quiet shrink-0">{p.severity === 'ask' ? 'wants a reason' : 'cannot be'}</span>,
        }))}
      />
      {advance.exception && !written && (
        <p className="mt-3 border-l-4 border-warning bg-base-100 px-3 py-2">
          <strong>An exception is wanted:</strong> {advance.exception}
        </p>
      )}
    </>
  );
}
