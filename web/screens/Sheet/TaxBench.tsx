import { TaxEditor } from '../../parts/TaxEditor.tsx';
import type { BenchProps } from './bench.types.ts';

/** The tax entries of a line or item, with what comes of them as they are changed. */
export function TaxBench({ sheet, view, bench, assessment, chart }: BenchProps) {
  const line = view.document.claim.lines.find((l) => l.id === bench.line)!;
  const part = assessment.lines.find((l) => l.id === bench.line)?.parts.find((p) => p.item === bench.item);
  return (
    <TaxEditor
      entries={bench.set.tax ?? []}
      rows={part?.tax ?? []}
      line={line}
      chart={chart}
      onChange={(tax) => sheet.setBench({ ...bench, set: { ...bench.set, tax } })}
    />
  );
}
