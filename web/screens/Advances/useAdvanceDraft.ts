import { canonical } from '../../../core/numbers/canonical.ts';
import { advances, type AdvanceAnswer, type AdvanceSet } from '../../api/advances.ts';
import { failed } from '../../parts/failed.ts';
import type { SaverState } from '../../parts/saver.ts';
import { useSaver } from '../../parts/useSaver.ts';

type Done = (error: Error | null) => void;
const tell: Done = (error) => error && failed(error);

/** What is done with an advance in preparation: every change is sent in turn and shown as the server answers. */
export interface AdvanceDraft {
  state: SaverState;
  edit(set: AdvanceSet, done?: Done): void;
  /** Does what is no edit of a field: sent in its turn, and once. */
  run(says: string, send: (revision: number) => Promise<AdvanceAnswer>): void;
}

export function useAdvanceDraft(view: AdvanceAnswer, show: (next: AdvanceAnswer) => void): AdvanceDraft {
  const { number } = view.advance;
  const { state, add, seen } = useSaver<AdvanceAnswer, AdvanceAnswer>({
    view,
    show,
    revisionOf: (v) => v.advance.revision,
    load: () => advances.load(number),
  });
  const valuesOf = (v: AdvanceAnswer, set: AdvanceSet) =>
    canonical(Object.keys(set).map((field) => (v.advance as Record<string, unknown>)[field] ?? null));
  return {
    state,
    edit(set, done = tell) {
      const before = valuesOf(seen(), set);
      const send = (revision: number) => advances.edit(number, revision, set);
      add({ says: 'the advance', send, stands: (now) => valuesOf(now, set) === before, done });
    },
    run: (says, send) => add({ says, send, stands: () => true, done: tell }),
  };
}
