import { useState } from 'react';
import { Link } from 'react-router';
import type { Pair } from '../../../core/evidence/matching/matching.types.ts';
import { ApiError } from '../../api/client.ts';
import { gather, usePairs, type PairsView, type PairWish } from '../../api/gather.ts';
import { Empty, Loading, Trouble } from '../../parts/Notices.tsx';
import { toast } from '../../parts/toast.tsx';
import { PairByHand } from './PairByHand.tsx';
import { Side } from './Side.tsx';
import { isPossible, sideOf, wishOf, type Proposal } from './proposals.ts';
import { failed } from './failed.ts';

/** Lines with charges and receipts with lines: proposed pairs with both sides, accepted singly or together, or made by hand. */
export function Pairs() {
  const { data, error, mutate } = usePairs();
  const [least, setLeast] = useState(85);
  const [busy, setBusy] = useState(false);
  if (error) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Loading shape="rows" />;
  const proposals = proposalsOf(data);
  const above = proposals.filter((p) => p.pair.score >= least);

  const undo = async (wishes: PairWish[], revisions: Record<string, number>) => {
    for (const what of ['charge', 'receipt'] as const) {
      const lines = wishes.filter((w) => w[what]).flatMap((w) => w.lines);
      if (lines.length === 0) continue;
      const view = await gather.unpair(revisions, lines, what).catch(failed);
      if (view) void mutate(view, false);
      revisions = view?.revisions ?? revisions;
    }
  };
  const accept = async (wishes: PairWish[]) => {
    setBusy(true);
    try {
      const view = await gather.pair(data.revisions, wishes);
      void mutate(view, false);
      toast({
        text: wishes.length === 1 ? 'Paired' : `${wishes.length} pairs accepted`,
        act: { label: 'Undo', run: () => void undo(wishes, view.revisions) },
      });
    } catch (failure) {
      if (
        failure instanceof ApiError
        && failure.code === 'pair-differs'
        && failure.numbers.takeable
        && wishes.length === 1
      )
        toast({
          text: failure.message,
          tone: 'bad',
          act: { label: 'Take the bank’s amount', run: () => void accept([{ ...wishes[0]!, takeAmount: true }]) },
        });
      else failed(failure);
      void mutate();
    }
    setBusy(false);
  };
  return (
    <div className="w-full flex-1 p-3 sm:p-4">
      <h1 className="sr-only">Pairs</h1>
      {proposals.length > 0 && (
        <div className="mb-3 flex flex-wrap items-center gap-3">
          <button
            type="button"
            className="btn btn-primary btn-sm"
            disabled={busy || above.length === 0}
            onClick={() => void accept(above.map((p) => p.wish))}
          >
            Accept {above.length} of {proposals.length}
          </button>
          <label className="flex items-center gap-2 text-sm">
            that score at least
            <input
              type="range"
              className="range range-xs range-primary w-40"
              min={45}
              max={100}
              value={least}
              onChange={(e) => setLeast(Number(e.target.value))}
            />
            <output className="w-8 tabular-nums">{least}</output>
          </label>
        </div>
      )}
      {proposals.length === 0 ? (
        <Empty title="Nothing to propose">
          When a line of a draft and a charge of your card, or a receipt, look like the same spending, the pair is shown
          here. Pair the others by hand below.
        </Empty>
      ) : (
        <ul aria-label="Proposed pairs" className="rounded-box border border-base-300 bg-base-100">
          {proposals.map((p) => (
            <ProposalRow
              key={p.key}
              proposal={p}
              dim={p.pair.score < least}
              busy={busy}
              onAccept={() => void accept([p.wish])}
            />
          ))}
        </ul>
      )}
      <PairByHand data={data} onPair={(wish) => void accept([wish])} />
      <Paired data={data} onUndo={(wish) => void undo([wish], data.revisions)} />
    </div>
  );
}

function proposalsOf(data: PairsView): Proposal[] {
  const of = (kind: 'charge' | 'receipt', pairs: Pair[]) =>
    pairs.map((pair) => ({
      key: `${kind} ${pair.left.join(' ')} ${pair.right}`,
      kind,
      pair,
      wish: wishOf(kind, pair),
      left: pair.left.map((ref) => sideOf(data, 'line', ref)),
      right: sideOf(data, kind, pair.right),
    }));
  return [...of('charge', data.proposals.charges), ...of('receipt', data.proposals.receipts)]
    .filter(isPossible)
    .sort((a, b) => b.pair.score - a.pair.score);
}

function ProposalRow({
  proposal: p,
  dim,
  busy,
  onAccept,
}: {
  proposal: Proposal;
  dim: boolean;
  busy: boolean;
  onAccept: () => void;
}) {
  return (
    <li
      className={`grid items-center gap-x-4 gap-y-1 border-b border-base-300 px-3 py-2 last:border-b-0 md:grid-cols-[3rem_minmax(0,1fr)_minmax(0,1fr)_auto] ${dim ? 'opacity-75' : ''}`}
    >
      <span className="text-lg font-semibold tabular-nums" aria-label={`Score ${p.pair.score}`}>
        {p.pair.score}
      </span>
      <span className="min-w-0">
        {p.left.map((side) => (
          <Side key={side.id} side={side} />
        ))}
      </span>
      <span className="min-w-0">
        <Side side={p.right} />
        <span className="quiet block text-sm">{p.pair.reasons.join(' · ')}</span>
      </span>
      <button type="button" className="btn btn-sm" disabled={busy} onClick={onAccept}>
        Accept
      </button>
    </li>
  );
}

function Paired({ data, onUndo }: { data: PairsView; onUndo: (wish: PairWish) => void }) {
  const lines = data.lines.filter((l) => l.charge !== null || l.receipt !== null);
  if (lines.length === 0) return null;
  return (
    <section className="mt-6">
      <h2 className="mb-1 font-semibold">
        Paired <span className="quiet font-normal">{lines.length}</span>
      </h2>
      <ul aria-label="Paired lines" className="rounded-box border border-base-300 bg-base-100">
        {lines.map((l) => (
          <li
            key={l.ref}
            className="flex flex-wrap items-center gap-3 border-b border-base-300 px-3 py-2 last:border-b-0"
          >
            <span className="min-w-0 flex-1 basis-64">
              <Side side={sideOf(data, 'line', l.ref)} />
            </span>
            <Link className="link text-sm" to={`/claims/${l.claim}`}>
              {l.claim}
            </Link>
            {(['charge', 'receipt'] as const).map(
              (what) =>
                l[what] !== null && (
                  <button
                    key={what}
                    type="button"
                    className="btn btn-xs"
                    onClick={() => onUndo({ lines: [{ claim: l.claim, line: l.line }], [what]: l[what] })}
                  >
                    Take the {what} off
                  </button>
                ),
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
