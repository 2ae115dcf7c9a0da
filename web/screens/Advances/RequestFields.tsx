import { ADVANCE_KINDS } from '../../../core/advances/advance.schema.ts';
import type { AdvanceAnswer } from '../../api/advances.ts';
import { usePlans } from '../../api/plans.ts';
import { longerThan, problemOfPurpose } from '../../parts/cellProblems.ts';
import { readMoney } from '../../parts/readMoney.ts';
import { HeaderCell, HeaderDay, Named } from '../../parts/TripCells.tsx';
import { ADVANCE_KINDS_SAID } from '../../words/sayAdvance.ts';
import type { AdvanceDraft } from './useAdvanceDraft.ts';

interface RequestFieldsProps {
  view: AdvanceAnswer;
  draft: AdvanceDraft;
}

/** What is asked for, in preparation: each field is saved as it is left. */
export function RequestFields({ view: { advance, problems }, draft }: RequestFieldsProps) {
  const { from, to } = advance;
  const wanted = problems.length > 0 || advance.exception !== null;
  return (
    <div className="cells-open mt-1">
      <div className="grid items-end gap-x-3 gap-y-1 sm:grid-cols-[minmax(0,1fr)_11rem]">
        <HeaderCell
          head="What the money is for"
          label="What the money is for"
          value={advance.purpose}
          problemOf={problemOfPurpose('advance')}
          onSave={(typed, done) => draft.edit({ purpose: typed.trim() }, done)}
        />
        <HeaderCell
          head="How much"
          label="Amount of the advance"
          value={`${advance.amount} ${advance.currency}`}
          problemOf={(typed) => problemOfMoney(typed, advance.currency)}
          onSave={(typed, done) => {
            const money = readMoney(typed, advance.currency);
            if (money.ok) draft.edit({ amount: money.amount, currency: money.currency }, done);
          }}
        />
      </div>
      <div className="mt-1 flex flex-wrap items-end gap-x-3 gap-y-1">
        <Named head="Kind">
          <select
            className="select select-xs w-44"
            aria-label="Kind of advance"
            value={advance.kind}
            onChange={(e) => draft.edit({ kind: e.target.value as typeof advance.kind })}
          >
            {ADVANCE_KINDS.map((kind) => (
              <option key={kind} value={kind}>
                {ADVANCE_KINDS_SAID[kind]}
              </option>
            ))}
          </select>
        </Named>
        <HeaderDay
          head="From"
          label="First day"
          value={from}
          problemOf={(typed) => (typed && to && typed > to ? 'It is after the last day.' : null)}
          onSave={(typed, done) => draft.edit({ from: typed || null }, done)}
        />
        <HeaderDay
          head="To"
          label="Last day"
          value={to}
          problemOf={(typed) => (typed && from && typed < from ? 'It is before the first day.' : null)}
          onSave={(typed, done) => draft.edit({ to: typed || null }, done)}
        />
        <PlanChoice plan={advance.plan} onChange={(plan) => draft.edit({ plan })} />
      </div>
      {wanted && (
        <HeaderCell
          head="Why an exception is wanted"
          label="Why an exception is wanted"
          value={advance.exception}
          placeholder="Who decides about it reads this beside the rule"
          problemOf={longerThan(1000)}
          onSave={(typed, done) => draft.edit({ exception: typed.trim() || null }, done)}
        />
      )}
    </div>
  );
}

function problemOfMoney(typed: string, currency: string): string | null {
  const money = readMoney(typed, currency);
  if (!money.ok) return money.problem;
  return /^-|^[0.]*$/.test(money.amount) ? 'Ask for more than nothing.' : null;
}

const OPEN = ['with approver', 'approved'];

/** One of the person's own plans, where they have some. */
function PlanChoice({ plan, onChange }: { plan: string | null; onChange: (plan: string | null) => void }) {
  const own = (usePlans().data?.plans ?? []).filter((p) => OPEN.includes(p.state) || p.number === plan);
  if (own.length === 0) return null;
  return (
    <Named head="Plan">
      <select
        className="select select-xs w-44"
        aria-label="Plan it is for"
        value={plan ?? ''}
        onChange={(e) => onChange(e.target.value || null)}
      >
        <option value="">no plan</option>
        {own.map((p) => (
          <option key={p.number} value={p.number}>
            {p.number} {p.purpose}
          </option>
        ))}
      </select>
    </Named>
  );
}
