import { useDraggable } from '@dnd-kit/core';
import { ChevronDown, ChevronRight, GripVertical, Paperclip } from 'lucide-react';
import { scoreEstimates } from '../../../../core/evidence/matching/scoreEstimate.ts';
import type { Line } from '../../../../core/documents/case.schema.ts';
import { failed } from '../../../parts/failed.ts';
import { Money } from '../../../parts/Money.tsx';
import { groupDigits } from '../../../../core/numbers/groupDigits.ts';
import { toast } from '../../../parts/toast.tsx';
import { longerThan } from '../../../parts/cellProblems.ts';
import { TieMark } from '../../../parts/TieMark.tsx';
import { differsOf, sayDiffers } from '../../../words/sayDiffers.ts';
import { Cell } from '../../../parts/Cell.tsx';
import { addReceipt } from './addReceipt.ts';
import { FindingAside } from './Problems.tsx';
import { LineDetails } from './LineDetails.tsx';
import { droppedBy } from './LineFields.tsx';
import { readMoney } from '../../../parts/readMoney.ts';
import type { LineRowProps } from './lineRow.types.ts';
import { CategoryChoice } from '../../../parts/CategoryChoice.tsx';
import { DayCell } from '../../../parts/days/DayCell.tsx';

/** A line of the table, what the rules say of it, and, opened, everything else that can be said. */
export function LineRow(props: LineRowProps) {
  const { view, line, row, draft, chart, open } = props;
  const said = view.findings.filter((f) => f.line === line.id && f.severity !== 'note');
  return (
    <>
      <tr
        id={`line-${line.id}`}
        className="line-row border-t border-base-300 align-top"
        onDragOver={(e) => e.dataTransfer.types.includes('Files') && e.preventDefault()}
        onDrop={(e) => {
          const [file] = e.dataTransfer.files;
          if (!file) return;
          e.preventDefault();
          void addReceipt(draft, view.claim.number, line.id, file);
        }}
      >
        <td className="px-2 py-1.5">
          <Number {...props} />
        </td>
        <WhenAndWhere {...{ line, row, draft }} />
        <td className="px-1 py-1">
          <Category {...{ line, draft, chart }} />
          {view.plan && !line.personal && <EstimateChoice {...{ view, line, draft }} plan={view.plan} />}
        </td>
        <td className="px-1 py-0.5 text-right">
          <AmountCell {...{ view, line, row, draft }} />
        </td>
        <td className="px-1 py-1">
          <WhoPaid {...{ line, draft }} />
        </td>
        <td className="px-2 py-1.5 text-right whitespace-nowrap">
          <Opener {...props} />
        </td>
      </tr>
      {said.map((f, i) => (
        <tr key={i}>
          <td />
          <td colSpan={7} className="px-2 pb-1 text-sm">
            <span className="flex flex-wrap items-center gap-x-3">
              <span className={`min-w-0 flex-1 max-sm:basis-full ${f.severity === 'stop' ? 'text-error' : ''}`}>
                {f.says}
              </span>
              <FindingAside {...{ view, draft }} finding={f} row={row} />
            </span>
          </td>
        </tr>
      ))}
      {differsOf(view)
        .filter((d) => d.line === line.id)
        .flatMap((d) => sayDiffers(d).map((says) => ({ kind: d.kind, says })))
        .map(({ kind, says }) => (
          <tr key={`${kind} ${says}`}>
            <td className="px-2 text-right">
              <TieMark state="off" label={kind} size={14} />
            </td>
            <td colSpan={7} className="px-2 pb-1 text-sm first-letter:uppercase">
              {says}
            </td>
          </tr>
        ))}
      {open && (
        <tr>
          <td colSpan={8} className="bg-base-200 px-4 py-3">
            <LineDetails {...props} />
          </td>
        </tr>
      )}
    </>
  );
}

/** The number of a line: chosen with others by its box, dragged onto an estimate by its grip. */
function Number({ view, line, chosen, onChoose }: LineRowProps) {
  const { setNodeRef, listeners, attributes } = useDraggable({ id: `line ${line.id}` });
  return (
    <span className="flex items-center gap-1">
      <input
        type="checkbox"
        className="checkbox checkbox-xs"
        aria-label={`Choose line ${line.id}`}
        checked={chosen}
        onChange={onChoose}
      />
      <span className="quiet font-mono text-sm">{line.id}</span>
      {view.plan && !line.personal && (
        <span
          ref={setNodeRef}
          {...listeners}
          {...attributes}
          tabIndex={-1}
          aria-label={`Drag line ${line.id} onto an estimate`}
          className="cursor-grab touch-none"
        >
          <GripVertical size={14} className="quiet" />
        </span>
      )}
    </span>
  );
}

interface EstimateChoiceProps extends Pick<LineRowProps, 'view' | 'line' | 'draft'> {
  plan: NonNullable<LineRowProps['view']['plan']>;
}

/** Which estimate of the plan the line is the cost of; those of its category come first. */
function EstimateChoice({ view, line, draft, plan }: EstimateChoiceProps) {
  const scores = scoreEstimates(
    { category: line.category ?? null, amount: view.amounts[line.id] ?? null },
    plan.estimates,
    view.claim.currency,
  );
  const rank = (id: string) => scores.find((s) => s.id === id)?.score ?? 0;
  const ordered = plan.estimates.toSorted((a, b) => rank(b.id) - rank(a.id));
  return (
    <select
      className={`select select-xs mt-1 w-full ${line.estimate ? '' : 'quiet'}`}
      aria-label={`Estimate of line ${line.id}`}
      value={line.estimate ?? ''}
      onChange={(e) => draft.editLine(line.id, { estimate: e.target.value || null })}
    >
      <option value="">no estimate</option>
      {ordered.map((e) => (
        <option key={e.id} value={e.id}>
          estimate {e.id}, {groupDigits(e.amount)}
          {rank(e.id) > 0 ? ` (${rank(e.id)})` : ''}
        </option>
      ))}
    </select>
  );
}

const ofBank = (line: Line): boolean => line.rate?.kind === 'card';

function WhenAndWhere({ line, row, draft }: Pick<LineRowProps, 'line' | 'row' | 'draft'>) {
  const common = { row, line };
  return (
    <>
      <td className="px-1 py-0.5">
        {ofBank(line) ? (
          <span className="block px-1 py-1">{line.date}</span>
        ) : (
          <DayCell
            {...common}
            label={`Date of line ${line.id}`}
            column="date"
            value={line.date}
            problemOf={(typed) => (typed ? null : 'Choose a day.')}
            onSave={(date, done) => draft.editLine(line.id, { date }, done, line)}
          />
        )}
      </td>
      <td className="px-1 py-0.5">
        <Cell
          {...common}
          label={`Merchant of line ${line.id}`}
          column="merchant"
          value={line.merchant ?? ''}
          problemOf={longerThan(140)}
          onSave={(typed, done) => draft.editLine(line.id, { merchant: typed.trim() || null }, done, line)}
        />
      </td>
      <td className="px-1 py-0.5">
        <Cell
          {...common}
          label={`What line ${line.id} was for`}
          column="what"
          value={line.description ?? ''}
          problemOf={longerThan(300)}
          onSave={(typed, done) => draft.editLine(line.id, { description: typed.trim() || null }, done, line)}
        />
      </td>
    </>
  );
}

function Category({ line, draft, chart }: Pick<LineRowProps, 'line' | 'draft' | 'chart'>) {
  if (line.items?.length) return <span className="px-1">{line.items.length} items</span>;
  if (line.personal) return <span className="px-1">private</span>;
  return (
    <CategoryChoice
      label={`Category of line ${line.id}`}
      value={line.category ?? ''}
      none="choose"
      chart={chart}
      onChange={(category) => category && changeCategory({ line, draft, chart }, category)}
    />
  );
}

/** Says what the next category drops, and offers to bring it back. */
function changeCategory(
  { line, draft, chart }: Pick<LineRowProps, 'line' | 'draft' | 'chart'>,
  category: string,
): void {
  const dropped = droppedBy(chart, line, category);
  draft.editLine(line.id, { category }, (error) => {
    if (error) return failed(error);
    if (dropped.length === 0) return;
    const { nights = null, attendees = null, fields, stay = null } = line;
    const journey = line.journey ? withoutBefore(line.journey) : null;
    const back = { category: line.category ?? null, nights, attendees, fields: fields ?? {}, journey, stay };
    toast({
      text: `Line ${line.id} no longer says: ${dropped.join(', ')}`,
      act: { label: 'Undo', run: () => draft.editLine(line.id, back) },
    });
  });
}
const withoutBefore = ({ before: _, ...journey }: NonNullable<Line['journey']>) => journey;

function AmountCell({ view, line, row, draft }: Pick<LineRowProps, 'view' | 'line' | 'row' | 'draft'>) {
  const shown = `${groupDigits(line.amount)} ${line.currency}`;
  return (
    <>
      {ofBank(line) || line.journey || line.stay ? (
        <span className="block px-1 py-1 tabular-nums">{shown}</span>
      ) : (
        <Cell
          label={`Amount of line ${line.id}`}
          row={row}
          column="amount"
          align="right"
          value={shown}
          problemOf={(typed) => {
            const read = readMoney(typed, line.currency);
            return read.ok ? null : read.problem;
          }}
          onSave={(typed, done) => {
            const read = readMoney(typed, line.currency);
            if (read.ok)
              draft.editLine(line.id, { amount: { amount: read.amount, currency: read.currency } }, done, line);
          }}
        />
      )}
      {line.currency !== view.claim.currency && (
        <span className="quiet block px-1 text-xs">
          = <Money amount={view.amounts[line.id]} currency={view.claim.currency} />
        </span>
      )}
    </>
  );
}

function WhoPaid({ line, draft }: Pick<LineRowProps, 'line' | 'draft'>) {
  if (line.paidBy === 'card') return <span className="block px-1">card {line.card}</span>;
  return (
    <select
      className="select select-xs w-full"
      aria-label={`Who paid line ${line.id}`}
      value={line.paidBy}
      onChange={(e) => draft.editLine(line.id, { paidBy: e.target.value as 'own' | 'central' })}
    >
      <option value="own">own money</option>
      <option value="central">centrally</option>
    </select>
  );
}

function Opener({ view, line, open, onToggle }: LineRowProps) {
  return (
    <>
      {view.receipts[line.id] && <Paperclip size={14} className="mr-1 inline" aria-label="has a receipt" />}
      <button
        type="button"
        className="btn btn-ghost btn-xs"
        aria-expanded={open}
        aria-label={`More of line ${line.id}`}
        onClick={onToggle}
      >
        {open ? <ChevronDown size={16} /> : <ChevronRight size={16} />}
      </button>
    </>
  );
}
