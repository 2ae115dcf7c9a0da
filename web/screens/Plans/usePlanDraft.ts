import { plans, type EstimateSet, type NewEstimate, type PlanAnswer, type PlanHeaderSet } from '../../api/plans.ts';
import { failed } from '../../parts/failed.ts';
import type { Edit, SaverState } from '../../parts/saver.ts';
import { sayTyped, valuesIn } from '../../parts/edits.ts';
import { useSaver } from '../../parts/useSaver.ts';

type Done = (error: Error | null) => void;
const tell: Done = (error) => error && failed(error);

/** What is done with a plan in preparation: every change is sent in turn and shown as the server answers. */
export interface PlanDraft {
  state: SaverState;
  /** Runs an act on it, after everything that was typed before. */
  act(send: (revision: number) => Promise<PlanAnswer>): Promise<PlanAnswer>;
  edit(set: PlanHeaderSet, done?: Done): void;
  setEstimate(id: string, set: EstimateSet, done?: Done): void;
  add(estimate: NewEstimate): void;
  remove(id: string): void;
  /** Does what is neither an edit of a field nor typed: sent in its turn, and once. */
  run(says: string, send: (revision: number) => Promise<PlanAnswer>): void;
}

export function usePlanDraft(view: PlanAnswer, show: (next: PlanAnswer) => void): PlanDraft {
  const { number } = view.plan;
  const { state, add, act } = useSaver<PlanAnswer, PlanAnswer>({
    name: `Plan ${number}`,
    view,
    show,
    revisionOf: (v) => v.plan.revision,
    load: () => plans.load(number),
    again: (what) => editOf(number, what as KeptEdit),
  });
  const put = (kept: KeptEdit, done: Done = tell) => add({ ...editOf(number, kept), done, inPlace: done !== tell });
  return {
    state,
    act,
    edit: (set, done) => put({ is: 'plan', set }, done),
    setEstimate: (id, set, done) => put({ is: 'estimate', id, set }, done),
    add: (estimate) => put({ is: 'new', estimate }),
    run: (says, send) => add({ says, send, done: tell }),
    remove: (id) =>
      add({
        says: `estimate ${id}`,
        send: (revision) => plans.remove(number, revision, id),
        of: (v) => String(estimateIn(v, id) !== undefined),
        done: tell,
      }),
  };
}

/** An edit as it can be kept. */
type KeptEdit =
  | { is: 'plan'; set: PlanHeaderSet }
  | { is: 'estimate'; id: string; set: EstimateSet }
  | { is: 'new'; estimate: NewEstimate };

function editOf(number: string, kept: KeptEdit): Omit<Edit<PlanAnswer>, 'done'> {
  switch (kept.is) {
    case 'plan':
      return {
        kept,
        says: `the plan${sayTyped(kept.set)}`,
        send: (revision) => plans.edit(number, revision, kept.set),
        of: (v) => valuesIn(v.plan, kept.set),
        to: valuesIn(kept.set, kept.set),
      };
    case 'estimate':
      return {
        kept,
        says: `estimate ${kept.id}${sayTyped(kept.set)}`,
        send: (revision) => plans.set(number, revision, kept.id, kept.set),
        of: (v) => valuesIn(estimateIn(v, kept.id), kept.set, kept.id),
        to: valuesIn(kept.set, kept.set, kept.id),
      };
    case 'new':
      return {
        kept,
        says: 'a new estimate',
        send: (revision) => plans.add(number, revision, [kept.estimate]),
      };
  }
}

const estimateIn = (v: PlanAnswer, id: string) => v.estimates.find((e) => e.id === id);
