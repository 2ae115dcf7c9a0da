import type { ClaimantsWord } from '../documents/case.schema.ts';
import type { Finding } from '../documents/finding.ts';
import { concernsMakers } from './audienceOf.ts';

type Said = Pick<Finding, 'code' | 'line' | 'says'>;

/**
 * What the claimant said to a finding as it is now; null without a word, and when the finding says something else than
 * when they said it. Example: "12.00 above" explained, now "15.00 above" → null.
 */
export function wordTo(finding: Said, explanations: readonly ClaimantsWord[] | null | undefined): string | null {
  const said = explanations?.find(
    (e) => e.code === finding.code && (e.line ?? null) === finding.line && e.about === finding.says,
  );
  return said?.text ?? null;
}

/** The findings that want a word of the claimant before a claim is handed in: each *ask* that has none yet. */
export const wordsWanted = <F extends Finding>(
  findings: readonly F[],
  explanations: readonly ClaimantsWord[] | null | undefined,
): F[] => findings.filter((f) => f.severity === 'ask' && concernsMakers(f) && wordTo(f, explanations) === null);
