/** Digits grouped in threes with a thin space, the sign a true minus: "-1234567.50" → "−1 234 567.50". */
export function groupDigits(amount: string): string {
  const [whole = '', decimals] = amount.replace('-', '').split('.');
  const grouped = whole.replace(/\B(?=(\d{3})+(?!\d))/g, '\u2009');
  return `${amount.startsWith('-') ? '−' : ''}${grouped}${decimals === undefined ? '' : `.${decimals}`}`;
}

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
