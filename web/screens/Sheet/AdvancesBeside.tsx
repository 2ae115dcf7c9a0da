import { Link } from 'react-router';
import type { Assessment } from '../../../core/documents/assessment.schema.ts';
import type { ClaimView } from '../../api/claims.ts';
import { groupDigits } from '../../../core/numbers/groupDigits.ts';

/** The claimant's advances in a line each: what is open now, what this claim takes, what is then left, and whether it is overdue. */
export function AdvancesBeside({ view, assessment }: { view: ClaimView; assessment: Assessment }) {
  return view.advances.map((a) => {
    const taken = assessment.settlement.advances.find((x) => x.advance === a.number);
    const takes = taken
      ? `takes ${groupDigits(taken.advancePart ?? '–')}, leaves ${groupDigits(taken.left ?? '–')}`
      : 'takes nothing';
    return (
      <p key={a.number} className="text-sm">
        <Link className="link font-mono" to={`/advances/${a.number}`}>
          {a.number}
        </Link>{' '}
        {groupDigits(a.open)} of {groupDigits(a.paidOut)} {a.currency} open;{' '}
        <span className="quiet">this claim {takes}</span>
        {a.overdue && <strong> · overdue since {a.dueBy}</strong>}
      </p>
    );
  });
}
