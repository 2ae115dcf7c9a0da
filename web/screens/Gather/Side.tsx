import { Money } from '../../parts/Money.tsx';
import type { SideView } from './proposals.ts';

/** One side of a pair: a line, a charge or a receipt. */
export function Side({ side }: { side: SideView }) {
  return (
    <span className="flex items-baseline gap-2">
      <span className="min-w-0 flex-1">
        <bdi className="block truncate">{side.name}</bdi>
        <span className="quiet block text-sm">
          {side.what} · {side.date ?? 'no date'}
        </span>
      </span>
      <Money amount={side.amount} currency={side.currency ?? undefined} strong />
    </span>
  );
}
