import { fromMinor, toMinor } from '../../../core/numbers/amount.ts';
import { Money } from '../../parts/Money.tsx';
import type { BenchProps } from './bench.types.ts';

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
  const open = (item: string, kind: 'split' | 'coding' | 'tax') => {
    const part = items.find((i) => i.id === item)!;
    const set = {
      split: { split: part.split ?? null },
      coding: { coding: part.coding ?? {} },
      tax: { tax: part.tax ?? [] },
    }[kind];
    sheet.setBench({ line: bench.line, item, kind, set });
  };
  return (
    <table className="w-full">
      <tbody>
        {items.map((item) => (
          <tr key={item.id} className="border-b border-base-300">
            <td className="py-1 pr-2 font-mono text-sm">{item.id}</td>
            <td className="px-2">{item.description}</td>
            <td className="quiet px-2">
              {item.personal
                ? 'Private'
                : (chart?.categories.find((c) => c.id === item.category)?.name ?? item.category)}
            </td>
            <td className="px-2 text-right">
              <Money amount={item.amount} currency={line.currency} />
            </td>
            <td className="py-1 pl-2 text-right">
              {!item.personal
                && (['split', 'coding', 'tax'] as const).map((kind) => (
                  <button key={kind} type="button" className="btn btn-xs ml-1" onClick={() => open(item.id, kind)}>
                    {kind}
                  </button>
                ))}
            </td>
          </tr>
        ))}
        <tr>
          <td />
          <td className="px-2 py-1 font-semibold">Left of the line</td>
          <td />
          <td className={`px-2 text-right ${left === 0n ? '' : 'text-error'}`}>
            <Money amount={fromMinor(left, line.currency)} currency={line.currency} strong />
          </td>
          <td className="text-right">
            <button type="button" className="btn btn-sm" onClick={() => sheet.setBench(null)}>
              Close
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  );
}
