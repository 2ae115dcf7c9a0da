import { useEffect, useRef } from 'react';
import type { ClaimView } from '../../api/claims.ts';
import { CodingBench } from './CodingBench.tsx';
import { ItemsBench } from './ItemsBench.tsx';
import { SplitBench } from './SplitBench.tsx';
import { TaxBench } from './TaxBench.tsx';
import type { BenchProps } from './bench.types.ts';
import { AllowedBench } from './AllowedBench.tsx';
import { AlsoOn } from './AlsoOn.tsx';
import { FactsBench } from './FactsBench.tsx';
import { BENCH_NAMES, benchOf } from './bench.ts';
import { KeyHint } from '../../parts/keys.tsx';

/** What is edited in place under a line, with its one way to save and to leave. */
export function LineBench({ problem, ...props }: BenchProps & { problem: string | null }) {
  const { sheet, view, bench, assessment } = props;
  const unsaid = bench.set.cut?.reason.trim() === '' ? 'Say why less is allowed.' : null;
  const stop =
    unsaid
    ?? problem
    ?? assessment.findings.find((f) => f.line === bench.line && f.item === bench.item && f.severity === 'stop')?.says
    ?? null;
  const line = view.document.claim.lines.find((l) => l.id === bench.line)!;
  const form = useRef<HTMLFormElement>(null);
  useEffect(() => {
    void form.current?.scrollIntoView({ block: 'nearest' });
  }, [bench.line, bench.kind]);
  return (
    <form
      ref={form}
      aria-label={`${BENCH_NAMES[bench.kind]} of line ${bench.line}`}
      className="border-l-4 border-primary bg-base-200 px-4 py-3"
      onSubmit={(e) => {
        e.preventDefault();
        if (!problem && !unsaid) void sheet.saveBench();
      }}
    >
      {bench.item && <ItemPicker {...props} line={line} />}
      <Content {...props} />
      {bench.kind !== 'items' && <AlsoOn {...props} />}
      {bench.kind !== 'items' && <Foot sheet={sheet} blocked={problem !== null || unsaid !== null} stop={stop} />}
    </form>
  );
}

interface FootProps {
  sheet: BenchProps['sheet'];
  blocked: boolean;
  stop: string | null;
}

function Foot({ sheet, blocked, stop }: FootProps) {
  return (
    <div className="mt-3 flex items-center gap-2">
      <button className="btn btn-primary btn-sm" disabled={sheet.busy || blocked}>
        Save
      </button>
      <button type="button" className="btn btn-sm" onClick={() => sheet.setBench(null)}>
        Close <KeyHint of="close" />
      </button>
      {stop && (
        <span role="alert" className="text-error">
          {stop}
        </span>
      )}
    </div>
  );
}

function Content(props: BenchProps) {
  const { kind } = props.bench;
  switch (kind) {
    case 'split':
      return <SplitBench {...props} />;
    case 'coding':
      return <CodingBench {...props} />;
    case 'tax':
      return <TaxBench {...props} />;
    case 'items':
      return <ItemsBench {...props} />;
    case 'allowed':
      return <AllowedBench {...props} />;
    case 'facts':
      return <FactsBench {...props} />;
    default:
      return kind satisfies never;
  }
}

function ItemPicker({
  sheet,
  view,
  bench,
  line,
}: BenchProps & { line: ClaimView['document']['claim']['lines'][number] }) {
  const pick = (item: string) => {
    sheet.setBench(benchOf(view, { ...bench, item }));
  };
  return (
    <label className="mb-2 flex items-center gap-2 text-sm">
      Item
      <select className="select select-sm w-64" value={bench.item ?? ''} onChange={(e) => pick(e.target.value)}>
        {line
          .items!.filter((i) => !i.personal)
          .map((i) => (
            <option key={i.id} value={i.id}>
              {i.id} · {i.description} · {i.amount}
            </option>
          ))}
      </select>
    </label>
  );
}
