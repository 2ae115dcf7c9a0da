import { useState } from 'react';
import { ActButton } from './ActButton.tsx';
import { Confirm } from './Confirm.tsx';

export type BackAct = 'callBack' | 'withdraw' | 'bringBack';
interface BackActsProps {
  number: string;
  state: string;
  may: readonly string[];
  history: readonly { kind: string }[];
  run: (act: BackAct) => void;
}

/**
 * What a maker does to have a record back, apart from what sends it on: taking it back to change it, ending it, taking it up
 * again. What somebody has decided about meanwhile is asked first, since their decision is lost with it.
 */
export function BackActs({ number, state, may, history, run }: BackActsProps) {
  const [asking, setAsking] = useState<'callBack' | 'withdraw' | null>(null);
  const draft = state === 'draft';
  const begin = (act: 'callBack' | 'withdraw') => (isDecided(history) ? setAsking(act) : run(act));
  const labels = {
    callBack: 'Take it back',
    withdraw: draft ? 'Remove the draft' : 'Withdraw',
    bringBack: 'Take it up again',
  };
  return (
    <div className="flex flex-wrap gap-2 max-sm:mt-3 max-sm:w-full sm:ml-auto empty:hidden">
      {(['callBack', 'withdraw'] as const).map(
        (act) =>
          may.includes(act) && (
            <ActButton key={act} label={isDecided(history) ? `${labels[act]}…` : labels[act]} run={() => begin(act)} />
          ),
      )}
      {may.includes('bringBack') && <ActButton leads label={labels.bringBack} run={() => run('bringBack')} />}
      {asking && (
        <Confirm
          title={asking === 'callBack' ? `Take ${number} back?` : `Withdraw ${number}?`}
          act={labels[asking]}
          onClose={() => setAsking(null)}
          onYes={() => {
            setAsking(null);
            run(asking);
          }}
        >
          Somebody has decided about it already. That decision ends with it; when you send it again, everybody is asked
          anew.
        </Confirm>
      )}
    </div>
  );
}

const SENT = new Set(['submitted', 'requested']);
const DECIDED = new Set(['approved', 'granted', 'returned', 'line declined']);

/** Whether somebody decided anything since it was last sent. */
export function isDecided(history: readonly { kind: string }[]): boolean {
  const sent = history.findLastIndex((e) => SENT.has(e.kind));
  const since = sent < 0 ? [] : history.slice(sent + 1).map((e) => e.kind);
  if (since.includes('called back') || since.includes('brought back')) return false;
  return since.some((kind) => DECIDED.has(kind));
}
