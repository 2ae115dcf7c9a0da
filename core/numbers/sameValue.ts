/** Whether two values say the same: the same thing, or things with the same fields in them. {a: [1]}, {a: [1]} → true. */
export function sameValue(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  const [keys, others] = [Object.keys(a), Object.keys(b)];
  return keys.length === others.length && keys.every((key) => sameValue(a[key as never], b[key as never]));
}
