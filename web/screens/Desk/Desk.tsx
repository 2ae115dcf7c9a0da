import { SlidersHorizontal } from 'lucide-react';
import { useDeferredValue, useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { ClaimState } from '../../../core/workflow/lifecycles/claim.ts';
import type { DeskColumn } from '../../../contract/desk.ts';
import { keepColumns, useColumns, useQueue } from '../../api/desk.ts';
import { failed } from '../../parts/failed.ts';
import { KeyHint } from '../../parts/keys.tsx';
import { Empty, Loading, Trouble } from '../../parts/Notices.tsx';
import { useKeys } from '../../parts/useKeys.ts';
import { ColumnsDialog } from '../../parts/table/ColumnsDialog.tsx';
import { COLUMNS, USUAL } from './columns.tsx';
import { DeskFilters } from './DeskFilters.tsx';
import { DeskTable } from './DeskTable.tsx';
import { DeskViews } from './DeskViews.tsx';
import { Together } from './Together.tsx';
import { askedBy, narrowedBy, readFilter, writeFilter, type Filter } from './filter.ts';
import { rememberQueue } from './queueOrder.ts';

const STATES: readonly ClaimState[] = [
  'in review',
  'cleared',
  'posted',
  'with approver',
  'returned',
  'reversed',
  'paid',
  'part paid',
  'payment rejected',
  'declined',
  'withdrawn',
];

/** The queue: one row a claim, what deserves attention first. What it is narrowed to stands in the address. */
export default function Desk() {
  const [params, setParams] = useSearchParams();
  const filter = readFilter(params);
  const query = useDeferredValue(askedBy(filter));
  const change = (changes: Partial<Filter>) => setParams(writeFilter({ ...filter, ...changes }), { replace: true });
  const { data, error, mutate, size, setSize, isLoading } = useQueue(query);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [why, setWhy] = useWhy();
  const [columns, setColumns] = useChosenColumns();
  const rows = data?.flatMap((page) => page.claims) ?? [];
  // One's own claims are not among those to go through.
  const numbers = rows.flatMap((row) => (row.own ? [] : [row.number])).join(' ');
  useEffect(() => rememberQueue(numbers.split(' ').filter(Boolean)), [numbers]);
  return (
    <div className="flex flex-col">
      <DeskHead
        {...{ filter, why, setWhy, query, columns, setColumns }}
        counts={data?.[0]?.counts ?? {}}
        onChange={change}
      />
      <DeskViews query={query} onPick={(kept) => setParams(kept)} />
      {error ? <Trouble error={error} retry={() => void mutate()} /> : null}
      {!error && isLoading && !data ? <Loading shape="rows" /> : null}
      {!error && data && <Together {...{ rows, chosen, setChosen }} />}
      {!error && data && rows.length > 0 && (
        <DeskTable {...{ rows, why, chosen, columns }} onChoose={setChosen} onColumns={setColumns} />
      )}
      {!error && data && rows.length === 0 && <Nothing filter={filter} />}
      {!error && data?.at(-1)?.next && (
        <button type="button" className="btn btn-sm m-4 self-start" onClick={() => void setSize(size + 1)}>
          Show more
        </button>
      )}
    </div>
  );
}

const WHY = 'ebbet-desk-why';
/** Whether reasons are said at every row, remembered in this browser. */
function useWhy(): [boolean, (why: boolean) => void] {
  const [why, setWhy] = useState(() => localStorage.getItem(WHY) === 'yes');
  const keep = (next: boolean) => {
    localStorage.setItem(WHY, next ? 'yes' : 'no');
    setWhy(next);
  };
  return [why, keep];
}

/** The columns as this person chose them; what they change is kept, and shown before it is. */
function useChosenColumns(): [readonly DeskColumn[], (columns: readonly DeskColumn[]) => void] {
  const { data, mutate } = useColumns();
  const keep = (columns: readonly DeskColumn[]) => {
    const shown = { columns: [...columns] };
    void mutate(keepColumns(columns), { optimisticData: shown, rollbackOnError: true, revalidate: false }).catch(
      failed,
    );
  };
  return [data?.columns ?? USUAL, keep];
}

interface DeskHeadProps {
  filter: Filter;
  query: string;
  counts: Partial<Record<ClaimState, number>>;
  onChange: (changes: Partial<Filter>) => void;
  why: boolean;
  setWhy: (why: boolean) => void;
  columns: readonly DeskColumn[];
  setColumns: (columns: readonly DeskColumn[]) => void;
}

function DeskHead({ filter, query, counts, onChange, why, setWhy, columns, setColumns }: DeskHeadProps) {
  const [choosing, setChoosing] = useState(false);
  const narrowed = narrowedBy(filter);
  const [open, setOpen] = useState(narrowed > 0);
  useKeys({ why: () => setWhy(!why), filter: () => setOpen(!open) });
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2 px-4 pt-3 pb-2">
        <h1 className="text-xl font-semibold">Desk</h1>
        <StateFilter state={filter.state} counts={counts} onPick={(state) => onChange({ state })} />
        <span className="ml-auto flex items-center gap-3 text-sm">
          <label className="flex items-center gap-1.5">
            <input
              type="checkbox"
              className="toggle toggle-xs"
              checked={why}
              onChange={(e) => setWhy(e.target.checked)}
            />
            Say why <KeyHint of="why" />
          </label>
          <a className="link" href={`/api/claims.csv?${query}`}>
            CSV
          </a>
          <button type="button" className="link" onClick={() => setChoosing(true)}>
            Columns…
          </button>
          <button type="button" className="btn btn-sm" aria-expanded={open} onClick={() => setOpen(!open)}>
            <SlidersHorizontal size={15} /> Filter{narrowed > 0 && ` (${narrowed})`} <KeyHint of="filter" />
          </button>
          <input
            type="search"
            className="input input-sm w-56"
            placeholder="Number, person, merchant, code"
            aria-label="Find claims"
            value={filter.q}
            onChange={(e) => onChange({ q: e.target.value })}
          />
        </span>
      </div>
      {open && <DeskFilters filter={filter} onChange={onChange} />}
      {choosing && (
        <ColumnsDialog
          title="Columns of the Desk"
          all={COLUMNS}
          columns={columns}
          usual={USUAL}
          onChange={setColumns}
          onClose={() => setChoosing(false)}
        />
      )}
    </>
  );
}

function Nothing({ filter }: { filter: Filter }) {
  if (filter.q)
    return (
      <Empty title={`No claim ${filter.state === 'any' ? '' : filter.state} fits “${filter.q}”`}>
        Try a part of the number, the name, a merchant or a code, or another state.
      </Empty>
    );
  if (narrowedBy(filter) > 0) return <Empty title="No claim fits the filter">Take something off the filter.</Empty>;
  return (
    <Empty title={`No claim is ${filter.state}`}>
      Claims appear here as they reach this state. Pick another state above.
    </Empty>
  );
}

interface StateFilterProps {
  state: string;
  counts: Partial<Record<ClaimState, number>>;
  onPick: (state: string) => void;
}

function StateFilter({ state, counts, onPick }: StateFilterProps) {
  const states = [...STATES.filter((s) => s === state || (counts[s] ?? 0) > 0), 'any'] as const;
  const all = Object.values(counts).reduce((a, n) => a + n, 0);
  return (
    <div role="group" aria-label="State" className="flex flex-wrap gap-1">
      {states.map((s) => (
        <button
          key={s}
          type="button"
          aria-pressed={s === state}
          className={`rounded-field border px-1.5 py-0.5 text-sm ${s === state ? 'border-primary bg-primary text-primary-content' : 'border-base-300 bg-base-100 hover:border-primary'}`}
          onClick={() => onPick(s)}
        >
          {s} <span className="tabular-nums">{s === 'any' ? all : (counts[s] ?? 0)}</span>
        </button>
      ))}
    </div>
  );
}
