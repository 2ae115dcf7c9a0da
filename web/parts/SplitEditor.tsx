import type { ShareRow } from '../../core/documents/assessment.schema.ts';
import type { Coding, Line, Split } from '../../core/documents/case.schema.ts';
import type { Chart } from '../api/chart.ts';
import { CodingFields } from './CodingFields.tsx';
import { convertSplit, HALVES } from './convertSplit.ts';
import { Money } from './Money.tsx';
import { RemoveButton } from './RemoveButton.tsx';
import { SplitBar } from './SplitBar.tsx';
import { readTyped, readTypedAmount } from './typed.ts';

const WAYS: [Split['by'], string][] = [
  ['percent', 'percent'],
  ['amount', 'amount'],
  ['equal', 'equal shares'],
  ['weight', 'weights'],
];
const VALUE_HEAD: Record<Split['by'], string> = {
  percent: 'Percent',
  amount: 'Amount',
  equal: 'Equal',
  weight: 'Weight',
};
type Share = Split['shares'][number];

/** A split with what it divides and what its shares come to. */
interface Division {
  split: Split;
  figures: readonly ShareRow[];
  line: Pick<Line, 'date' | 'currency'>;
  chart: Chart | undefined;
  /** What applies where a share says nothing. */
  inherited: Coding;
  ledgerCurrency: string;
  set: (next: Split | null) => void;
}
interface SplitEditorProps extends Omit<Division, 'split'> {
  split: Split | null;
  /** "line" or "item". */
  what: string;
}

/** A line or item divided over codings: a bar with cuts, and a grid with what each share comes to in every column. */
export function SplitEditor({ split, what, ...rest }: SplitEditorProps) {
  if (!split) return <NotSplit what={what} onSplit={() => rest.set(HALVES)} />;
  const division: Division = { ...rest, split };
  return (
    <div className="grid gap-2">
      <SplitHead {...division} />
      <SplitBar split={split} figures={division.figures} currency={division.line.currency} onChange={rest.set} />
      <SharesTable {...division} />
    </div>
  );
}

function NotSplit({ what, onSplit }: { what: string; onSplit: () => void }) {
  return (
    <p>
      This {what} is not split; saved like this its cost goes to one coding.
      <button type="button" autoFocus className="btn btn-sm ml-3" onClick={onSplit}>
        Split it
      </button>
    </p>
  );
}

/** By what it is divided, and what can be done with all shares. */
function SplitHead({ split, figures, set }: Division) {
  const grosses = figures.map((f) => f.gross);
  return (
    <div className="flex flex-wrap items-center gap-3">
      <DivideBy by={split.by} onChange={(by) => set(convertSplit(split, by, grosses))} />
      <button
        type="button"
        className="btn btn-xs ml-auto"
        onClick={() => set({ ...split, shares: [...split.shares, newShare(split)] })}
      >
        Add a share
      </button>
      <button type="button" className="btn btn-xs" onClick={() => set(null)}>
        No split
      </button>
    </div>
  );
}

function DivideBy({ by, onChange }: { by: Split['by']; onChange: (by: Split['by']) => void }) {
  return (
    <div role="radiogroup" aria-label="Divide by" className="flex gap-3 text-sm">
      {WAYS.map(([way, name]) => (
        <label key={way} className="flex items-center gap-1">
          <input
            type="radio"
            name="split-by"
            className="radio radio-xs"
            checked={by === way}
            onChange={() => onChange(way)}
          />
          {name}
        </label>
      ))}
    </div>
  );
}

function SharesTable(division: Division) {
  const { split, ledgerCurrency } = division;
  return (
    <table className="w-full text-left">
      <thead className="quiet text-xs">
        <tr>
          <th className="font-normal">Coding</th>
          <th className="px-1 font-normal">{VALUE_HEAD[split.by]}</th>
          {['Gross', 'Tax back', 'Cost', `Cost ${ledgerCurrency}`].map((h) => (
            <th key={h} className="px-1 text-right font-normal">
              {h}
            </th>
          ))}
          <td />
        </tr>
      </thead>
      <tbody>
        {split.shares.map((_, index) => (
          <ShareLine key={index} index={index} {...division} />
        ))}
      </tbody>
    </table>
  );
}

function ShareLine({ index, split, figures, line, chart, inherited, set }: Division & { index: number }) {
  const share = split.shares[index]!;
  const change = (fields: Partial<Share>) =>
    set({ ...split, shares: split.shares.map((s, i) => (i === index ? { ...s, ...fields } : s)) });
  const remove = () => set({ ...split, shares: split.shares.filter((_, i) => i !== index) });
  return (
    <tr className="border-t border-base-300">
      <td className="py-1">
        <CodingFields
          chart={chart}
          date={line.date}
          coding={share.coding}
          inherited={inherited}
          label={`share ${index + 1}`}
          onChange={(coding) => change({ coding })}
        />
      </td>
      <td className="px-1 align-top">
        <ValueField {...{ split, share, index }} currency={line.currency} onChange={(value) => change({ value })} />
      </td>
      <ShareFigures figures={figures[index]} currency={line.currency} />
      <td className="text-right">
        <RemoveButton what={`share ${index + 1}`} onRemove={remove} disabled={split.shares.length === 1} />
      </td>
    </tr>
  );
}

/** What a share comes to, in the line's currency and the ledger's. */
function ShareFigures({ figures, currency }: { figures: ShareRow | undefined; currency: string }) {
  return (
    <>
      <td className="px-1 text-right">
        <Money amount={figures?.gross} />
      </td>
      <td className="px-1 text-right">
        <Money amount={figures?.recoverable} />
      </td>
      <td className="px-1 text-right">
        <Money amount={figures?.cost} currency={currency} strong />
      </td>
      <td className="px-1 text-right">
        <Money amount={figures?.ledgerCost} />
      </td>
    </>
  );
}

const newShare = (split: Split): Share => ({
  coding: {},
  value:
    split.by === 'equal'
      ? null
      : split.by === 'weight'
        ? '1'
        : split.shares.some((s) => s.value === 'rest')
          ? '0'
          : 'rest',
});

interface ValueFieldProps {
  split: Split;
  share: Share;
  index: number;
  currency: string;
  onChange: (value: string | null) => void;
}

/** The value of a share: a number, or the word rest in one of them (percent and amount). */
function ValueField({ split, share, index, currency, onChange }: ValueFieldProps) {
  if (split.by === 'equal') return null;
  const read = (text: string) => {
    if (/^r(e(s(t)?)?)?$/i.test(text.trim())) return 'rest';
    return (split.by === 'amount' ? readTypedAmount(text, currency) : readTyped(text)) ?? null;
  };
  return (
    <input
      key={`${split.by}-${share.value === 'rest'}-${split.shares.length}`}
      className="input input-sm w-28 text-right"
      aria-label={`Value of share ${index + 1}`}
      autoFocus={index === 0}
      defaultValue={share.value ?? ''}
      onFocus={(e) => e.target.select()}
      onChange={(e) => onChange(read(e.target.value))}
      title="A number, or rest"
    />
  );
}
