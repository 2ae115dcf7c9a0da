import { PROOF } from '../../../core/evidence/matching/scorePair.ts';
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
import { failed } from '../../parts/failed.ts';

/** Lines with charges and receipts with lines: proposed pairs with both sides, accepted singly or together, or made by hand. */
export function Pairs() {
  const { data, error, mutate } = usePairs();
  const [least, setLeast] = useState(PROOF);
  const { busy, accept, undo } = usePairing(data, mutate);
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  const proposals = proposalsOf(data);
  // What differs is looked at one by one, whatever it scores.
  const above = proposals.filter((p) => p.pair.differs === null && p.pair.score >= least);

  return (
    <div className="w-full flex-1 p-3 sm:p-4">
      <h1 className="sr-only">Pairs</h1>
      {proposals.length > 0 && (
        <AcceptAbove
          above={above.length}
          of={proposals.length}
          least={least}
          setLeast={setLeast}
          busy={busy}
          onAccept={() => void accept(above.map((p) => p.wish))}
        />
      )}
      {proposals.length === 0 ? (
        <NothingToPropose />
      ) : (
        <Proposals proposals={proposals} least={least} busy={busy} onAccept={(p) => void accept([p.wish])} />
      )}
      <PairByHand data={data} onPair={(wish) => void accept([wish])} />
      <Paired data={data} onUndo={(wish) => void undo([wish], data.revisions)} />
    </div>
  );
}

interface ProposalsProps {
  proposals: Proposal[];
  least: number;
  busy: boolean;
  onAccept: (proposal: Proposal) => void;
}

function Proposals({ proposals, least, busy, onAccept }: ProposalsProps) {
  return (
    <ul aria-label="Proposed pairs" className="rounded-box border border-base-300 bg-base-100">
      {proposals.map((p) => (
        <ProposalRow
          key={p.key}
          proposal={p}
          dim={p.pair.score < least || p.pair.differs !== null}
          busy={busy}
          onAccept={() => onAccept(p)}
        />
      ))}
    </ul>
  );
}

interface AcceptAboveProps {
  above: number;
  of: number;
  least: number;
  setLeast: (least: number) => void;
  busy: boolean;
  onAccept: () => void;
}

function AcceptAbove({ above, of, least, setLeast, busy, onAccept }: AcceptAboveProps) {
  return (
    <div className="mb-3 flex flex-wrap items-center gap-3">
      <button type="button" className="btn btn-primary btn-sm" disabled={busy || above === 0} onClick={onAccept}>
        Accept {above} of {of}
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
  );
}

/** Accepting pairs, one act for all of them, and taking them back. */
function usePairing(data: PairsView | undefined, mutate: ReturnType<typeof usePairs>['mutate']) {
  const [busy, setBusy] = useState(false);
  const undo = async (wishes: PairWish[], from: Record<string, number>) => {
    let revisions = from;
    for (const what of ['charge', 'receipt'] as const) {
      const lines = wishes.filter((w) => w[what] ?? (what === 'charge' && w.charges)).flatMap((w) => w.lines);
      if (lines.length === 0) continue;
      const view = await gather.unpair(revisions, lines, what).catch(failed);
      if (view) void mutate(view, false);
      revisions = view?.revisions ?? revisions;
    }
  };
  const accept = async (wishes: PairWish[]): Promise<void> => {
    setBusy(true);
    try {
      const view = await gather.pair(data?.revisions ?? {}, wishes);
      void mutate(view, false);
      const text = wishes.length === 1 ? 'Paired' : `${wishes.length} pairs accepted`;
      toast({ text, act: { label: 'Undo', run: () => void undo(wishes, view.revisions) } });
    } catch (failure) {
      offerTheBanks(failure, wishes, accept);
      void mutate();
    }
    setBusy(false);
  };
  return { busy, accept, undo };
}

/** A pair whose amounts differ can be made with the bank's; any other failure is said. */
function offerTheBanks(failure: unknown, wishes: PairWish[], accept: (wishes: PairWish[]) => Promise<void>): void {
  const [wish] = wishes;
  const differs = failure instanceof ApiError && failure.code === 'pair-differs' && failure.numbers.takeable;
  if (!differs || !wish || wishes.length > 1) return failed(failure);
  const act = { label: 'Take the bank’s amount', run: () => void accept([{ ...wish, takeAmount: true }]) };
  toast({ text: failure.message, tone: 'bad', act });
}

function proposalsOf(data: PairsView): Proposal[] {
  const of = (kind: 'charge' | 'receipt', pairs: Pair[]) =>
    pairs.map((pair) => ({
      key: `${kind} ${pair.left.join(' ')} ${pair.right.join(' ')}`,
      kind,
      pair,
      wish: wishOf(kind, pair),
      left: pair.left.map((ref) => sideOf(data, 'line', ref)),
      right: pair.right.map((id) => sideOf(data, kind, id)),
    }));
  return [...of('charge', data.proposals.charges), ...of('receipt', data.proposals.receipts)]
    .filter(isPossible)
    .sort((a, b) => b.pair.score - a.pair.score);
}

const NothingToPropose = () => (
  <Empty title="Nothing to propose">
    When a line of a draft and a charge of your card, or a receipt, look like the same spending, the pair is shown here.
    Pair the others by hand below.
  </Empty>
);

interface ProposalRowProps {
  proposal: Proposal;
  dim: boolean;
  busy: boolean;
  onAccept: () => void;
}

function ProposalRow({ proposal: p, dim, busy, onAccept }: ProposalRowProps) {
  return (
    <li
      className={`grid items-center gap-x-4 gap-y-1 border-b border-base-300 px-3 py-2 last:border-b-0 md:grid-cols-[3rem_minmax(0,1fr)_minmax(0,1fr)_auto] ${dim ? 'bg-base-200' : ''}`}
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
        {p.right.map((side) => (
          <Side key={side.id} side={side} />
        ))}
        <Reasons pair={p.pair} />
      </span>
      <button type="button" className="btn btn-sm" disabled={busy} onClick={onAccept}>
        {p.wish.takeAmount ? 'Accept with the bank’s amount' : 'Accept'}
      </button>
    </li>
  );
}

/** Why the two look like one spending; what differs is said in front. */
const Reasons = ({ pair: { reasons, differs } }: { pair: Pair }) => (
  <span className="quiet block text-sm">
    {differs && <strong className="text-warning">{differs}</strong>}
    {reasons
      .filter((reason) => reason !== differs)
      .map((reason, i) => (i > 0 || differs ? ` · ${reason}` : reason))
      .join('')}
  </span>
);

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
          <PairedLine key={l.ref} side={sideOf(data, 'line', l.ref)} line={l} onUndo={onUndo} />
        ))}
      </ul>
    </section>
  );
}

interface PairedLineProps {
  side: ReturnType<typeof sideOf>;
  line: PairsView['lines'][number];
  onUndo: (wish: PairWish) => void;
}

function PairedLine({ side, line: l, onUndo }: PairedLineProps) {
  return (
    <li className="flex flex-wrap items-center gap-3 border-b border-base-300 px-3 py-2 last:border-b-0">
      <span className="min-w-0 flex-1 basis-64">
        <Side side={side} />
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
  );
}
