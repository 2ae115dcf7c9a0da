import { readTyped } from '../../parts/typed.ts';
import type { BenchProps } from './bench.types.ts';

/** Where a line was spent, who paid it, and whether the published rate applies or the one the claimant paid. */
export function FactsBench({ sheet, view, bench }: BenchProps) {
  const { country, paidBy, rate } = bench.set;
  const line = view.document.claim.lines.find((l) => l.id === bench.line)!;
  const change = (fields: object) => sheet.setBench({ ...bench, set: { ...bench.set, ...fields } });
  return (
    <div className="flex flex-wrap items-center gap-4">
      <label className="flex items-center gap-2">
        Country
        <input
          className="input input-sm w-16 uppercase"
          autoFocus
          maxLength={2}
          value={country ?? ''}
          onChange={(e) => change({ country: e.target.value.toUpperCase() || null })}
        />
      </label>
      {paidBy === undefined ? (
        <span className="quiet text-sm">A card paid it, and its charge gives the rate: the bank says both.</span>
      ) : (
        <label className="flex items-center gap-2">
          Paid
          <select
            className="select select-sm w-44"
            value={paidBy}
            onChange={(e) => change({ paidBy: e.target.value, rate: { kind: 'reference' } })}
          >
            <option value="own">by the claimant</option>
            <option value="central">centrally</option>
          </select>
        </label>
      )}
      {rate && paidBy === 'own' && line.currency !== view.claim.currency && (
        <RateChoice {...{ rate, line, view, change }} />
      )}
    </div>
  );
}

type Rate = NonNullable<BenchProps['bench']['set']['rate']>;
interface RateChoiceProps {
  rate: Rate;
  line: { currency: string };
  view: BenchProps['view'];
  change: (fields: { rate: Rate }) => void;
}

function RateChoice({ rate, line, view, change }: RateChoiceProps) {
  return (
    <>
      <label className="flex items-center gap-2">
        Rate
        <select
          className="select select-sm w-44"
          value={rate.kind}
          onChange={(e) =>
            change({ rate: e.target.value === 'own' ? { kind: 'own', value: '1' } : { kind: 'reference' } })
          }
        >
          <option value="reference">as published</option>
          <option value="own">as the claimant paid</option>
        </select>
      </label>
      {rate.kind === 'own' && (
        <label className="flex items-center gap-2">
          <span className="quiet text-sm">
            1 {line.currency} in {view.claim.currency}
          </span>
          <input
            className="input input-sm w-28 text-right"
            defaultValue={rate.value}
            onChange={(e) => {
              const value = readTyped(e.target.value);
              if (value !== null) change({ rate: { kind: 'own', value } });
            }}
          />
        </label>
      )}
    </>
  );
}
