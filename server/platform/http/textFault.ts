const DEEPEST = 40;

/**
 * Why a value from outside holds text that cannot be kept, or null: a NUL, half of a surrogate pair (neither is in what
 * PostgreSQL stores), or more levels than any document of ours has. Keys are looked at as well. Without recursion, so that
 * depth costs nothing. Example: {a: ["x\\0"]} → "holds a character that cannot be stored. Remove it."
 */
export function textFault(value: unknown): string | null {
  const waiting: { value: unknown; depth: number }[] = [{ value, depth: 0 }];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    if (next.depth > DEEPEST) return `is nested deeper than ${DEEPEST} levels.`;
    if (typeof next.value === 'string' && !isStorable(next.value))
      return 'holds a character that cannot be stored. Remove it.';
    if (typeof next.value !== 'object' || next.value === null) continue;
    for (const [key, inside] of Object.entries(next.value)) {
      waiting.push({ value: key, depth: next.depth }, { value: inside, depth: next.depth + 1 });
    }
  }
  return null;
}

/** Whether PostgreSQL can keep a text as it is. */
export const isStorable = (text: string): boolean => !text.includes('\0') && isWellFormed(text);

/** No half of a surrogate pair stands alone. */
const isWellFormed = (text: string): boolean => !/[\uD800-\uDFFF]/u.test(text);
