import { useState } from 'react';
import { useNavigate } from 'react-router';
import { plans, type PlanAnswer } from '../../api/plans.ts';
import { ActButton } from '../../parts/ActButton.tsx';
import { failed } from '../../parts/failed.ts';
import { useKeys } from '../../parts/useKeys.ts';
import { ReasonForm } from '../../parts/ReasonForm.tsx';
import { toast } from '../../parts/toast.tsx';

interface PlanActsProps {
  view: PlanAnswer;
  onDone: (next: PlanAnswer) => void;
  onFail: () => void;
}

/** What this person may do with the plan as a whole, by the lifecycle. */
export function PlanActs({ view, onDone, onFail }: PlanActsProps) {
  const { number, revision, claim } = view.plan;
  const [asking, setAsking] = useState<'approve' | 'decline' | null>(null);
  const navigate = useNavigate();
  const may = (act: PlanAnswer['may'][number]) => view.may.includes(act);
  const run = async (work: Promise<PlanAnswer>, done: string) => {
    const next = await work.catch(failed);
    if (!next) return onFail();
    toast({ text: `${number} ${done}` });
    setAsking(null);
    onDone(next);
  };
  const begin = async () => {
    const begun = await plans.claim(number, revision).catch(failed);
    if (begun) await navigate(`/claims/${begun.number}`);
    else onFail();
  };
  const stops = view.problems.some((p) => p.severity === 'stop');
  const submit = () => void run(plans.act(number, revision, 'submit'), 'is sent');
  useKeys({ handIn: submit }, may('submit') && !stops);
  return (
    <>
      <div className="mt-3 flex flex-wrap gap-2 empty:hidden">
        {may('submit') && <ActButton leads label="Send for approval" disabled={stops} hint="handIn" run={submit} />}
        {may('takeBack') && (
          <ActButton
            label="Take back the approval"
            run={() => void run(plans.act(number, revision, 'takeBack'), 'waits for you again')}
          />
        )}
        {may('approve') && <ActButton leads label="Approve…" run={() => setAsking('approve')} />}
        {may('decline') && <ActButton label="Decline…" run={() => setAsking('decline')} />}
        {may('claim') && !claim && <ActButton leads label="Begin the claim" run={() => void begin()} />}
        {claim && (may('claim') || view.plan.state === 'used up') && (
          <ActButton label={`Go to ${claim}`} run={() => void navigate(`/claims/${claim}`)} />
        )}
        {may('withdraw') && !claim && (
          <ActButton label="Withdraw" run={() => void run(plans.act(number, revision, 'withdraw'), 'is withdrawn')} />
        )}
      </div>
      {asking === 'approve' && (
        <ReasonForm
          label="A word for the traveller, if you like"
          act="Approve"
          optional
          onClose={() => setAsking(null)}
          onSubmit={(comment) => run(plans.approve(number, revision, comment), 'is approved')}
        />
      )}
      {asking === 'decline' && (
        <ReasonForm
          label="Why it is declined"
          act="Decline"
          onClose={() => setAsking(null)}
          onSubmit={(reason) => run(plans.decline(number, revision, reason), 'is declined')}
        />
      )}
    </>
  );
}
