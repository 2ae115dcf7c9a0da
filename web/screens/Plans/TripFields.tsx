import { addDays, daysBetween } from '../../../core/numbers/isoDate.ts';
import { useChart, sayCoding } from '../../api/chart.ts';
import { plans, type PlanAnswer } from '../../api/plans.ts';
import { Attachments } from '../../parts/Attachments.tsx';
import { DraftHead } from '../../parts/draft/DraftHead.tsx';
import { PurposeCell, sayTrip, TripCells } from '../../parts/TripCells.tsx';
import { CodingFields } from '../../parts/CodingFields.tsx';
import type { PlanDraft } from './usePlanDraft.ts';

interface TripFieldsProps {
  view: PlanAnswer;
  draft: PlanDraft;
}

/** What a plan says of the trip. */
export function TripTold({ view }: { view: PlanAnswer }) {
  const { plan } = view;
  return (
    <>
      <p className="text-lg">{plan.purpose}</p>
      <p className="quiet text-sm">{[plan.entityName, useSaid(view)].filter(Boolean).join(' · ')}</p>
    </>
  );
}

function useSaid({ plan, attachments }: PlanAnswer): string {
  const chart = useChart().data;
  const days = plan.privateDays.length;
  const files = attachments.length;
  return [
    [plan.place, plan.country].filter(Boolean).join(', '),
    sayTrip(plan.from, plan.to),
    days > 0 && `${days} private ${days === 1 ? 'day' : 'days'}`,
    sayCoding(plan.coding, chart),
    files > 0 && `${files} ${files === 1 ? 'file' : 'files'}`,
  ]
    .filter(Boolean)
    .join(' · ');
}

/** In preparation every field is saved as it is left. */
export function TripFields({ view, draft }: TripFieldsProps) {
  const { plan } = view;
  const chart = useChart().data;
  return (
    <DraftHead
      back={{ to: '/plans', label: 'Back to your plans' }}
      number={plan.number}
      beside={<span className="quiet">{plan.kindName}</span>}
      purpose={<PurposeCell of="trip" said={plan} onSave={draft.edit} />}
      says={useSaid(view)}
      fields={['of the trip', 'First day', 'Last day']}
      wanting={view.problems.some((p) => p.estimate === null && p.severity !== 'note')}
    >
      <TripCells of="trip" said={plan} onSave={draft.edit} />
      <div className="mt-2 flex flex-wrap items-center gap-x-6 gap-y-2">
        <span id="field-coding" className="flex flex-wrap items-center gap-2">
          <span className="quiet text-xs">Coding</span>
          <CodingFields
            chart={chart}
            date={plan.from ?? new Date().toISOString().slice(0, 10)}
            coding={plan.coding}
            inherited={{}}
            label="the plan"
            onChange={(coding) => draft.edit({ coding })}
          />
        </span>
        <PrivateDays plan={plan} onChange={(privateDays) => draft.edit({ privateDays })} />
      </div>
      <div className="mt-2">
        <Attachments
          of="the plan"
          attachments={view.attachments}
          onAdd={(file) => draft.run('the files', (r) => plans.attach(plan.number, r, file))}
          onRemove={({ id }) => draft.run('the files', (r) => plans.detach(plan.number, r, id))}
        />
      </div>
    </DraftHead>
  );
}

const MOST_SHOWN = 45;
const DAYS = new Intl.DateTimeFormat('en-GB', { day: 'numeric', weekday: 'short', timeZone: 'UTC' });

/** The days of the trip, each of which can be a private one. */
function PrivateDays({ plan, onChange }: { plan: PlanAnswer['plan']; onChange: (days: string[]) => void }) {
  const { from, to, privateDays } = plan;
  if (!from || !to || daysBetween(from, to) >= MOST_SHOWN) return null;
  const days = Array.from({ length: daysBetween(from, to) + 1 }, (_, i) => addDays(from, i));
  const toggle = (day: string) =>
    onChange(privateDays.includes(day) ? privateDays.filter((d) => d !== day) : [...privateDays, day]);
  return (
    <fieldset className="flex flex-wrap items-center gap-1">
      <legend className="quiet float-left mr-1 text-xs">Private days</legend>
      {days.map((day) => {
        const isPrivate = privateDays.includes(day);
        return (
          <button
            key={day}
            type="button"
            aria-pressed={isPrivate}
            aria-label={`${day} private`}
            className={`btn btn-xs font-normal ${isPrivate ? 'btn-neutral' : ''}`}
            onClick={() => toggle(day)}
          >
            {DAYS.format(new Date(`${day}T00:00:00Z`))}
          </button>
        );
      })}
    </fieldset>
  );
}
