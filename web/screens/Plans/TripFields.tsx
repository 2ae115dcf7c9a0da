import { addDays, daysBetween } from '../../../core/numbers/isoDate.ts';
import { useChart, sayCoding } from '../../api/chart.ts';
import type { PlanAnswer } from '../../api/plans.ts';
import { TripCells } from '../../parts/TripCells.tsx';
import { CodingFields } from '../../parts/CodingFields.tsx';
import type { PlanDraft } from './usePlanDraft.ts';

interface TripFieldsProps {
  view: PlanAnswer;
  draft: PlanDraft;
  written: boolean;
}

/** What a plan says of the trip; in preparation every field is saved as it is left. */
export function TripFields({ view, draft, written }: TripFieldsProps) {
  return written ? <Written view={view} draft={draft} /> : <Told view={view} />;
}

function Told({ view: { plan } }: { view: PlanAnswer }) {
  const chart = useChart().data;
  const days = plan.privateDays.length;
  return (
    <>
      <p className="text-lg">{plan.purpose}</p>
      <p className="quiet text-sm">
        {[
          plan.entityName,
          [plan.place, plan.country].filter(Boolean).join(', '),
          plan.from && `${plan.from} to ${plan.to}`,
          days > 0 && `${days} private ${days === 1 ? 'day' : 'days'}`,
          sayCoding(plan.coding, chart),
        ]
          .filter(Boolean)
          .join(' · ')}
      </p>
    </>
  );
}

function Written({ view: { plan }, draft }: Omit<TripFieldsProps, 'written'>) {
  const chart = useChart().data;
  return (
    <div className="cells-open mt-1">
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
    </div>
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
