import { advances, type AdvanceAnswer, type AdvanceSet } from '../../api/advances.ts';
import { failed } from '../../parts/failed.ts';
import type { Edit, SaverState } from '../../parts/saver.ts';
import { sayTyped, valuesIn } from '../../parts/edits.ts';
import { useSaver } from '../../parts/useSaver.ts';

type Done = (error: Error | null) => void;
const tell: Done = (error) => error && failed(error);

/** What is done with an advance in preparation: every change is sent in turn and shown as the server answers. */
export interface AdvanceDraft {
  state: SaverState;
  /** Runs an act on it, after everything that was typed before. */
  act(send: (revision: number) => Promise<AdvanceAnswer>): Promise<AdvanceAnswer>;
  edit(set: AdvanceSet, done?: Done): void;
  /** Does what is no edit of a field: sent in its turn, and once. */
  run(says: string, send: (revision: number) => Promise<AdvanceAnswer>): void;
}

export function useAdvanceDraft(view: AdvanceAnswer, show: (next: AdvanceAnswer) => void): AdvanceDraft {
  const { number } = view.advance;
  const { state, add, act } = useSaver<AdvanceAnswer, AdvanceAnswer>({
    name: `Advance ${number}`,
    view,
    show,
    revisionOf: (v) => v.advance.revision,
    load: () => advances.load(number),
    again: (what) => editOf(number, what as AdvanceSet),
  });
  return {
    state,
    act,
    edit: (set, done = tell) => add({ ...editOf(number, set), done, inPlace: done !== tell }),
    run: (says, send) => add({ says, send, done: tell }),
  };
}

const editOf = (number: string, set: AdvanceSet): Omit<Edit<AdvanceAnswer>, 'done'> => ({
  kept: set,
  says: `the advance${sayTyped(set)}`,
  send: (revision) => advances.edit(number, revision, set),
  of: (v) => valuesIn(v.advance, set),
  to: valuesIn(set, set),
});
