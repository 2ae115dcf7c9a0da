const NUMBER = /^-?\d+(\.\d+)?$/;

/**
 * A cell for a spreadsheet file. Text that a spreadsheet would take for a formula (it begins with = + - @, a tab or a
 * return) gets an apostrophe in front; numbers stay numbers. null becomes an empty cell.
 */
export function guardCell(value: string | number | null): string {
  const text = value === null ? '' : String(value);
  return /^[=+\-@\t\r]/.test(text) && !NUMBER.test(text) ? `'${text}` : text;
}
