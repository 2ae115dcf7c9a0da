import { mergeCoding } from '../../../core/figures/coding/mergeCoding.ts';
import { SplitEditor } from '../../parts/SplitEditor.tsx';
import { partOf } from './bench.ts';
import type { BenchProps } from './bench.types.ts';

/** A line or item divided over codings, with what its shares come to as the split is changed. */
export function SplitBench({ sheet, view, bench, assessment, chart }: BenchProps) {
  const line = view.document.claim.lines.find((l) => l.id === bench.line)!;
  const part = partOf(view, bench);
  const figures = assessment.lines.find((l) => l.id === bench.line)?.parts.find((p) => p.item === bench.item)?.shares;
  return (
    <SplitEditor
      what={bench.item ? 'item' : 'line'}
      split={bench.set.split ?? null}
      figures={figures ?? []}
      line={line}
      chart={chart}
      inherited={mergeCoding(view.document.claim.coding, line.coding, bench.item ? part.coding : null)}
      ledgerCurrency={view.claim.ledgerCurrency}
      set={(split) => sheet.setBench({ ...bench, set: { split } })}
    />
  );
}
