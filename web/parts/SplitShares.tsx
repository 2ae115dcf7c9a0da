import { memo, useState } from 'react';
import type { ShareRow } from '../../core/documents/assessment.schema.ts';
import type { Coding, Split } from '../../core/documents/case.schema.ts';
import { CodingFields } from './CodingFields.tsx';
import { restTo } from './convertSplit.ts';
import { Money } from './Money.tsx';
import { RemoveButton } from './RemoveButton.tsx';
import type { Division } from './split.types.ts';
import { readTyped, readTypedAmount } from './typed.ts';
import { useSteady } from './useSteady.ts';

const VALUE_HEAD: Record<Split['by'], string> = {
  percent: 'Percent',
  amount: 'Amount',
  equal: 'Equal',
  weight: 'Weight',
};
type Share = Split['shares'][number];

/** The shares of a split, each with its coding, its value and what it comes to; last what is left to divide. */
export function SplitShares(division: Division) {
  const { split, left, line, ledgerCurrency } = division;
  return (
    <table className="w-full text-left">
      <thead className="quiet text-xs">
        <tr>
          <th className="font-normal">Coding</th>
          <th className="px-1 font-normal">{split.unit ?? VALUE_HEAD[split.by]}</th>
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
        {left && <LeftLine left={left} currency={line.currency} />}
      </tbody>
    </table>
  );
}

/** Not drawn again while the value of a share is typed. */
const ShareCodes = memo(CodingFields);

function ShareLine({ index, split, figures, line, chart, inherited, set }: Division & { index: number }) {
  const share = split.shares[index]!;
  const change = (fields: Partial<Share>) =>
    set({ ...split, shares: split.shares.map((s, i) => (i === index ? { ...s, ...fields } : s)) });
  const setCoding = useSteady((coding: Coding) => change({ coding }));
  const grosses = figures.map((f) => f.gross);
  const remove = () => set({ ...split, shares: split.shares.filter((_, i) => i !== index) });
  return (
    <tr className="border-t border-base-300">
      <td className="py-1">
        <ShareCodes
          chart={chart}
          date={line.date}
          coding={share.coding}
          inherited={inherited}
          label={`share ${index + 1}`}
          finds
          onChange={setCoding}
        />
      </td>
      <td className="px-1 align-top">
        <span className="flex items-center gap-1">
          <ValueField {...{ split, share, index }} currency={line.currency} onChange={(value) => change({ value })} />
          {(split.by === 'percent' || split.by === 'amount') && share.value !== 'rest' && (
            <button
              type="button"
              className="btn btn-ghost btn-xs px-1 font-normal"
              aria-label={`Share ${index + 1} takes the rest`}
              title="Takes the rest"
              onClick={() => set(restTo(split, index, grosses))}
            >
              rest
            </button>
          )}
        </span>
      </td>
      <ShareFigures figures={figures[index]} currency={line.currency} />
      <td className="text-right">
        <RemoveButton what={`share ${index + 1}`} onRemove={remove} disabled={split.shares.length === 1} />
      </td>
    </tr>
  );
}

/** What no share has yet, in the currencies of the line and the ledger, with its tax. */
function LeftLine({ left, currency }: { left: ShareRow; currency: string }) {
  return (
    <tr className="border-t-2 border-error text-error">
      <td colSpan={2} className="py-1">
        Left to divide
      </td>
      <ShareFigures figures={left} currency={currency} />
      <td />
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

/** A further share: in equal parts like the others, else the rest where none takes it. */
export const newShare = (split: Split): Share => ({
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

/** The value of a share: a number, or the word rest in one of them (percent and amount). What changes it elsewhere shows here. */
function ValueField({ split, share, index, currency, onChange }: ValueFieldProps) {
  const value = share.value ?? null;
  const [typed, setTyped] = useState(value ?? '');
  if (split.by === 'equal') return null;
  const read = (text: string) => {
    if (/^r(e(s(t)?)?)?$/i.test(text.trim())) return 'rest';
    return (split.by === 'amount' ? readTypedAmount(text, currency) : readTyped(text)) ?? null;
  };
  return (
    <input
      className="input input-sm w-24 text-right"
      aria-label={`Value of share ${index + 1}`}
      autoFocus={index === 0}
      value={read(typed) === value ? typed : (value ?? '')}
      onFocus={(e) => e.target.select()}
      onChange={(e) => {
        setTyped(e.target.value);
        onChange(read(e.target.value));
      }}
      title="A number, or rest"
    />
  );
}
