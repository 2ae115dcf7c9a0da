import type { AdvanceAnswer } from '../../api/advances.ts';
import { Money } from '../../parts/Money.tsx';
import { groupDigits } from '../../../core/numbers/groupDigits.ts';

/** Where the money is, as a sum that can be read aloud, in the currency of the advance and in the ledger's. */
export function Standing({ view: { advance, standing } }: { view: AdvanceAnswer }) {
  const { currency, ledgerCurrency } = advance;
  if (!standing) return <Asked advance={advance} />;
  const both = currency !== ledgerCurrency;
  const rows = [
    ['Paid out', standing.paidOut],
    ['− accounted for', standing.accountedFor],
    ['− given back', standing.givenBack],
  ] as const;
  return (
    <dl
      aria-label="Where the money is"
      className={`grid content-start gap-x-4 ${both ? 'grid-cols-[1fr_auto_auto]' : 'grid-cols-[1fr_auto]'}`}
    >
      {both && (
        <>
          <dt />
          <dd className="quiet text-right text-xs">{currency}</dd>
          <dd className="quiet text-right text-xs">{ledgerCurrency}</dd>
        </>
      )}
      {rows.map(([name, { amount, ledger }]) => (
        <div key={name} className="contents">
          <dt className="quiet">{name}</dt>
          <dd className="money">{groupDigits(amount)}</dd>
          {both && <dd className="money quiet">{groupDigits(ledger)}</dd>}
        </div>
      ))}
      <dt className="border-t border-base-300 font-semibold">Still to account for</dt>
      <dd className="border-t border-base-300 text-right">
        <Money amount={standing.open.amount} currency={both ? undefined : currency} strong />
      </dd>
      {both && <dd className="money quiet border-t border-base-300">{groupDigits(standing.open.ledger)}</dd>}
    </dl>
  );
}

const Asked = ({ advance }: { advance: AdvanceAnswer['advance'] }) => (
  <div className="text-right">
    <span className="quiet block text-sm">{advance.amount === advance.requested ? 'Asked for' : 'Granted'}</span>
    <span className="text-2xl">
      <Money amount={advance.amount} currency={advance.currency} strong />
    </span>
    {advance.amount !== advance.requested && (
      <span className="quiet block text-sm">of {groupDigits(advance.requested)} asked for</span>
    )}
  </div>
);
