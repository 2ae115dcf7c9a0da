import { useState } from 'react';
import { claimActs, type ClaimAnswer, type MakerView, type PlainAct, type ReasonedAct } from '../../api/claims.ts';
import { KeyHint, type KeyAct } from '../../parts/keys.tsx';
import { useKeys } from '../../parts/useKeys.ts';
import { ReasonForm } from '../../parts/ReasonForm.tsx';
import { failed } from '../../parts/failed.ts';
import { toast } from '../../parts/toast.tsx';
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
  { act: 'bringBack', label: 'Take it up again', done: 'is a draft again' },
];
const REASONED: readonly { act: ReasonedAct; label: string; why: string; done: string }[] = [
  { act: 'return', label: 'Return…', why: 'Why it goes back to the claimant', done: 'is returned' },
  { act: 'decline', label: 'Decline…', why: 'Why it is declined', done: 'is declined' },
  { act: 'refuseCode', label: 'Not these codes…', why: 'Why not these codes', done: 'does not have your yes' },
];

/** What this person may do with the claim as a whole, by the lifecycle; each act says what came of it. */
export function ClaimActs({ view, draft, onDone, onFail }: ClaimActsProps) {
  const { number, revision } = view.claim;
  const [asking, setAsking] = useState<ReasonedAct | 'word' | null>(null);
  const [handing, setHanding] = useState<'submit' | 'resubmit' | null>(null);
  const acts = claimActs(number);
  const run = async (work: Promise<ClaimAnswer>, done: string) => {
    const next = await work.catch(failed);
    setHanding(null);
    if (!next) return onFail();
    toast({ text: `${number} ${done}` });
    setAsking(null);
    onDone(next);
  };
  const draftOnly = view.claim.state === 'draft';
  const withdraw = async () => {
    const next = await acts.plain('withdraw', revision).catch(failed);
    if (!next) return onFail();
    const back = () => void run(acts.plain('bringBack', next.claim.revision), 'is a draft again');
    toast({
      text: `${number} is ${draftOnly ? 'taken away' : 'withdrawn'}`,
      ...(draftOnly ? { act: { label: 'Undo', run: back } } : {}),
    });
    onDone(next);
  };
  const handingIn = HANDING_IN.find(({ act }) => view.may.includes(act))?.act;
  const mayApprove = view.may.includes('approve');
  useKeys({ approve: () => void run(acts.plain('approve', revision), 'is approved') }, mayApprove);
  useKeys({ handIn: () => handingIn && setHanding(handingIn) }, handingIn !== undefined);
  const asked = REASONED.find((r) => r.act === asking);
  return (
    <>
      <div className="mt-3 flex flex-wrap gap-2 empty:hidden">
        {HANDING_IN.filter(({ act }) => view.may.includes(act)).map(({ act, label }) => (
          <ActButton key={act} label={label} leads hint="handIn" run={() => setHanding(act)} />
        ))}
        {PLAIN.filter(({ act }) => view.may.includes(act)).map(({ act, label, done, leads }) => (
          <ActButton
            key={act}
            label={label}
            leads={leads}
            hint={act === 'approve' ? 'approve' : undefined}
            run={() => void run(acts.plain(act, revision), done)}
          />
        ))}
        {view.may.includes('withdraw') && (
          <ActButton label={draftOnly ? 'Remove the draft' : 'Withdraw'} run={() => void withdraw()} />
        )}
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
            run(acts.handIn(handing, revision, accepted), HANDING_IN.find((h) => h.act === handing)!.done)
          }
        />
      )}
      {asking === 'word' && (
        <ReasonForm
          label="A word to go with it"
          act="Approve"
          onClose={() => setAsking(null)}
          onSubmit={(comment) => run(acts.approve(revision, comment), 'is approved')}
        />
      )}
      {asking === 'return' && (
        <ReturnForm
          view={view}
          onClose={() => setAsking(null)}
          onReturn={(reason, lines) => run(acts.returnWith(revision, reason, lines), 'is returned')}
        />
      )}
      {asked && asked.act !== 'return' && (
        <ReasonForm
          label={asked.why}
          act={asked.label.replace('…', '')}
          onClose={() => setAsking(null)}
          onSubmit={(reason) => run(acts.reasoned(asked.act, revision, reason), asked.done)}
        />
      )}
    </>
  );
}

interface ActButtonProps {
  label: string;
  leads?: boolean | undefined;
  hint?: KeyAct | undefined;
  run: () => void;
}
const ActButton = ({ label, leads = false, hint, run }: ActButtonProps) => (
  <button type="button" className={`btn btn-sm ${leads ? 'btn-primary' : ''}`} onClick={run}>
    {label} {hint && <KeyHint of={hint} />}
  </button>
);
