import { failed } from './failed.ts';
import { toast } from './toast.tsx';
import type { BackAct } from './BackActs.tsx';

interface ActsOf<View> {
  number: string;
  /** Runs an act on the record, after everything that was typed before. */
  act: (send: (revision: number) => Promise<View>) => Promise<View>;
  /** A maker's step back, what it says when it is done, and what undoes it. */
  step: (act: BackAct, revision: number) => Promise<View>;
  says: Record<BackAct, [done: string, undo?: BackAct]>;
  onDone: (next: View) => void;
  onFail: () => void;
}

/** Does acts on a record as a whole; each says what came of it, some with an Undo. False where it was refused. */
export function useActs<View>({ number, act, step, says, onDone, onFail }: ActsOf<View>) {
  const run = async (send: (revision: number) => Promise<View>, done: string, undo?: BackAct): Promise<boolean> => {
    const next = await act(send).catch(failed);
    if (!next) {
      onFail();
      return false;
    }
    const offered = undo && { act: { label: 'Undo', run: () => void back(undo) } };
    toast({ text: `${number} ${done}`, ...offered });
    onDone(next);
    return true;
  };
  const back = (one: BackAct): Promise<boolean> => run((revision) => step(one, revision), ...says[one]);
  return { run, back };
}
