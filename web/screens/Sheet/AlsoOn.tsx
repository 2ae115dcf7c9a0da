import { useMemo } from 'react';
import type { Line } from '../../../core/documents/case.schema.ts';
import { linesLike, takesAll } from './bench.ts';
import type { BenchProps } from './bench.types.ts';

/** Saves the same to other lines too: those that are like this one, or those that were chosen. */
export function AlsoOn({ sheet, view, bench }: BenchProps) {
  const fields = Object.keys(bench.set).join();
  const like = useMemo(() => linesLike(view, bench.line, fields.split(',')), [view, bench.line, fields]);
  if (bench.item !== null || bench.kind === 'allowed') return null;
  const { lines } = view.document.claim;
  const others = lines.filter((l) => l.id !== bench.line && takesAll(l) && fits(bench, lines, l)).map((l) => l.id);
  const chosen = sheet.chosen.filter((id) => others.includes(id));
  const wide = bench.kind === 'split' || bench.kind === 'coding';
  const offers = [
    { name: `${othersOf(like, 'the')} like this one`, lines: like },
    { name: `the ${chosen.length === 1 ? 'line' : `${chosen.length} lines`} you chose`, lines: chosen },
    ...(wide && others.length > like.length ? [{ name: othersOf(others, 'all'), lines: others }] : []),
  ].filter((offer) => offer.lines.length > 0);
  if (offers.length === 0) return null;
  const isOn = (offer: readonly string[]) => offer.join() === bench.also.join();
  return (
    <div role="group" aria-label="Also on" className="mt-2 flex flex-wrap items-center gap-4 text-sm">
      <span className="quiet">Save also to</span>
      {offers.map((offer) => (
        <label key={offer.name} className="flex items-center gap-1.5" title={`Lines ${offer.lines.join(', ')}`}>
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={isOn(offer.lines)}
            onChange={(e) => sheet.setBench({ ...bench, also: e.target.checked ? offer.lines : [] })}
          />
          {offer.name}
        </label>
      ))}
    </div>
  );
}

/** Other lines counted. Two of all → "all 2 other lines"; one → "the other line". */
const othersOf = (lines: readonly string[], which: 'the' | 'all'): string =>
  lines.length === 1 ? 'the other line' : `${which} ${lines.length} other lines`;

/** Shares that are amounts fit lines of the same amount alone; everything else fits each. */
function fits({ line: id, set }: BenchProps['bench'], lines: readonly Line[], other: Line): boolean {
  if (set.split?.by !== 'amount') return true;
  const line = lines.find((l) => l.id === id)!;
  return line.amount === other.amount && line.currency === other.currency;
}
