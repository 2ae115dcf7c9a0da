import { useState } from 'react';
import { claimActs, type ClaimAnswer, type MakerView, type PlainAct, type ReasonedAct } from '../../api/claims.ts';
import { ActButton } from '../../parts/ActButton.tsx';
import { BackActs, type BackAct } from '../../parts/BackActs.tsx';
import { useKeys } from '../../parts/useKeys.ts';
import { ReasonForm } from '../../parts/ReasonForm.tsx';
import { useActs } from '../../parts/useActs.ts';
import type { Draft } from './prepare/useDraft.ts';
import { ReturnForm } from './ReturnForm.tsx';
import { SubmitClaim } from './SubmitClaim.tsx';

interface ClaimActsProps {
  view: MakerView;
  draft: Draft;
  onDone: (next: ClaimAnswer) => void;
  onFail: () => void;
}

/** Handing in is shown before it is done. */
const HANDING_IN: readonly { act: 'submit' | 'resubmit'; label: string; done: string }[] = [
  { act: 'submit', label: 'Submit…', done: 'is submitted' },
  { act: 'resubmit', label: 'Submit again…', done: 'is submitted again' },
];
const PLAIN: readonly { act: PlainAct; label: string; done: string; leads?: boolean }[] = [
  { act: 'approve', label: 'Approve', done: 'is approved', leads: true },
  { act: 'agreeCode', label: 'Agree to the codes', done: 'has your yes', leads: true },
  { act: 'takeBack', label: 'Take back the approval', done: 'waits for you again' },
];
const REASONED: readonly { act: ReasonedAct; label: string; why: string; done: string }[] = [
  { act: 'return', label: 'Return…', why: 'Why it goes back to the claimant', done: 'is returned' },
  { act: 'decline', label: 'Decline…', why: 'Why it is declined', done: 'is declined' },
  { act: 'refuseCode', label: 'Not these codes…', why: 'Why not these codes', done: 'does not have your yes' },
];

/** What a maker's step back says, and what undoes it. */
const BACK: Record<BackAct, [done: string, undo?: BackAct]> = {
  callBack: ['is with you again'],
  withdraw: ['is taken away', 'bringBack'],
  bringBack: ['is a draft again'],
};

function useClaimActs({ view, draft, ...then }: ClaimActsProps) {
  const { number } = view.claim;
  return useActs<ClaimAnswer>({
    number,
    act: draft.act,
    step: (act, revision) => claimActs(number).plain(act, revision),
    says: BACK,
    ...then,
  });
}

/** How its maker has the claim back, or ends it. */
export function ClaimBack(props: ClaimActsProps) {
  const { claim, may, history } = props.view;
  const { back } = useClaimActs(props);
  return <BackActs {...{ number: claim.number, state: claim.state, may, history }} run={(act) => void back(act)} />;
}

/** What this person may do with the claim as a whole, by the lifecycle; each act says what came of it. */
export function ClaimActs({ view, draft, onDone, onFail }: ClaimActsProps) {
  const { number } = view.claim;
  const [asking, setAsking] = useState<ReasonedAct | 'word' | null>(null);
  const [handing, setHanding] = useState<'submit' | 'resubmit' | null>(null);
  const acts = claimActs(number);
  const { run } = useClaimActs({
    view,
    draft,
    onFail,
    onDone: (next) => {
      setHanding(null);
      setAsking(null);
      onDone(next);
    },
  });
  const handingIn = HANDING_IN.find(({ act }) => view.may.includes(act))?.act;
  const mayApprove = view.may.includes('approve');
  useKeys({ approve: () => void run((r) => acts.plain('approve', r), 'is approved') }, mayApprove);
  useKeys({ handIn: () => handingIn && setHanding(handingIn) }, handingIn !== undefined);
  const asked = REASONED.find((r) => r.act === asking);
  return (
    <>
      <div className="flex flex-wrap gap-2 empty:hidden">
        {HANDING_IN.filter(({ act }) => view.may.includes(act)).map(({ act, label }) => (
          <ActButton key={act} label={label} leads hint="handIn" run={() => setHanding(act)} />
        ))}
        {PLAIN.filter(({ act }) => view.may.includes(act)).map(({ act, label, done, leads }) => (
          <ActButton
            key={act}
            label={label}
            leads={leads ?? false}
            {...(act === 'approve' ? { hint: 'approve' as const } : {})}
            run={() => void run((r) => acts.plain(act, r), done)}
          />
        ))}
        {mayApprove && <ActButton label="With a word…" run={() => setAsking('word')} />}
        {REASONED.filter(({ act }) => view.may.includes(act)).map(({ act, label }) => (
          <ActButton key={act} label={label} run={() => setAsking(act)} />
        ))}
      </div>
      {handing && (
        <SubmitClaim
          view={view}
          again={handing === 'resubmit'}
          onClose={() => setHanding(null)}
          draft={draft}
          onSubmit={(accepted) =>
            run((r) => acts.handIn(handing, r, accepted), HANDING_IN.find((h) => h.act === handing)!.done, 'callBack')
          }
        />
      )}
      {asking === 'word' && (
        <ReasonForm
          label="A word to go with it"
          act="Approve"
          onClose={() => setAsking(null)}
          onSubmit={(comment) => run((r) => acts.approve(r, comment), 'is approved')}
        />
      )}
      {asking === 'return' && (
        <ReturnForm
          view={view}
          onClose={() => setAsking(null)}
          onReturn={(reason, lines) => run((r) => acts.returnWith(r, reason, lines), 'is returned')}
        />
      )}
      {asked && asked.act !== 'return' && (
        <ReasonForm
          label={asked.why}
          act={asked.label.replace('…', '')}
          onClose={() => setAsking(null)}
          onSubmit={(reason) => run((r) => acts.reasoned(asked.act, r, reason), asked.done)}
        />
      )}
    </>
  );
}
