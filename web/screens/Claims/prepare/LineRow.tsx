import { ChevronDown, ChevronRight, Paperclip } from 'lucide-react';
import type { Line } from '../../../../core/documents/case.schema.ts';
import { groupDigits, Money } from '../../../parts/Money.tsx';
import { Cell } from '../../../parts/Cell.tsx';
import { LineDetails } from './LineDetails.tsx';
import { readMoney } from '../../../parts/readMoney.ts';
import type { LineRowProps } from './lineRow.types.ts';
import { CategoryChoice } from '../../../parts/CategoryChoice.tsx';

/** A line of the table, what the rules say of it, and, opened, everything else that can be said. */
export function LineRow(props: LineRowProps) {
  const { view, line, row, draft, chart, open } = props;
  const said = view.findings.filter((f) => f.line === line.id && f.severity !== 'note');
  return (
    <>
      <tr id={`line-${line.id}`} className="border-t border-base-300 align-top">
        <td className="quiet px-2 py-1.5 font-mono text-sm">{line.id}</td>
        <WhenAndWhere {...{ line, row, draft }} />
        <td className="px-1 py-1">
          <Category {...{ line, draft, chart }} />
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
          <td colSpan={7} className={`px-2 pb-1 text-sm ${f.severity === 'stop' ? 'text-error' : 'quiet'}`}>
            {f.says}
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

const longerThan =
  (most: number) =>
  (typed: string): string | null =>
    typed.trim().length > most ? `At most ${most} characters; these are ${typed.trim().length}.` : null;

const ofBank = (line: Line): boolean => line.rate?.kind === 'card';

function WhenAndWhere({ line, row, draft }: Pick<LineRowProps, 'line' | 'row' | 'draft'>) {
  const common = { row, line };
  return (
    <>
      <td className="px-1 py-0.5">
        {ofBank(line) ? (
          <span className="block px-1 py-1">{line.date}</span>
        ) : (
          <Cell
            {...common}
            label={`Date of line ${line.id}`}
            column="date"
            type="date"
            value={line.date}
            problemOf={(typed) => (typed ? null : 'Choose a day.')}
            onSave={(date, done) => draft.editLine(line.id, { date }, done)}
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
          onSave={(typed, done) => draft.editLine(line.id, { merchant: typed.trim() || null }, done)}
        />
      </td>
      <td className="px-1 py-0.5">
        <Cell
          {...common}
          label={`What line ${line.id} was for`}
          column="what"
          value={line.description ?? ''}
          problemOf={longerThan(300)}
          onSave={(typed, done) => draft.editLine(line.id, { description: typed.trim() || null }, done)}
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
      onChange={(category) => category && draft.editLine(line.id, { category })}
    />
  );
}

function AmountCell({ view, line, row, draft }: Pick<LineRowProps, 'view' | 'line' | 'row' | 'draft'>) {
  const shown = `${groupDigits(line.amount)} ${line.currency}`;
  return (
    <>
      {ofBank(line) ? (
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
            if (read.ok) draft.editLine(line.id, { amount: { amount: read.amount, currency: read.currency } }, done);
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
