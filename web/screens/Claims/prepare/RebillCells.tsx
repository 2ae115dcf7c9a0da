import { longerThan } from '../../../parts/cellProblems.ts';
import { Cell } from '../../../parts/Cell.tsx';
import { Money } from '../../../parts/Money.tsx';
import { readTyped } from '../../../parts/typed.ts';
import type { LineRowProps } from './lineRow.types.ts';

/** To whom a line is charged on, and with how many percent more; what that comes to stands beside it. */
export function RebillCells({ view, line, row, draft }: Pick<LineRowProps, 'view' | 'line' | 'row' | 'draft'>) {
  const { rebill } = line;
  return (
    <div className="flex flex-wrap items-center gap-2">
      <span className="w-44">
        <Cell
          label={`To whom line ${line.id} is charged on`}
          row={row}
          column="rebill"
          value={rebill?.to ?? ''}
          placeholder="nobody"
          problemOf={longerThan(200)}
          onSave={(typed, done) => {
            const to = typed.trim();
            draft.editLine(line.id, { rebill: to ? { ...rebill, to } : null }, done);
          }}
        />
      </span>
      {rebill && (
        <>
          <span className="w-20">
            <Cell
              label={`Mark-up of line ${line.id} in percent`}
              row={row}
              column="markup"
              align="right"
              value={rebill.markup ?? ''}
              placeholder="0"
              problemOf={(typed) =>
                !typed.trim() || /^\d+(\.\d+)?$/.test(readTyped(typed) ?? '') ? null : 'A percentage, such as 7.5.'
              }
              onSave={(typed, done) =>
                draft.editLine(line.id, { rebill: { to: rebill.to, markup: readTyped(typed) } }, done)
              }
            />
          </span>
          <span className="quiet">
            % more: <Money amount={view.rebilled[line.id]} currency={view.claim.currency} />
          </span>
        </>
      )}
    </div>
  );
}
