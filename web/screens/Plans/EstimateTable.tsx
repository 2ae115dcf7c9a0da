import { useState } from 'react';
import type { Coding } from '../../../core/documents/case.schema.ts';
import { useChart } from '../../api/chart.ts';
import { plans, type PlanAnswer } from '../../api/plans.ts';
import { CategoryChoice } from '../../parts/CategoryChoice.tsx';
import { failed } from '../../parts/failed.ts';
import { CodingFields } from '../../parts/CodingFields.tsx';
import { EstimateRow } from './EstimateRow.tsx';
import type { PlanDraft } from './usePlanDraft.ts';

interface EstimateTableProps {
  view: PlanAnswer;
  draft: PlanDraft;
  written: boolean;
  onChanged: (next: PlanAnswer) => void;
}

/** What the trip is estimated to cost, one row each; in preparation the table is the form. */
export function EstimateTable({ view, draft, written, onChanged }: EstimateTableProps) {
  const chart = useChart().data;
  const [open, setOpen] = useState<string | null>(null);
  const [chosen, setChosen] = useState<string[]>([]);
  const there = chosen.filter((id) => view.estimates.some((e) => e.id === id));
  const choose = (id: string) => setChosen(there.includes(id) ? there.filter((other) => other !== id) : [...there, id]);
  return (
    <>
      {there.length > 0 && (
        <Recode key={there.join()} {...{ view, ids: there, onChanged }} onClose={() => setChosen([])} />
      )}
      <div className="overflow-x-auto rounded-box border border-base-300 bg-base-100">
        <table aria-label="Estimates" className="lines w-full text-sm">
          <thead>
            <tr className="quiet text-left text-xs">
              {written && (
                <th className="w-8">
                  <span className="sr-only">Choose</span>
                </th>
              )}
              <th className="w-10 px-2 py-1 font-normal">No.</th>
              <th className="w-44 px-2 font-normal">Category</th>
              <th className="px-2 font-normal">What</th>
              <th className="w-36 px-2 font-normal">Counted by</th>
              <th className="w-20 px-2 text-right font-normal">Count</th>
              <th className="w-40 px-2 text-right font-normal">Price of one</th>
              <th className="w-36 px-2 text-right font-normal">Estimate</th>
              <th className="w-32 px-2 text-right font-normal">In {view.plan.currency}</th>
              <th className="w-12">
                <span className="sr-only">More</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {view.estimates.map((estimate, row) => (
              <EstimateRow
                key={estimate.id}
                {...{ view, estimate, row, draft, written, chart }}
                open={open === estimate.id}
                onToggle={() => setOpen(open === estimate.id ? null : estimate.id)}
                chosen={there.includes(estimate.id)}
                onChoose={() => choose(estimate.id)}
              />
            ))}
          </tbody>
        </table>
      </div>
      {written && (
        <p className="mt-2 flex items-center gap-2 text-sm">
          <span className="quiet">One more:</span>
          <CategoryChoice
            label="Category of a new estimate"
            value=""
            none="choose a category"
            chart={chart}
            onChange={(category) => category && draft.add({ category, per: 'trip' })}
          />
          <span className="quiet">Leave a count or a price empty to take what the trip and the limits say.</span>
        </p>
      )}
    </>
  );
}

interface RecodeProps {
  view: PlanAnswer;
  ids: readonly string[];
  onChanged: (next: PlanAnswer) => void;
  onClose: () => void;
}

/** Puts codes on several estimates at once; what that comes to is seen first. */
function Recode({ view, ids, onChanged, onClose }: RecodeProps) {
  const chart = useChart().data;
  const [codes, setCodes] = useState<Coding>({});
  const [shown, setShown] = useState<PlanAnswer | null>(null);
  const { number, revision, from } = view.plan;
  const change = async (next: Coding) => {
    setCodes(next);
    setShown((await plans.code(number, revision, ids, next, true).catch(failed)) ?? null);
  };
  const apply = async () => {
    const next = await plans.code(number, revision, ids, codes, false).catch(failed);
    if (!next) return;
    onChanged(next);
    onClose();
  };
  return (
    <section
      aria-label="Coding of the chosen estimates"
      className="mb-2 flex flex-wrap items-center gap-2 rounded-box border border-base-300 bg-base-200 px-3 py-2 text-sm"
    >
      <span>
        {ids.length} chosen: put on {ids.length === 1 ? 'it' : 'each'}
      </span>
      <CodingFields
        chart={chart}
        date={from ?? new Date().toISOString().slice(0, 10)}
        coding={codes}
        inherited={{}}
        label="the chosen estimates"
        onChange={(next) => void change(next)}
      />
      {shown && <span role="status">{sayEffect(view, shown)}</span>}
      <span className="ml-auto flex gap-2">
        <button
          type="button"
          className="btn btn-primary btn-sm"
          disabled={Object.keys(codes).length === 0}
          onClick={() => void apply()}
        >
          Put on
        </button>
        <button type="button" className="btn btn-sm" onClick={onClose}>
          Cancel
        </button>
      </span>
    </section>
  );
}

/** What would be left to put right. */
function sayEffect(before: PlanAnswer, after: PlanAnswer): string {
  const count = ({ problems }: PlanAnswer) => problems.filter((p) => p.severity !== 'note').length;
  const [was, left] = [count(before), count(after)];
  const first = after.problems.find((p) => !before.problems.some((b) => b.says === p.says));
  const says = left === 0 ? 'Nothing is left to look at' : `${was} to look at would become ${left}`;
  return first ? `${says}. New: ${first.says}` : `${says}.`;
}
