import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useChart } from '../../api/chart.ts';
import { gather, usePairs, type PairsView } from '../../api/gather.ts';
import { failed } from './failed.ts';

/** One line to be made: from a receipt, a charge, or both. */
export interface Wish {
  key: string;
  receipt?: string;
  charge?: string;
  name: string;
  /** Proposed from the merchant's code; null where the person chooses. */
  category: string | null;
  ready: boolean;
}
interface TakePanelProps {
  wishes: readonly Wish[];
  onDone: () => void;
  onClose: () => void;
}

const PRIVATE = '~private';

/** Puts what was chosen on a draft, or on a new claim: a category for each, proposed where the bank tells the trade. */
export function TakePanel({ wishes, onDone, onClose }: TakePanelProps) {
  const { data: pairs } = usePairs();
  const { data: chart } = useChart();
  const navigate = useNavigate();
  const [chosen, setChosen] = useState<string | null>(null);
  const [purpose, setPurpose] = useState('');
  const [categories, setCategories] = useState<Record<string, string>>({});
  const [alone, setAlone] = useState<ReadonlySet<string>>(new Set());
  const [tried, setTried] = useState(false);
  const drafts = pairs?.drafts ?? [];
  const claim = chosen ?? drafts[0]?.number ?? '';
  const partnerOf = (w: Wish) => (alone.has(w.key) || !pairs ? null : partner(w, pairs));
  const categoryOf = (w: Wish) => categories[w.key] ?? w.category ?? partnerOf(w)?.category ?? '';
  const names = new Map((chart?.categories ?? []).map((c) => [c.id, c.name]));
  const unready = wishes.filter((w) => !w.ready);
  const missing = wishes.filter((w) => categoryOf(w) === '');
  const problem =
    unready.length > 0
      ? `Look at ${unready.map((w) => w.name).join(', ')} first and confirm what it shows.`
      : missing.length > 0
        ? `Choose a category for ${missing.map((w) => w.name).join(', ')}.`
        : claim === '' && purpose.trim() === ''
          ? 'Say what the claim is for.'
          : null;
  const submit = async () => {
    setTried(true);
    if (problem) return;
    const draft = drafts.find((d) => d.number === claim);
    const take = wishes.map((w) => {
      const category = categoryOf(w);
      const other = partnerOf(w);
      return {
        receipt: w.receipt ?? other?.receipt ?? null,
        charge: w.charge ?? other?.charge ?? null,
        category: category === PRIVATE ? null : category,
        personal: category === PRIVATE,
      };
    });
    try {
      const { number } = await gather.take({
        claim: draft ? { number: draft.number, revision: draft.revision } : null,
        purpose: purpose.trim() || null,
        take,
      });
      onDone();
      void navigate(`/claims/${number}`);
    } catch (error) {
      failed(error);
    }
  };
  return (
    <form
      aria-label="Put on a claim"
      className="sticky bottom-0 mt-4 rounded-box border border-primary bg-base-100 p-3 shadow-lg"
      onSubmit={(e) => {
        e.preventDefault();
        void submit();
      }}
    >
      <ul className="max-h-44 overflow-auto">
        {wishes.map((w) => (
          <li key={w.key} className="flex items-center gap-2 py-0.5 text-sm">
            <span className="min-w-0 flex-1">
              <bdi className="block truncate">{w.name}</bdi>
              <Together wish={w} pairs={pairs} alone={alone} onAlone={setAlone} />
            </span>
            <select
              className="select select-sm w-44"
              aria-label={`Category of ${w.name}`}
              value={categoryOf(w)}
              onChange={(e) => setCategories({ ...categories, [w.key]: e.target.value })}
            >
              <option value="">Category…</option>
              {[...names].map(([id, name]) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
              {(w.charge ?? partnerOf(w)?.charge) && <option value={PRIVATE}>Private</option>}
            </select>
          </li>
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <select
          className="select select-sm max-w-72"
          aria-label="Claim"
          value={claim}
          onChange={(e) => setChosen(e.target.value)}
        >
          {drafts.map((d) => (
            <option key={d.number} value={d.number}>
              {d.number} · {d.purpose}
            </option>
          ))}
          <option value="">A new claim…</option>
        </select>
        {claim === '' && (
          <input
            className="input input-sm min-w-48 flex-1"
            aria-label="What the claim is for"
            placeholder="What the claim is for"
            value={purpose}
            onChange={(e) => setPurpose(e.target.value)}
          />
        )}
        <button className="btn btn-primary btn-sm">
          Put {wishes.length} on {claim === '' ? 'a new claim' : claim}
        </button>
        <button type="button" className="btn btn-sm" onClick={onClose}>
          Close
        </button>
      </div>
      {tried && problem && (
        <p role="alert" className="mt-1 text-sm text-error">
          {problem}
        </p>
      )}
    </form>
  );
}

const LEAST_TOGETHER = 70;

/** The charge of a receipt, or the receipt of a charge, that is most likely the same spending. */
function partner(
  wish: Wish,
  pairs: PairsView,
): { receipt?: string; charge?: string; name: string; category: string | null } | null {
  const pair = pairs.proposals.spendings.find(
    (p) => p.score >= LEAST_TOGETHER && (wish.receipt ? p.left[0] === wish.receipt : p.right === wish.charge),
  );
  if (!pair) return null;
  const charge = pairs.charges.find((c) => c.id === pair.right);
  const receipt = pairs.receipts.find((r) => r.id === pair.left[0]);
  if (wish.receipt)
    return charge
      ? {
          charge: charge.id,
          name: `the charge of ${charge.merchant}, ${charge.purchasedOn}`,
          category: charge.category,
        }
      : null;
  return receipt ? { receipt: receipt.id, name: `the receipt ${receipt.name}`, category: null } : null;
}

interface TogetherProps {
  wish: Wish;
  pairs: PairsView | undefined;
  alone: ReadonlySet<string>;
  onAlone: (alone: ReadonlySet<string>) => void;
}

/** A receipt and a charge that look like one spending become one line, unless the person says no. */
function Together({ wish, pairs, alone, onAlone }: TogetherProps) {
  const other = pairs ? partner(wish, pairs) : null;
  if (!other) return null;
  const change = () =>
    onAlone(new Set(alone.has(wish.key) ? [...alone].filter((k) => k !== wish.key) : [...alone, wish.key]));
  return (
    <label className="quiet flex items-center gap-1">
      <input type="checkbox" className="checkbox checkbox-xs" checked={!alone.has(wish.key)} onChange={change} />
      together with {other.name}
    </label>
  );
}
