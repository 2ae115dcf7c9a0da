import { canonical } from '../../../core/numbers/canonical.ts';
import { plans, type EstimateSet, type NewEstimate, type PlanAnswer, type PlanHeaderSet } from '../../api/plans.ts';
import { failed } from '../../parts/failed.ts';
import type { SaverState } from '../../parts/saver.ts';
import { useSaver } from '../../parts/useSaver.ts';

type Done = (error: Error | null) => void;
const tell: Done = (error) => error && failed(error);

/** What is done with a plan in preparation: every change is sent in turn and shown as the server answers. */
export interface PlanDraft {
  state: SaverState;
  edit(set: PlanHeaderSet, done?: Done): void;
  setEstimate(id: string, set: EstimateSet, done?: Done): void;
  add(estimate: NewEstimate): void;
  remove(id: string): void;
  /** Does what is neither an edit of a field nor typed: sent in its turn, and once. */
  run(says: string, send: (revision: number) => Promise<PlanAnswer>): void;
}

export function usePlanDraft(view: PlanAnswer, show: (next: PlanAnswer) => void): PlanDraft {
  const { number } = view.plan;
  const { state, add, seen } = useSaver<PlanAnswer, PlanAnswer>({
    view,
    show,
    revisionOf: (v) => v.plan.revision,
    load: () => plans.load(number),
  });
  /** What is edited stands as long as the fields that are set are as they were when they were typed over. */
  const standing = (of: (view: PlanAnswer) => object | undefined, set: object) => {
    const values = (v: PlanAnswer) => {
      const all = of(v) as Record<string, unknown> | undefined;
      return all && canonical(Object.keys(set).map((field) => all[field] ?? null));
    };
    const before = values(seen());
    return (now: PlanAnswer) => values(now) === before;
  };
  const estimateIn = (id: string) => (v: PlanAnswer) => v.estimates.find((e) => e.id === id);
  return {
    state,
    edit: (set, done = tell) =>
      add({
        says: 'the plan',
        send: (revision) => plans.edit(number, revision, set),
        stands: standing((v) => v.plan, set),
        done,
      }),
    setEstimate: (id, set, done = tell) =>
      add({
        says: `estimate ${id}`,
        send: (revision) => plans.set(number, revision, id, set),
        stands: standing(estimateIn(id), set),
        done,
      }),
    add: (estimate) =>
      add({
        says: 'the estimates',
        send: (revision) => plans.add(number, revision, [estimate]),
        stands: () => true,
        done: tell,
      }),
    run: (says, send) => add({ says, send, stands: () => true, done: tell }),
    remove: (id) =>
      add({
        says: `estimate ${id}`,
        send: (revision) => plans.remove(number, revision, id),
        stands: (v) => estimateIn(id)(v) !== undefined,
        done: tell,
      }),
  };
}
