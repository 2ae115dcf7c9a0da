import { useMemo, useState } from 'react';
import { mergeCoding } from '../../../core/figures/coding/mergeCoding.ts';
import { SplitEditor } from '../../parts/SplitEditor.tsx';
import { useOwnCodes } from '../../api/codes.ts';
import { SaveCoding } from '../../parts/SavedCodings.tsx';
import { useSteady } from '../../parts/useSteady.ts';
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
  const inherited = useMemo(
    () => mergeCoding(view.document.claim.coding, line.coding, bench.item ? part.coding : null),
    [view, line, part, bench.item],
  );
  const set = useSteady((next: typeof split) => sheet.setBench({ ...bench, set: { split: next } }));
  const [saving, setSaving] = useState(false);
  const saved = useOwnCodes().data?.codings ?? [];
  const save = useSteady(() => setSaving(true));
  return (
    <>
      <SplitEditor
        what={bench.item ? 'item' : 'line'}
        split={split}
        figures={open ? open.shares.slice(0, -1) : (figures ?? [])}
        left={open?.shares.at(-1) ?? null}
        line={line}
        chart={chart}
        inherited={inherited}
        ledgerCurrency={view.claim.ledgerCurrency}
        set={set}
        sources={<SplitSources view={view} line={bench.line} divided={split !== null} onTake={set} onSave={save} />}
      />
      {saving && split && <SaveCoding coding={{}} split={split} all={saved} onClose={() => setSaving(false)} />}
    </>
  );
}
