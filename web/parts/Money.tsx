import { groupDigits } from '../../core/numbers/groupDigits.ts';

/** An amount with its currency, right-aligned with tabular digits; a dash where it cannot be computed. */
export function Money({
  amount,
  currency,
  strong,
}: {
  amount: string | null | undefined;
  currency?: string | undefined;
  strong?: boolean;
}) {
  return (
    <span className={`money ${strong ? 'font-semibold' : ''}`}>
      {amount == null ? '–' : groupDigits(amount)}
      {currency && <span className="quiet ml-1 text-[0.82em] font-normal">{currency}</span>}
    </span>
  );
}
