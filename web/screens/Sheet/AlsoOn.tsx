import { linesLike, takesAll } from './bench.ts';
import type { BenchProps } from './bench.types.ts';

/** Saves the same to other lines too: those that are like this one, or those that were chosen. */
export function AlsoOn({ sheet, view, bench }: BenchProps) {
  if (bench.item !== null || bench.kind === 'allowed') return null;
  const like = linesLike(view, bench);
  const { lines } = view.document.claim;
  const chosen = sheet.chosen.filter((id) => id !== bench.line && lines.some((l) => l.id === id && takesAll(l)));
  const offers = [
    { name: `the ${like.length} other ${like.length === 1 ? 'line' : 'lines'} like this one`, lines: like },
    { name: `the ${chosen.length} ${chosen.length === 1 ? 'line' : 'lines'} you chose`, lines: chosen },
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
