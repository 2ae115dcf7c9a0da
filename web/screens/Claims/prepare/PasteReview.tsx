import { useEffect, useState } from 'react';
import type { Chart } from '../../../api/chart.ts';
import type { MakerView } from '../../../api/claims.ts';
import { Dialog } from '../../../parts/Dialog.tsx';
import { groupDigits } from '../../../words/groupDigits.ts';
import { toast } from '../../../parts/toast.tsx';
import type { PasteContext, Pasted, PastedRow } from './pastedLines.ts';
import type { Draft } from './useDraft.ts';
import { CategoryChoice, categoriesOf } from '../../../parts/CategoryChoice.tsx';

interface PasteReviewProps {
  text: string;
  view: MakerView;
  chart: Chart | undefined;
  draft: Draft;
  onClose: () => void;
}
type Ways = Pick<PasteContext, 'category' | 'order' | 'mark'>;

/** What a pasted block would become, before any of it is taken; rows that cannot be read say why and hold up the rest. */
export function PasteReview({ text, view, chart, draft, onClose }: PasteReviewProps) {
  const [ways, setWays] = useState<Ways>({ category: null });
  const [problem, setProblem] = useState<string | null>(null);
  const pasted = usePasted(text, { categories: categoriesOf(chart), currency: view.claim.currency, ...ways });
  if (!pasted) return null;
  const lines = pasted.rows.flatMap((r) => (r.line ? [r.line] : []));
  const whole = lines.length > 0 && lines.length === pasted.rows.length;
  const add = () =>
    draft.write(lines, (error) => {
      if (error) return setProblem(error.message);
      toast({ text: lines.length === 1 ? 'One line was added' : `${lines.length} lines were added` });
      onClose();
    });
  return (
    <Dialog title="Lines from what was pasted" onClose={onClose} wide>
      <WaysOfReading {...{ pasted, ways, chart }} onChange={setWays} />
      <Rows rows={pasted.rows} chart={chart} />
      <div className="mt-4 flex items-center gap-3">
        <button type="button" className="btn btn-primary btn-sm" disabled={!whole} onClick={add}>
          {lines.length === 1 ? 'Add the line' : `Add ${lines.length || 'the'} lines`}
        </button>
        <span role="status" className={problem || !whole ? 'text-error' : 'quiet'}>
          {problem ?? sayRows(pasted.rows, lines.length)}
        </span>
      </div>
    </Dialog>
  );
}

function sayRows(rows: readonly PastedRow[], read: number): string {
  if (rows.length === 0) return 'Nothing in it looks like a line.';
  if (read === rows.length) return 'Nothing is added before you say so.';
  return `${rows.length - read} of ${rows.length} rows cannot be read. Correct them where they come from, or choose above how they are written.`;
}

/** Reading needs a parser that is only loaded when something is pasted. */
function usePasted(text: string, context: PasteContext): Pasted | null {
  const [pasted, setPasted] = useState<Pasted | null>(null);
  const key = JSON.stringify([text, context]);
  useEffect(() => {
    const [of, by] = JSON.parse(key) as [string, PasteContext];
    let on = true;
    void import('./pastedLines.ts').then(({ readPasted }) => on && setPasted(readPasted(of, by)));
    return () => {
      on = false;
    };
  }, [key]);
  return pasted;
}

interface WaysProps {
  pasted: Pasted;
  ways: Ways;
  chart: Chart | undefined;
  onChange: (ways: Ways) => void;
}

function WaysOfReading({ pasted, ways, chart, onChange }: WaysProps) {
  return (
    <div className="mb-3 flex flex-wrap items-center gap-4 text-sm">
      <label className="flex items-center gap-2">
        Dates
        <select
          className="select select-xs w-auto"
          value={pasted.order}
          onChange={(e) => onChange({ ...ways, order: e.target.value as Pasted['order'] })}
        >
          <option value="ymd">year month day</option>
          <option value="dmy">day month year</option>
          <option value="mdy">month day year</option>
        </select>
      </label>
      <label className="flex items-center gap-2">
        Decimals after
        <select
          className="select select-xs w-auto"
          value={pasted.mark}
          onChange={(e) => onChange({ ...ways, mark: e.target.value as Pasted['mark'] })}
        >
          <option value=".">a point</option>
          <option value=",">a comma</option>
        </select>
      </label>
      <span className="flex items-center gap-2">
        Category where none is named
        <CategoryChoice
          label="Category where none is named"
          value={ways.category ?? ''}
          none="none"
          chart={chart}
          onChange={(category) => onChange({ ...ways, category: category || null })}
        />
      </span>
    </div>
  );
}

function Rows({ rows, chart }: { rows: readonly PastedRow[]; chart: Chart | undefined }) {
  const nameOf = (id: string) => chart?.categories.find((c) => c.id === id)?.name ?? id;
  return (
    <div className="max-h-[50vh] overflow-auto rounded-box border border-base-300">
      <table aria-label="What the rows become" className="w-full text-left text-sm">
        <tbody>
          {rows.map(({ row, line, cells, problems }) => (
            <tr key={row} className="border-b border-base-300 align-top last:border-b-0">
              <td className="quiet w-12 px-2 py-1 font-mono">{row}</td>
              {line ? (
                <>
                  <td className="px-2 py-1 whitespace-nowrap">{line.date}</td>
                  <td className="px-2 py-1">
                    <bdi>{line.merchant}</bdi> <span className="quiet">{line.description}</span>
                  </td>
                  <td className="px-2 py-1">{nameOf(line.category ?? '')}</td>
                  <td className="money px-2 py-1 whitespace-nowrap">
                    {groupDigits(line.amount.amount)} {line.amount.currency}
                  </td>
                </>
              ) : (
                <td colSpan={4} className="px-2 py-1">
                  <bdi className="quiet block max-w-4xl truncate">{cells.join(' · ')}</bdi>
                  <span className="text-error">{problems.join('; ')}</span>
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
