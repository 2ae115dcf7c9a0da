import { useState } from 'react';
import type { Line, Split } from '../../../core/documents/case.schema.ts';
import { canonical } from '../../../core/numbers/canonical.ts';
import { groupBy } from '../../../core/numbers/groupBy.ts';
import { useSplits } from '../../api/beside.ts';
import type { ClaimView } from '../../api/claims.ts';
import { useOwnCodes } from '../../api/codes.ts';
import { SaveCoding } from '../../parts/SavedCodings.tsx';
import type { Bench } from './bench.ts';

interface Source {
  name: string;
  split: Split;
}
interface SplitSourcesProps {
  view: ClaimView;
  bench: Bench;
  onTake: (split: Split) => void;
}

const SAVE = '~save';

/** Shares taken from elsewhere in one choice: saved ones, other lines, the plan, earlier claims of the person; and saved here. */
export function SplitSources({ view, bench, onTake }: SplitSourcesProps) {
  const [saving, setSaving] = useState(false);
  const groups = useSources(view, bench);
  const saved = useOwnCodes().data?.codings ?? [];
  const split = bench.set.split ?? null;
  const all = groups.flatMap((g) => g.sources);
  const choose = (value: string) => {
    if (value === SAVE) setSaving(true);
    else onTake(all[Number(value)]!.split);
  };
  return (
    <>
      <select
        className="select select-xs w-40"
        aria-label="Take shares from"
        value=""
        onChange={(e) => choose(e.target.value)}
      >
        <option value="">take shares from…</option>
        {groups.map(({ of, sources }) => (
          <optgroup key={of} label={of}>
            {sources.map((source) => (
              <option key={source.name} value={all.indexOf(source)}>
                {source.name}
              </option>
            ))}
          </optgroup>
        ))}
        {split && <option value={SAVE}>Save these shares…</option>}
      </select>
      {saving && split && <SaveCoding coding={{}} split={split} all={saved} onClose={() => setSaving(false)} />}
    </>
  );
}

function useSources(view: ClaimView, bench: Bench): { of: string; sources: Source[] }[] {
  const saved = useOwnCodes().data?.codings ?? [];
  const { data } = useSplits(view.claim.number);
  const { lines, plan } = view.document.claim;
  return [
    { of: 'Saved', sources: saved.flatMap(({ name, split }) => (split ? [{ name, split }] : [])) },
    { of: 'This claim', sources: eachOnce(lines.filter((l) => l.id !== bench.line).flatMap(splitsOf)) },
    { of: 'Plan', sources: plan && data?.plan ? [{ name: `as ${plan.number} was planned`, split: data.plan }] : [] },
    {
      of: 'Earlier claims',
      sources: (data?.earlier ?? []).map(({ claim, line, date, split }) => ({
        name: `${claim} line ${line}, ${date}: ${sayShares(split)}`,
        split,
      })),
    },
  ].filter((group) => group.sources.length > 0);
}

/** Shares of a line or its items; amounts fit no other line. */
const splitsOf = (line: Line): Source[] =>
  [line.split, ...(line.items ?? []).map((item) => item.split)].flatMap((split) =>
    split && split.by !== 'amount' ? [{ name: `line ${line.id}: ${sayShares(split)}`, split }] : [],
  );

const eachOnce = (sources: readonly Source[]): Source[] =>
  [...groupBy(sources, (s) => canonical(s.split)).values()].map(([first]) => first!);

/** Shares in a few words. 60 % to one project, the rest elsewhere → "TIDE-04 60 %, rest". */
function sayShares({ by, unit, shares }: Split): string {
  const sign = by === 'percent' ? ' %' : unit ? ` ${unit}` : '';
  const words = shares.map(({ coding, value }) => {
    const codes = Object.values(coding).join(' ');
    return [codes, value === 'rest' || !value ? value : `${value}${sign}`].filter(Boolean).join(' ');
  });
  return words.join(', ');
}
