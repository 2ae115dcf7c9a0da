import type { Finding } from '../../documents/finding.ts';
import type { Verdict } from './policy.types.ts';

/** A budget is exceeded by the claim as a whole; every other rule is broken by a line or item. */
const placeOf = ({ kind, line, item }: Verdict) => (kind === 'budget' ? { line: null, item: null } : { line, item });

/**
 * The rules that were not kept as findings, each once for a line or item. Example: one night over two caps → two
 * findings; the same rule twice on a line → one.
 */
export function findingsOf(verdicts: readonly Verdict[]): Finding[] {
  const seen = new Set<string>();
  return verdicts
    .filter((v) => !v.kept)
    .map((v) => ({
      code: v.rule,
      severity: v.severity,
      ...placeOf(v),
      says: v.says,
      difference: v.difference,
    }))
    .filter((finding) => {
      const key = Object.values(finding).join('\n');
      return seen.has(key) ? false : Boolean(seen.add(key));
    });
}
