import { addDays, daysBetween } from '../../../core/numbers/isoDate.ts';
import { useChart, sayCoding } from '../../api/chart.ts';
import type { PlanAnswer } from '../../api/plans.ts';
import { longerThan, problemOfCountry, problemOfPurpose } from '../../parts/cellProblems.ts';
import { Cell } from '../../parts/Cell.tsx';
import { CodingFields } from '../Sheet/CodingFields.tsx';
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
  const text = (field: 'country' | 'place') => (typed: string, done: (error: Error | null) => void) =>
    draft.edit({ [field]: (field === 'country' ? typed.trim().toUpperCase() : typed.trim()) || null }, done);
  return (
    <div className="cells-open mt-1">
      <div className="grid gap-x-3 sm:grid-cols-[minmax(0,1fr)_5rem_12rem_10rem_10rem]">
        <Entry head="What it is for">
          <Cell
            label="What the trip is for"
            row={-1}
            column="purpose"
            value={plan.purpose}
            problemOf={problemOfPurpose('trip')}
            onSave={(typed, done) => draft.edit({ purpose: typed.trim() }, done)}
          />
        </Entry>
        <Entry head="Country">
          <Cell
            label="Country"
            row={-1}
            column="country"
            value={plan.country ?? ''}
            placeholder="PT"
            problemOf={problemOfCountry}
            onSave={text('country')}
          />
        </Entry>
        <Entry head="City or place">
          <Cell
            label="City or place"
            row={-1}
            column="place"
            value={plan.place ?? ''}
            problemOf={longerThan(120)}
            onSave={text('place')}
          />
        </Entry>
        <Entry head="From">
          <Cell
            label="First day"
            row={-1}
            column="from"
            type="date"
            value={plan.from ?? ''}
            problemOf={(typed) => (typed && plan.to && typed > plan.to ? 'It is after the last day.' : null)}
            onSave={(typed, done) => draft.edit({ from: typed || null }, done)}
          />
        </Entry>
        <Entry head="To">
          <Cell
            label="Last day"
            row={-1}
            column="to"
            type="date"
            value={plan.to ?? ''}
            problemOf={(typed) => (typed && plan.from && typed < plan.from ? 'It is before the first day.' : null)}
            onSave={(typed, done) => draft.edit({ to: typed || null }, done)}
          />
        </Entry>
      </div>
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

const Entry = ({ head, children }: { head: string; children: React.ReactNode }) => (
  <div>
    <span className="quiet px-1 text-xs">{head}</span>
    {children}
  </div>
);

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
