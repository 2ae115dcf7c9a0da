/** Digits grouped in threes with a thin space, the sign a true minus: "-1234567.50" → "−1 234 567.50". */
export function groupDigits(amount: string): string {
  const [whole = '', decimals] = amount.replace('-', '').split('.');
  const grouped = threes(whole).join('\u2009');
  return `${amount.startsWith('-') ? '−' : ''}${grouped}${decimals === undefined ? '' : `.${decimals}`}`;
}

/** A text in pieces of three from its end. */
function threes(text: string): string[] {
  const pieces: string[] = [];
  for (let end = text.length; end > 0; end -= 3) pieces.unshift(text.slice(Math.max(0, end - 3), end));
  return pieces;
}
