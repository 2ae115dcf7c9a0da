/**
 * ISO 7064 MOD 97-10 over text: letters count as 10 (A) to 35 (Z). A valid code leaves 1. Worked out digit by digit, so
 * that length does not matter. Null for text with other characters.
 */
function remainder97(text: string): number | null {
  if (!/^[0-9A-Z]+$/.test(text)) return null;
  let rest = 0;
  for (const char of text) {
    const value = parseInt(char, 36);
    rest = (rest * (value > 9 ? 100 : 10) + value) % 97;
  }
  return rest;
}

/** The two check digits of ISO 7064 MOD 97-10 for a text of digits and capital letters: "0794" → "44". */
export function checkDigits97(text: string): string | null {
  const rest = remainder97(`${text}00`);
  return rest === null ? null : String(98 - rest).padStart(2, '0');
}

const compact = (text: string): string => text.replace(/\s+/g, '').toUpperCase();

/**
 * True for an account number that ISO 13616 allows: country, check digits, up to 30 characters, the check holding.
 * Spaces do not matter. "GB82 WEST 1234 5698 7654 32" → true; one digit changed → false.
 */
export function isIban(text: string): boolean {
  const code = compact(text);
  return /^[A-Z]{2}\d{2}[0-9A-Z]{11,30}$/.test(code) && remainder97(code.slice(4) + code.slice(0, 4)) === 1;
}

/**
 * True for a creditor reference of ISO 11649: RF, check digits, up to 21 characters, the check holding. "RF18 5390 0754
 * 7034" → true; "RF19 5390 0754 7034" → false.
 */
export function isCreditorReference(text: string): boolean {
  const code = compact(text);
  return /^RF\d{2}[0-9A-Z]{1,21}$/.test(code) && remainder97(code.slice(4) + code.slice(0, 4)) === 1;
}
