import { mergeCoding } from '../../../core/figures/coding/mergeCoding.ts';
import { SplitEditor } from '../../parts/SplitEditor.tsx';
import { partOf } from './bench.ts';
import type { BenchProps } from './bench.types.ts';
import { SplitSources } from './SplitSources.tsx';

/** A line or item divided over codings, with what its shares come to as the split is changed. */
export function SplitBench({ sheet, view, bench, assessment, chart, undivided }: BenchProps) {
  const line = view.document.claim.lines.find((l) => l.id === bench.line)!;
  const part = partOf(view, bench);
  const figures = assessment.lines.find((l) => l.id === bench.line)?.parts.find((p) => p.item === bench.item)?.shares;
  const open = undivided.find((u) => u.line === bench.line && u.item === bench.item);
  const split = bench.set.split ?? null;
  const set = (next: typeof split) => sheet.setBench({ ...bench, set: { split: next } });
  return (
    <SplitEditor
      what={bench.item ? 'item' : 'line'}
      split={split}
      figures={open ? open.shares.slice(0, -1) : (figures ?? [])}
      left={open?.shares.at(-1) ?? null}
      line={line}
      chart={chart}
      inherited={mergeCoding(view.document.claim.coding, line.coding, bench.item ? part.coding : null)}
      ledgerCurrency={view.claim.ledgerCurrency}
      set={set}
      sources={<SplitSources view={view} bench={bench} onTake={set} />}
    />
  );
}
