import { useState, type FormEvent } from 'react';
import { useNavigate } from 'react-router';
import { useChart } from '../../api/chart.ts';
import { gather, usePairs, type PairsView } from '../../api/gather.ts';
import { failed } from '../../parts/failed.ts';
import {
  partner,
  plannedLine,
  PRIVATE,
  problemOf,
  takeOf,
  type Choice,
  type PlannedLine,
  type Wish,
} from './wishes.ts';

interface TakePanelProps {
  wishes: readonly Wish[];
  onDone: () => void;
  onClose: () => void;
}

/** Puts what was chosen on a draft, or on a new claim: a category for each, proposed where the bank tells the trade. */
export function TakePanel({ wishes, onDone, onClose }: TakePanelProps) {
  const { data: pairs } = usePairs();
  const navigate = useNavigate();
  const [chosen, setChosen] = useState<string | null>(null);
  const [purpose, setPurpose] = useState('');
  const [choice, setChoice] = useState<Choice>({ categories: {}, alone: new Set() });
  const [tried, setTried] = useState(false);
  const drafts = pairs?.drafts ?? [];
  const claim = chosen ?? drafts[0]?.number ?? '';
  const lines = wishes.map((wish) => plannedLine(wish, choice, pairs));
  const problem = problemOf(lines, claim !== '' || purpose.trim() !== '');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setTried(true);
    if (problem) return;
    const draft = drafts.find((d) => d.number === claim);
    const onto = draft ? { number: draft.number, revision: draft.revision } : null;
    const wanted = { claim: onto, purpose: purpose.trim() || null, take: lines.map(takeOf) };
    const taken = await gather.take(wanted).catch(failed);
    if (!taken) return;
    onDone();
    void navigate(`/claims/${taken.number}`);
  };
  return (
    <form
      aria-label="Put on a claim"
      className="sticky bottom-0 mt-4 rounded-box border border-primary bg-base-100 p-3 shadow-lg"
      onSubmit={(e) => void submit(e)}
    >
      <PlannedRows lines={lines} pairs={pairs} choice={choice} onChoice={setChoice} />
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <ClaimChoice drafts={drafts} claim={claim} onClaim={setChosen} purpose={purpose} onPurpose={setPurpose} />
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

interface PlannedRowsProps {
  lines: readonly PlannedLine[];
  pairs: PairsView | undefined;
  choice: Choice;
  onChoice: (choice: Choice) => void;
}

function PlannedRows({ lines, pairs, choice, onChoice }: PlannedRowsProps) {
  return (
    <ul className="max-h-44 overflow-auto">
      {lines.map((line) => (
        <PlannedRow key={line.wish.key} line={line} pairs={pairs} choice={choice} onChoice={onChoice} />
      ))}
    </ul>
  );
}

interface PlannedRowProps {
  line: PlannedLine;
  pairs: PairsView | undefined;
  choice: Choice;
  onChoice: (choice: Choice) => void;
}

function PlannedRow({ line: { wish, charge, category }, pairs, choice, onChoice }: PlannedRowProps) {
  const { data: chart } = useChart();
  const choose = (to: string) => onChoice({ ...choice, categories: { ...choice.categories, [wish.key]: to } });
  return (
    <li className="flex items-center gap-2 py-0.5 text-sm">
      <span className="min-w-0 flex-1">
        <bdi className="block truncate">{wish.name}</bdi>
        <Together wish={wish} pairs={pairs} alone={choice.alone} onAlone={(alone) => onChoice({ ...choice, alone })} />
      </span>
      <select
        className="select select-sm w-44"
        aria-label={`Category of ${wish.name}`}
        value={category}
        onChange={(e) => choose(e.target.value)}
      >
        <option value="">Category…</option>
        {(chart?.categories ?? []).map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
        {charge && <option value={PRIVATE}>Private</option>}
      </select>
    </li>
  );
}

interface ClaimChoiceProps {
  drafts: PairsView['drafts'];
  claim: string;
  onClaim: (number: string) => void;
  purpose: string;
  onPurpose: (purpose: string) => void;
}

function ClaimChoice({ drafts, claim, onClaim, purpose, onPurpose }: ClaimChoiceProps) {
  return (
    <>
      <select
        className="select select-sm max-w-72"
        aria-label="Claim"
        value={claim}
        onChange={(e) => onClaim(e.target.value)}
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
          onChange={(e) => onPurpose(e.target.value)}
        />
      )}
    </>
  );
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
