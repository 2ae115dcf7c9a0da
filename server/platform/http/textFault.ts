import type { Problem } from '../../../core/documents/problem.ts';

const DEEPEST = 40;

/**
 * Where a value from outside holds text that cannot be kept, or null: a NUL, half of a surrogate pair (neither is in what
 * PostgreSQL stores), or more levels than any document of ours has. Keys are looked at as well. Without recursion, so that
 * depth costs nothing. Example: {a: ["x\\0"]} → path ["a", 0], "holds a character that cannot be stored. Remove it."
 */
export function textFault(value: unknown): Problem | null {
  const waiting: { value: unknown; path: (string | number)[] }[] = [{ value, path: [] }];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { value: here, path } = next;
    if (path.length > DEEPEST) return { path: path.slice(0, 1), message: `is nested deeper than ${DEEPEST} levels.` };
    if (typeof here === 'string' && !isStorable(here)) return unstorable(path);
    if (typeof here !== 'object' || here === null) continue;
    for (const [key, inside] of Object.entries(here)) {
      if (!isStorable(key)) return unstorable(path);
      waiting.push({ value: inside, path: [...path, Array.isArray(here) ? Number(key) : key] });
    }
  }
  return null;
}

const unstorable = (path: (string | number)[]): Problem => ({
  path,
  message: 'holds a character that cannot be stored. Remove it.',
});

/** Whether PostgreSQL can keep a text as it is. */
export const isStorable = (text: string): boolean => !text.includes('\0') && isWellFormed(text);

/** No half of a surrogate pair stands alone. */
const isWellFormed = (text: string): boolean => !/[\uD800-\uDFFF]/u.test(text);
