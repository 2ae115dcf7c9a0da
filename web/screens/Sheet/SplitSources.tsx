import { memo } from 'react';
import type { Line, Split } from '../../../core/documents/case.schema.ts';
import { canonical } from '../../../core/numbers/canonical.ts';
import { groupBy } from '../../../core/numbers/groupBy.ts';
import { useSplits } from '../../api/beside.ts';
import type { ClaimView } from '../../api/claims.ts';
import { useOwnCodes } from '../../api/codes.ts';

interface Source {
  name: string;
  split: Split;
}
interface SplitSourcesProps {
  view: ClaimView;
  line: string;
  /** Whether there are shares to save. */
  divided: boolean;
  onTake: (split: Split) => void;
  onSave: () => void;
}

const SAVE = '~save';

/** Shares taken from elsewhere in one choice: saved ones, other lines, the plan, earlier claims of the person; or saved from here. */
export const SplitSources = memo(function SplitSources({ view, line, divided, onTake, onSave }: SplitSourcesProps) {
  const groups = useSources(view, line);
  const all = groups.flatMap((g) => g.sources);
  return (
    <select
      className="select select-xs w-40"
      aria-label="Take shares from"
      value=""
      onChange={({ target: { value } }) => (value === SAVE ? onSave() : onTake(all[Number(value)]!.split))}
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
      {divided && <option value={SAVE}>Save these shares…</option>}
    </select>
  );
});

function useSources(view: ClaimView, line: string): { of: string; sources: Source[] }[] {
  const saved = useOwnCodes().data?.codings ?? [];
  const { data } = useSplits(view.claim.number);
  const { lines, plan } = view.document.claim;
  return [
    { of: 'Saved', sources: saved.flatMap(({ name, split }) => (split ? [{ name, split }] : [])) },
    { of: 'This claim', sources: eachOnce(lines.filter((l) => l.id !== line).flatMap(splitsOf)) },
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
