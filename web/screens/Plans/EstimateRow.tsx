import { ChevronDown, ChevronRight } from 'lucide-react';
import { PER, type Per } from '../../../core/documents/plan.schema.ts';
import type { Chart } from '../../api/chart.ts';
import type { Estimate, PlanAnswer } from '../../api/plans.ts';
import { CategoryChoice, categoriesOf } from '../../parts/CategoryChoice.tsx';
import { Cell } from '../../parts/Cell.tsx';
import { ExplainedSteps } from '../../parts/ExplainedSteps.tsx';
import { Money } from '../../parts/Money.tsx';
import { groupDigits } from '../../../core/numbers/groupDigits.ts';
import { readMoney } from '../../parts/readMoney.ts';
import { CodingFields } from '../../parts/CodingFields.tsx';
import type { PlanDraft } from './usePlanDraft.ts';

interface EstimateRowProps {
  view: PlanAnswer;
  estimate: Estimate;
  row: number;
  draft: PlanDraft;
  written: boolean;
  chart: Chart | undefined;
  open: boolean;
  onToggle: () => void;
  chosen: boolean;
  onChoose: () => void;
}

const PER_WORDS: Record<Per, string> = {
  trip: 'piece',
  day: 'day',
  night: 'night',
  allowance: 'daily allowance',
};

/** An estimate, and, opened, its coding and how its figure came about. */
export function EstimateRow(props: EstimateRowProps) {
  const { view, estimate, written, chart, open, onToggle, chosen, onChoose } = props;
  const { id } = estimate;
  return (
    <>
      <tr id={`estimate-${id}`} className="border-t border-base-300 align-top">
        {written && (
          <td className="py-1.5 pl-2">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              aria-label={`Choose estimate ${id}`}
              checked={chosen}
              onChange={onChoose}
            />
          </td>
        )}
        <td className="quiet px-2 py-1.5 font-mono">{id}</td>
        {written ? <Typed {...props} /> : <Told {...{ estimate, chart }} />}
        <td data-head="Estimate" className="px-2 py-1.5 text-right">
          {estimate.amount === null ? (
            <span className="quiet">not known</span>
          ) : (
            <Money amount={estimate.amount} currency={estimate.price!.currency} />
          )}
        </td>
        <td data-head={`In ${view.plan.currency}`} className="px-2 py-1.5 text-right">
          <Money amount={estimate.inPlanCurrency} currency={view.plan.currency} />
        </td>
        <td className="px-2 py-1 text-right">
          <button
            type="button"
            className="btn btn-ghost btn-xs"
            aria-expanded={open}
            aria-label={`More of estimate ${id}`}
            onClick={onToggle}
          >
            {open ? <ChevronDown size={16} /> : <ChevronRight size={16} />}
          </button>
        </td>
      </tr>
      {open && (
        <tr>
          <td colSpan={10} className="bg-base-200 px-4 py-3">
            <More {...props} />
          </td>
        </tr>
      )}
    </>
  );
}

function Told({ estimate, chart }: Pick<EstimateRowProps, 'estimate' | 'chart'>) {
  const { category, description, per, count, price } = estimate;
  return (
    <>
      <td className="px-2 py-1.5">{categoriesOf(chart).find((c) => c.id === category)?.name ?? category}</td>
      <td className="px-2 py-1.5">{description}</td>
      <td className="quiet px-2 py-1.5">{PER_WORDS[per]}</td>
      <td data-head="Count" className="px-2 py-1.5 text-right tabular-nums">
        {count ?? '–'}
      </td>
      <td data-head="Price of one" className="px-2 py-1.5 text-right">
        <Money amount={price?.amount ?? null} currency={price?.currency ?? ''} />
        <Allowed estimate={estimate} />
      </td>
    </>
  );
}

function Typed({ estimate, row, draft, chart }: EstimateRowProps) {
  const { id, category, description, per } = estimate;
  return (
    <>
      <td className="px-1 py-1">
        <CategoryChoice
          label={`Category of estimate ${id}`}
          value={category}
          none="choose"
          chart={chart}
          onChange={(next) => next && draft.setEstimate(id, { category: next })}
        />
      </td>
      <td className="px-1 py-0.5">
        <Cell
          label={`What estimate ${id} is for`}
          row={row}
          column="what"
          value={description ?? ''}
          problemOf={(typed) => (typed.trim().length > 300 ? 'At most 300 characters.' : null)}
          onSave={(typed, done) => draft.setEstimate(id, { description: typed.trim() || null }, done)}
        />
      </td>
      <td className="px-1 py-1">
        <select
          className="select select-xs w-full"
          aria-label={`Estimate ${id} is counted by`}
          value={per}
          onChange={(e) => draft.setEstimate(id, { per: e.target.value as Per })}
        >
          {PER.map((p) => (
            <option key={p} value={p}>
              {PER_WORDS[p]}
            </option>
          ))}
        </select>
      </td>
      <td data-head="Count" className="px-1 py-0.5">
        <CountCell {...{ estimate, row, draft }} />
      </td>
      <td data-head="Price of one" className="px-1 py-0.5 text-right">
        <PriceCell {...{ estimate, row, draft }} />
        <Allowed estimate={estimate} />
      </td>
    </>
  );
}

type CellOf = Pick<EstimateRowProps, 'estimate' | 'row' | 'draft'>;

function CountCell({ estimate: { id, count }, row, draft }: CellOf) {
  return (
    <Cell
      label={`Count of estimate ${id}`}
      row={row}
      column="count"
      align="right"
      value={count === null ? '' : String(count)}
      placeholder="days"
      problemOf={(typed) => (/^\d{0,5}$/.test(typed.trim()) ? null : 'A whole number.')}
      onSave={(typed, done) => draft.setEstimate(id, { count: typed.trim() ? Number(typed) : null }, done)}
    />
  );
}

function PriceCell({ estimate: { id, price, suggested }, row, draft }: CellOf) {
  const currency = price?.currency ?? suggested?.currency ?? 'EUR';
  return (
    <Cell
      label={`Price of estimate ${id}`}
      row={row}
      column="price"
      align="right"
      value={price ? `${groupDigits(price.amount)} ${price.currency}` : ''}
      placeholder="0.00"
      problemOf={(typed) => {
        if (!typed.trim()) return null;
        const read = readMoney(typed, currency);
        return read.ok ? null : read.problem;
      }}
      onSave={(typed, done) => {
        const read = typed.trim() ? readMoney(typed, currency) : null;
        if (read && !read.ok) return;
        draft.setEstimate(id, { price: read && { amount: read.amount, currency: read.currency } }, done);
      }}
    />
  );
}

/** Where the price comes from, or what would be allowed beside what was typed. */
function Allowed({ estimate: { suggested, price, priceTyped } }: { estimate: Estimate }) {
  if (!suggested) return null;
  const { amount, currency, source } = suggested;
  const same = !priceTyped || (price?.amount === amount && price.currency === currency);
  return (
    <span className="quiet block px-1 text-xs">{same ? source : `${source}: ${groupDigits(amount)} ${currency}`}</span>
  );
}

function More({ view, estimate, draft, written, chart }: EstimateRowProps) {
  return (
    <div className="grid gap-4 lg:grid-cols-2">
      <div>
        <h3 className="font-semibold">Coding</h3>
        {written ? (
          <CodingFields
            chart={chart}
            date={view.plan.from ?? new Date().toISOString().slice(0, 10)}
            coding={estimate.coding}
            inherited={view.plan.coding}
            label={`estimate ${estimate.id}`}
            onChange={(coding) => draft.setEstimate(estimate.id, { coding })}
          />
        ) : (
          <p className="quiet">{Object.values(estimate.coding).join(' · ') || 'as the plan'}</p>
        )}
        {written && (
          <button type="button" className="link mt-3 text-sm" onClick={() => draft.remove(estimate.id)}>
            Take it off
          </button>
        )}
      </div>
      <div>
        <h3 className="font-semibold">How it came about</h3>
        {estimate.explained.length === 0 ? (
          <p className="quiet">There is no figure yet: a count or a price is missing.</p>
        ) : (
          <ExplainedSteps steps={estimate.explained} />
        )}
      </div>
    </div>
  );
}
