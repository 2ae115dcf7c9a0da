/**
 * JSON with keys in order and without spaces, so that a document read back from a database hashes as it was written.
 * Example: `{ b: [1], a: undefined }` → `{"b":[1]}`. bigint is written as its decimal string.
 */
export function canonical(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonical).join(',')}]`;
  if (typeof value === 'bigint') return JSON.stringify(value.toString());
  if (value === null || typeof value !== 'object') return JSON.stringify(value) ?? 'null';
  const entries = Object.entries(value).filter(([, v]) => v !== undefined);
  return `{${entries
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([k, v]) => `${JSON.stringify(k)}:${canonical(v)}`)
    .join(',')}}`;
}
