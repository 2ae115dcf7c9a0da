import { useState } from 'react';
import { advances, type AdvanceAnswer } from '../../api/advances.ts';
import { ActButton } from '../../parts/ActButton.tsx';
import { BackActs, type BackAct } from '../../parts/BackActs.tsx';
import { ReasonForm } from '../../parts/ReasonForm.tsx';
import { useActs } from '../../parts/useActs.ts';
import { useKeys } from '../../parts/useKeys.ts';
import { GrantForm } from './GrantForm.tsx';
import { MoneyMovedForm } from './MoneyMovedForm.tsx';
import type { AdvanceDraft } from './useAdvanceDraft.ts';
import { DayField } from '../../parts/days/DayField.tsx';

interface AdvanceActsProps {
  view: AdvanceAnswer;
  draft: AdvanceDraft;
  onDone: (next: AdvanceAnswer) => void;
  onFail: () => void;
}
type Asking = 'approve' | 'decline' | 'grant' | 'extend' | 'payOut' | 'giveBack';

const BACK: Record<BackAct, [done: string, undo?: BackAct]> = {
  callBack: ['is with you again'],
  withdraw: ['is withdrawn', 'bringBack'],
  bringBack: ['is a draft again'],
};

/** What this person may do with the advance, by the lifecycle. */
export function AdvanceActs({ view, draft, onDone, onFail }: AdvanceActsProps) {
  const { number, state } = view.advance;
  const [asking, setAsking] = useState<Asking | null>(null);
  const may = (act: AdvanceAnswer['may'][number]) => view.may.includes(act);
  const { run, back } = useActs({
    number,
    act: draft.act,
    step: (act, revision) => advances.act(number, revision, act),
    says: BACK,
    onDone: (next: AdvanceAnswer) => {
      setAsking(null);
      onDone(next);
    },
    onFail,
  });
  const stands =
    view.problems.some((p) => p.severity === 'stop') || (view.problems.length > 0 && !view.advance.exception);
  const request = () => void run((r) => advances.act(number, r, 'request'), 'is asked for', 'callBack');
  useKeys({ handIn: request }, may('request') && !stands);
  const ask = (which: Asking) => () => setAsking(asking === which ? null : which);
  const close = () => setAsking(null);
  const form = { view, onClose: close };
  return (
    <>
      <div className="mt-3 flex flex-wrap gap-2 empty:hidden">
        {may('request') && <ActButton leads label="Ask for it" disabled={stands} hint="handIn" run={request} />}
        {may('approve') && <ActButton leads label="Approve…" run={ask('approve')} />}
        {may('grant') && (
          <ActButton
            leads={state === 'in review'}
            label={state === 'in review' ? 'Grant…' : 'Grant otherwise…'}
            run={ask('grant')}
          />
        )}
        {may('payOut') && <ActButton leads label="Record the payout…" run={ask('payOut')} />}
        {may('giveBack') && <ActButton leads label="Record money given back…" run={ask('giveBack')} />}
        {may('extend') && <ActButton label="Give more time…" run={ask('extend')} />}
        {may('takeBack') && (
          <ActButton
            label="Take back the approval"
            run={() => void run((r) => advances.act(number, r, 'takeBack'), 'waits for you again')}
          />
        )}
        {may('decline') && <ActButton label="Decline…" run={ask('decline')} />}
        <BackActs
          {...{ number, state: view.advance.state, may: view.may, history: view.history }}
          run={(act) => void back(act)}
        />
      </div>
      {asking === 'approve' && (
        <ReasonForm
          label="A word for them, if you like"
          act="Approve"
          optional
          onClose={close}
          onSubmit={(comment) => run((r) => advances.approve(number, r, comment), 'is approved')}
        />
      )}
      {asking === 'decline' && (
        <ReasonForm
          label="Why it is declined"
          act="Decline"
          onClose={close}
          onSubmit={(reason) => run((r) => advances.decline(number, r, reason), 'is declined')}
        />
      )}
      {asking === 'grant' && (
        <GrantForm {...form} onGrant={(grant) => run((r) => advances.grant(number, r, grant), 'is granted')} />
      )}
      {asking === 'extend' && (
        <Extend
          {...form}
          onExtend={(day, reason) => run((r) => advances.extend(number, r, day, reason), 'has more time')}
        />
      )}
      {asking === 'payOut' && (
        <MoneyMovedForm
          {...form}
          what="payout"
          onMoved={({ amount: _, ...moved }) => run((r) => advances.payOut(number, r, moved), 'is paid out and posted')}
        />
      )}
      {asking === 'giveBack' && (
        <MoneyMovedForm
          {...form}
          what="return"
          onMoved={(moved) => run((r) => advances.giveBack(number, r, moved), 'has money given back, posted')}
        />
      )}
    </>
  );
}

interface ExtendProps {
  view: AdvanceAnswer;
  onClose: () => void;
  onExtend: (dueBy: string, reason: string) => Promise<unknown>;
}
function Extend({ view, onClose, onExtend }: ExtendProps) {
  const [dueBy, setDueBy] = useState(view.advance.dueBy ?? '');
  return (
    <ReasonForm
      label="Why it takes longer"
      act="Give more time"
      onClose={onClose}
      onSubmit={(reason) => onExtend(dueBy, reason)}
    >
      <DayField
        className="input input-sm w-40"
        aria-label="To be accounted for by"
        value={dueBy}
        onChange={(day) => setDueBy(day)}
      />
    </ReasonForm>
  );
}
