import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { useChart } from '../../api/chart.ts';
import { gather, useCharges, type Charge, type ChargesView } from '../../api/gather.ts';
import { Money } from '../../parts/Money.tsx';
import { Empty, Loading, Trouble } from '../../parts/Notices.tsx';
import { ReasonForm } from '../../parts/ReasonForm.tsx';
import { VirtualRows } from '../../parts/VirtualRows.tsx';
import { toast } from '../../parts/toast.tsx';
import { failed } from '../../parts/failed.ts';
import { TakePanel } from './TakePanel.tsx';

type Shown = 'to do' | 'all';
const isToDo = (c: Charge): boolean => c.state === 'open' || c.state === 'partly on claims';

/** What the bank says was bought with the person's cards: put on claims, several at a time, or marked as claimed before. */
export function Charges() {
  const { data, error, mutate } = useCharges();
  const [shown, setShown] = useState<Shown>('to do');
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  const open = data.charges.filter(isToDo);
  const list = shown === 'to do' ? open : data.charges;
  const chosen = open.filter((c) => picked.has(c.id));
  const pick = (id: string) =>
    setPicked(new Set(picked.has(id) ? [...picked].filter((p) => p !== id) : [...picked, id]));
  return (
    <div className="w-full flex-1 p-3 sm:p-4">
      <h1 className="sr-only">Card charges</h1>
      <Choosing
        shown={shown}
        counts={{ 'to do': open.length, all: data.charges.length }}
        onShow={setShown}
        chosen={chosen.length}
        onAll={() => setPicked(new Set(chosen.length === open.length ? [] : open.map((c) => c.id)))}
      />
      {list.length === 0 ? (
        <Empty title={data.charges.length === 0 ? 'No charges' : 'Every charge is accounted for'}>
          What is bought with your company card appears here the night after, sent by the bank.
        </Empty>
      ) : (
        <ChargeList charges={list} picked={picked} onPick={pick} onChanged={(answer) => void mutate(answer, false)} />
      )}
      {chosen.length > 0 && (
        <TakePanel wishes={chosen.map(wishOf)} onDone={() => void mutate()} onClose={() => setPicked(new Set())} />
      )}
    </div>
  );
}

interface ChoosingProps {
  shown: Shown;
  counts: Record<Shown, number>;
  onShow: (shown: Shown) => void;
  chosen: number;
  onAll: () => void;
}

function Choosing({ shown, counts, onShow, chosen, onAll }: ChoosingProps) {
  return (
    <div className="mb-2 flex flex-wrap items-center gap-3 text-sm">
      <WhichCharges shown={shown} counts={counts} onShow={onShow} />
      {shown === 'to do' && counts['to do'] > 0 && (
        <button type="button" className="btn btn-xs" onClick={onAll}>
          {chosen === counts['to do'] ? 'Choose none' : 'Choose all'}
        </button>
      )}
    </div>
  );
}

const wishOf = (c: Charge) => ({
  key: c.id,
  charge: c.id,
  name: `${c.merchant}, ${c.purchasedOn}`,
  category: c.category,
  ready: true,
});

interface WhichProps {
  shown: Shown;
  counts: Record<Shown, number>;
  onShow: (shown: Shown) => void;
}

function WhichCharges({ shown, counts, onShow }: WhichProps) {
  return (
    <div role="group" aria-label="Which charges" className="flex gap-3">
      {(['to do', 'all'] as const).map((s) => (
        <button
          key={s}
          type="button"
          aria-pressed={shown === s}
          className={shown === s ? 'font-semibold underline underline-offset-4' : 'quiet'}
          onClick={() => onShow(s)}
        >
          {s === 'to do' ? 'On no claim yet' : 'All'} ({counts[s]})
        </button>
      ))}
    </div>
  );
}

interface ChargeListProps {
  charges: readonly Charge[];
  picked: ReadonlySet<string>;
  onPick: (id: string) => void;
  onChanged: (answer: ChargesView) => void;
}

function ChargeList({ charges, picked, onPick, onChanged }: ChargeListProps) {
  const { data: chart } = useChart();
  const [marking, setMarking] = useState<Charge | null>(null);
  const nameOf = (c: Charge) =>
    chart?.categories.find(({ id }) => id === c.category)?.name ?? (c.categoryCode ? `trade ${c.categoryCode}` : '');
  const mark = async (charge: Charge, reason: string | null): Promise<void> => {
    const answer = await gather.markCharge(charge, reason).catch(failed);
    if (!answer) return;
    onChanged(answer);
    setMarking(null);
    const marked = answer.charges.find((c) => c.id === charge.id);
    if (reason !== null && marked)
      toast({ text: 'Marked as claimed already', act: { label: 'Undo', run: () => void mark(marked, null) } });
  };
  return (
    <VirtualRows label="Charges" items={charges} keyOf={(c) => c.id} height={ROW_HEIGHT} classOf={() => 'px-3 py-2'}>
      {(c) => (
        <ChargeItem
          charge={c}
          category={nameOf(c)}
          picked={picked.has(c.id)}
          onPick={() => onPick(c.id)}
          marking={marking?.id === c.id}
          setMarking={setMarking}
          onMark={(reason) => mark(c, reason)}
        />
      )}
    </VirtualRows>
  );
}

const ROW_HEIGHT = 62;

interface ChargeItemProps {
  charge: Charge;
  category: string;
  picked: boolean;
  onPick: () => void;
  marking: boolean;
  setMarking: (charge: Charge | null) => void;
  onMark: (reason: string | null) => Promise<void>;
}

function ChargeItem({ charge, category, picked, onPick, marking, setMarking, onMark }: ChargeItemProps) {
  return (
    <>
      <ChargeRow
        charge={charge}
        category={category}
        picked={picked}
        onPick={onPick}
        where={<Where charge={charge} onMark={() => setMarking(charge)} onUnmark={() => void onMark(null)} />}
      />
      {marking && (
        <ReasonForm
          label="Where it was claimed"
          act="Mark as claimed already"
          of={charge.id}
          onSubmit={(text) => onMark(text)}
          onClose={() => setMarking(null)}
        />
      )}
    </>
  );
}

interface ChargeRowProps {
  charge: Charge;
  category: string;
  picked: boolean;
  onPick: () => void;
  where: ReactNode;
}

function ChargeRow({ charge: c, category, picked, onPick, where }: ChargeRowProps) {
  return (
    <div className="flex flex-wrap items-center gap-x-3 sm:flex-nowrap">
      <input
        type="checkbox"
        className="checkbox checkbox-sm"
        aria-label={`Choose ${c.merchant}, ${c.purchasedOn}`}
        checked={picked}
        disabled={!isToDo(c)}
        onChange={onPick}
      />
      <span className="min-w-0 flex-1 basis-32">
        <bdi className="block truncate font-medium">{c.merchant}</bdi>
        <span className="quiet text-sm">
          {c.purchasedOn} · card {c.card}
          {c.country && ` · ${c.country}`}
        </span>
      </span>
      <span className="quiet hidden w-40 shrink-0 text-sm md:block">{category}</span>
      <span className="order-last w-full pl-8 text-sm sm:order-none sm:w-44 sm:shrink-0 sm:pl-0">{where}</span>
      <ChargeAmounts charge={c} />
    </div>
  );
}

/** What was paid, what the bank took for it in another currency, and what is left of it for a claim. */
function ChargeAmounts({ charge: c }: { charge: Charge }) {
  return (
    <span className="w-32 shrink-0 text-right">
      <Money amount={c.amount} currency={c.currency} strong />
      {c.settled.currency !== c.currency && (
        <span className="quiet block text-sm">
          <Money amount={c.settled.amount} currency={c.settled.currency} />
        </span>
      )}
      {c.state === 'partly on claims' && (
        <span className="block text-sm text-error">
          <Money amount={c.left} /> left
        </span>
      )}
    </span>
  );
}

/** Where the charge stands, and what can be said of it here. */
export function Where({ charge: c, onMark, onUnmark }: { charge: Charge; onMark?: () => void; onUnmark?: () => void }) {
  if (c.state === 'claimed already')
    return (
      <span>
        claimed already: {c.reason}{' '}
        {onUnmark && (
          <button type="button" className="link" onClick={onUnmark}>
            Undo
          </button>
        )}
      </span>
    );
  if (c.lines.length > 0)
    return (
      <span>
        {c.lines.map((l) => (
          <Link key={`${l.claim} ${l.line}`} className="link mr-2 whitespace-nowrap" to={`/claims/${l.claim}`}>
            {l.claim}, line {l.line}
            {l.personal && ', private'}
          </Link>
        ))}
      </span>
    );
  return onMark ? (
    <button type="button" className="link" onClick={onMark}>
      Claimed already…
    </button>
  ) : (
    <span className="text-warning">on no claim</span>
  );
}
