import type { ClaimantsWord as Word } from '../../core/documents/case.schema.ts';
import type { Finding } from '../../core/documents/finding.ts';
import { wordTo } from '../../core/workflow/wordsWanted.ts';
import { ClaimantsWord } from './ClaimantsWord.tsx';

interface ClaimFindingsProps {
  findings: readonly Pick<Finding, 'code' | 'severity' | 'line' | 'says'>[];
  explanations: readonly Word[] | null | undefined;
}

/** What is said of a claim as a whole, such as an estimate of its plan that was exceeded, with what the claimant says to it. */
export function ClaimFindings({ findings, explanations }: ClaimFindingsProps) {
  const whole = findings.filter((f) => f.line === null && f.severity !== 'note');
  if (whole.length === 0) return null;
  return (
    <ul aria-label="Of the claim as a whole" className="text-sm">
      {whole.map((f) => (
        <li
          key={`${f.code} ${f.says}`}
          className={`border-b border-base-300 px-4 py-1.5 ${f.severity === 'stop' ? 'text-error' : 'text-warning'}`}
        >
          <strong className="mr-1">{f.severity}</strong>
          {f.says} <ClaimantsWord word={wordTo(f, explanations)} />
        </li>
      ))}
    </ul>
  );
}
