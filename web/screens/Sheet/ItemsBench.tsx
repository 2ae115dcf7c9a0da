import type { Item } from '../../../core/documents/case.schema.ts';
import { fromMinor, toMinor } from '../../../core/numbers/amount.ts';
import { Money } from '../../parts/Money.tsx';
import { BENCH_NAMES, benchOf } from './bench.ts';
import type { BenchProps } from './bench.types.ts';

const PART_BENCHES = ['split', 'coding', 'tax', 'allowed'] as const;
type PartBench = (typeof PART_BENCHES)[number];

/** The items of a line with what is left of it; their coding, split and tax are opened from here. */
export function ItemsBench({ sheet, view, bench, chart }: BenchProps) {
  const line = view.document.claim.lines.find((l) => l.id === bench.line)!;
  const items = line.items ?? [];
  if (items.length === 0)
    return (
      <p>
        This line has no items. When one receipt holds several kinds of cost, the claimant breaks the line up; return it
        with a question.
      </p>
    );
  const left = toMinor(line.amount, line.currency) - items.reduce((a, i) => a + toMinor(i.amount, line.currency), 0n);
  const open = (item: string, kind: PartBench) => sheet.setBench(benchOf(view, { line: bench.line, item, kind }));
  return (
    <table className="w-full">
      <tbody>
        {items.map((item) => (
          <ItemRow
            key={item.id}
            item={item}
            currency={line.currency}
            chart={chart}
            onOpen={(kind) => open(item.id, kind)}
          />
        ))}
        <LeftRow left={fromMinor(left, line.currency)} currency={line.currency} onClose={() => sheet.setBench(null)} />
      </tbody>
    </table>
  );
}

function LeftRow({ left, currency, onClose }: { left: string; currency: string; onClose: () => void }) {
  return (
    <tr>
      <td />
      <td className="px-2 py-1 font-semibold">Left of the line</td>
      <td />
      <td className={`px-2 text-right ${!/[1-9]/.test(left) ? '' : 'text-error'}`}>
        <Money amount={left} currency={currency} strong />
      </td>
      <td className="text-right">
        <button type="button" className="btn btn-sm" onClick={onClose}>
          Close
        </button>
      </td>
    </tr>
  );
}

interface ItemRowProps {
  item: Item;
  currency: string;
  chart: BenchProps['chart'];
  onOpen: (kind: PartBench) => void;
}

function ItemRow({ item, currency, chart, onOpen }: ItemRowProps) {
  return (
    <tr className="border-b border-base-300">
      <td className="py-1 pr-2 font-mono text-sm">{item.id}</td>
      <td className="px-2">{item.description}</td>
      <td className="quiet px-2">
        {item.personal ? 'Private' : (chart?.categories.find((c) => c.id === item.category)?.name ?? item.category)}
      </td>
      <td className="px-2 text-right">
        <Money amount={item.amount} currency={currency} />
      </td>
      <td className="py-1 pl-2 text-right">
        {!item.personal
          && PART_BENCHES.map((kind) => (
            <button key={kind} type="button" className="btn btn-xs ml-1" onClick={() => onOpen(kind)}>
              {BENCH_NAMES[kind]}
            </button>
          ))}
      </td>
    </tr>
  );
}
