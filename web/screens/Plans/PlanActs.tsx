import { useState } from 'react';
import { useNavigate } from 'react-router';
import { plans, type PlanAnswer } from '../../api/plans.ts';
import { ActButton } from '../../parts/ActButton.tsx';
import { BackActs, type BackAct } from '../../parts/BackActs.tsx';
import { failed } from '../../parts/failed.ts';
import { useKeys } from '../../parts/useKeys.ts';
import { ReasonForm } from '../../parts/ReasonForm.tsx';
import { useActs } from '../../parts/useActs.ts';
import type { PlanDraft } from './usePlanDraft.ts';

interface PlanActsProps {
  view: PlanAnswer;
  draft: PlanDraft;
  onDone: (next: PlanAnswer) => void;
  onFail: () => void;
}

const BACK: Record<BackAct, [done: string, undo?: BackAct]> = {
  callBack: ['is with you again'],
  withdraw: ['is withdrawn', 'bringBack'],
  bringBack: ['is a draft again'],
};

function usePlanActs({ view, draft, ...then }: PlanActsProps) {
  const { number } = view.plan;
  return useActs<PlanAnswer>({
    number,
    act: draft.act,
    step: (act, revision) => plans.act(number, revision, act),
    says: BACK,
    ...then,
  });
}

/** How a maker has the plan back, or ends it; once a claim came of it, no more. */
export function PlanBack(props: PlanActsProps) {
  const { view } = props;
  const { back } = usePlanActs(props);
  const { number, state, claim } = view.plan;
  return (
    <BackActs {...{ number, state, may: claim ? [] : view.may, history: view.history }} run={(act) => void back(act)} />
  );
}

/** What this person may do with the plan as a whole, by the lifecycle. */
export function PlanActs({ view, draft, onDone, onFail }: PlanActsProps) {
  const { number, revision, claim } = view.plan;
  const [asking, setAsking] = useState<'approve' | 'decline' | null>(null);
  const navigate = useNavigate();
  const may = (act: PlanAnswer['may'][number]) => view.may.includes(act);
  const { run } = usePlanActs({
    view,
    draft,
    onFail,
    onDone: (next) => {
      setAsking(null);
      onDone(next);
    },
  });
  const begin = async () => {
    const begun = await plans.claim(number, revision).catch(failed);
    if (begun) await navigate(`/claims/${begun.number}`);
    else onFail();
  };
  const stops = view.problems.some((p) => p.severity === 'stop');
  const submit = () => void run((r) => plans.act(number, r, 'submit'), 'is sent', 'callBack');
  useKeys({ handIn: submit }, may('submit') && !stops);
  return (
    <>
      <div className="flex flex-wrap gap-2 empty:hidden">
        {may('submit') && <ActButton leads label="Send for approval" disabled={stops} hint="handIn" run={submit} />}
        {may('takeBack') && (
          <ActButton
            label="Take back the approval"
            run={() => void run((r) => plans.act(number, r, 'takeBack'), 'waits for you again')}
          />
        )}
        {may('approve') && <ActButton leads label="Approve…" run={() => setAsking('approve')} />}
        {may('decline') && <ActButton label="Decline…" run={() => setAsking('decline')} />}
        {may('claim') && !claim && <ActButton leads label="Begin the claim" run={() => void begin()} />}
        {claim && (may('claim') || view.plan.state === 'used up') && (
          <ActButton label={`Go to ${claim}`} run={() => void navigate(`/claims/${claim}`)} />
        )}
      </div>
      {asking === 'approve' && (
        <ReasonForm
          label="A word for the traveller, if you like"
          act="Approve"
          optional
          onClose={() => setAsking(null)}
          onSubmit={(comment) => run((r) => plans.approve(number, r, comment), 'is approved')}
        />
      )}
      {asking === 'decline' && (
        <ReasonForm
          label="Why it is declined"
          act="Decline"
          onClose={() => setAsking(null)}
          onSubmit={(reason) => run((r) => plans.decline(number, r, reason), 'is declined')}
        />
      )}
    </>
  );
}
