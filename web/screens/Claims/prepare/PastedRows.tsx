import type { Chart } from '../../../api/chart.ts';
import { groupDigits } from '../../../../core/numbers/groupDigits.ts';
import type { Column, PastedRow, Put } from './pastedLines.ts';

interface PastedRowsProps {
  rows: readonly PastedRow[];
  chart: Chart | undefined;
  put: Put;
  onPut: (put: Put) => void;
}

/** What the rows of a pasted block become; one that could not be read, or was put right, is a row of fields. */
export function PastedRows({ rows, chart, put, onPut }: PastedRowsProps) {
  return (
    <div className="max-h-[50vh] overflow-auto rounded-box border border-base-300">
      <table aria-label="What the rows become" className="w-full text-left text-sm">
        <tbody>
          {rows.map((row) => (
            <tr key={row.row} className="border-b border-base-300 align-top last:border-b-0">
              <td className="quiet w-12 px-2 py-1 font-mono">{row.row}</td>
              {row.line && !put[row.row] ? (
                <Read row={row} chart={chart} />
              ) : (
                <PutRight
                  row={row}
                  typed={put[row.row] ?? {}}
                  onType={(typed) => onPut({ ...put, [row.row]: { ...put[row.row], ...typed } })}
                />
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Read({ row: { line }, chart }: { row: PastedRow; chart: Chart | undefined }) {
  const nameOf = (id: string) => chart?.categories.find((c) => c.id === id)?.name ?? id;
  const { date, merchant, description, category, amount } = line!;
  return (
    <>
      <td className="px-2 py-1 whitespace-nowrap">{date}</td>
      <td className="px-2 py-1">
        <bdi>{merchant}</bdi> <span className="quiet">{description}</span>
      </td>
      <td className="px-2 py-1">{nameOf(category ?? '')}</td>
      <td className="money px-2 py-1 whitespace-nowrap">
        {groupDigits(amount.amount)} {amount.currency}
      </td>
    </>
  );
}

const FIELDS: readonly { column: Column; name: string; width: string }[] = [
  { column: 'date', name: 'Date', width: 'w-28' },
  { column: 'merchant', name: 'Merchant', width: 'w-48' },
  { column: 'description', name: 'What for', width: 'w-48' },
  { column: 'category', name: 'Category', width: 'w-32' },
  { column: 'amount', name: 'Amount', width: 'w-28 text-right' },
  { column: 'currency', name: 'Currency', width: 'w-16' },
];

interface PutRightProps {
  row: PastedRow;
  typed: Partial<Record<Column, string>>;
  onType: (typed: Partial<Record<Column, string>>) => void;
}
function PutRight({ row: { row, said, problems, line }, typed, onType }: PutRightProps) {
  return (
    <td colSpan={4} className="px-2 py-1">
      <span className="flex flex-wrap gap-1">
        {FIELDS.map(({ column, name, width }) => (
          <input
            key={column}
            className={`input input-xs ${width}`}
            aria-label={`${name} of row ${row}`}
            placeholder={name}
            value={typed[column] ?? said[column]}
            onChange={(e) => onType({ [column]: e.target.value })}
          />
        ))}
      </span>
      {line ? (
        <span className="quiet">
          {line.date}, {groupDigits(line.amount.amount)} {line.amount.currency}
        </span>
      ) : (
        <span className="text-error">{problems.join('; ')}</span>
      )}
    </td>
  );
}
