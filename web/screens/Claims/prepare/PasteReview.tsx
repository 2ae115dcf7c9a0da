import { useEffect, useState } from 'react';
import type { Chart } from '../../../api/chart.ts';
import type { MakerView } from '../../../api/claims.ts';
import { Dialog } from '../../../parts/Dialog.tsx';
import { toast } from '../../../parts/toast.tsx';
import type { PasteContext, Pasted, PastedRow, Put } from './pastedLines.ts';
import { PastedRows } from './PastedRows.tsx';
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

/**
 * What a pasted block would become, before any of it is taken. Rows that cannot be read say why and are put right in place; those
 * that can be read are taken without waiting for them.
 */
export function PasteReview({ text, view, chart, draft, onClose }: PasteReviewProps) {
  const [ways, setWays] = useState<Ways>({ category: null });
  const [put, setPut] = useState<Put>({});
  const [taken, setTaken] = useState<readonly number[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const pasted = usePasted(text, { categories: categoriesOf(chart), currency: view.claim.currency, ...ways, put });
  if (!pasted) return null;
  const rows = pasted.rows.filter((r) => !taken.includes(r.row));
  const good = rows.filter((r) => r.line);
  const bad = rows.filter((r) => !r.line);
  const add = () => {
    const now = good.map((r) => r.row);
    setTaken([...taken, ...now]);
    draft.write(
      good.map((r) => r.line!),
      (error) => {
        if (error) {
          setTaken((all) => all.filter((row) => !now.includes(row)));
          return setProblem(error.message);
        }
        toast({ text: now.length === 1 ? 'One line was added' : `${now.length} lines were added` });
        if (bad.length === 0) onClose();
      },
    );
  };
  return (
    <Dialog title="Lines from what was pasted" onClose={onClose} wide>
      <WaysOfReading {...{ pasted, ways, chart }} onChange={setWays} />
      <PastedRows {...{ rows, chart, put }} onPut={setPut} />
      <div className="mt-4 flex flex-wrap items-center gap-3">
        <button type="button" className="btn btn-primary btn-sm" disabled={good.length === 0} onClick={add}>
          {good.length === 1 ? 'Add the line' : `Add ${good.length || 'the'} lines`}
        </button>
        {bad.length > 0 && (
          <button type="button" className="btn btn-sm" onClick={() => void copyOut(bad)}>
            Copy the {bad.length === 1 ? 'other' : `other ${bad.length}`} with the reason
          </button>
        )}
        <span role="status" className={problem || bad.length > 0 ? 'text-error' : 'quiet'}>
          {problem ?? sayRows(rows, bad.length)}
        </span>
      </div>
    </Dialog>
  );
}

function sayRows(rows: readonly PastedRow[], bad: number): string {
  if (rows.length === 0) return 'Nothing in it looks like a line.';
  if (bad === 0) return 'Nothing is added before you say so.';
  return `${bad} of ${rows.length} rows cannot be read. Put them right here, or choose above how they are written.`;
}

/** Rows as they were, for a spreadsheet, each with what is wrong with it. */
async function copyOut(rows: readonly PastedRow[]): Promise<void> {
  const text = rows.map(({ cells, problems }) => [...cells, problems.join('; ')].join('\t')).join('\n');
  await navigator.clipboard.writeText(text).then(
    () => toast({ text: 'Copied, with the reason behind each row' }),
    () => toast({ text: 'The browser does not let this page copy. Put the rows right here instead.', tone: 'bad' }),
  );
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
