import type { Line } from '../../documents/case.schema.ts';
import type { OpenCase } from '../../figures/figures.types.ts';
import type { Verdict } from '../../figures/policy/policy.types.ts';

/**
 * What the days of a claim come to: a line of a day after the claim was handed in is asked about, and a posting of a day before
 * a line's is stopped. Nothing of lines whose days fit. Example: a line of 20 March in a claim of 3 March, posted on 2 March → both.
 * Figures do not depend on it, so it stands beside the comparisons and not in the computation.
 */
export function judgeDates({ case: { claim, postingDate } }: OpenCase): Verdict[] {
  return claim.lines.flatMap((line) => {
    const late = claim.submittedOn && line.date > claim.submittedOn;
    return [
      ...(late ? [after(line, claim.submittedOn!)] : []),
      ...(line.date > postingDate ? [before(line, postingDate)] : []),
    ];
  });
}

const after = (line: Line, submittedOn: string): Verdict => ({
  ...verdict(line, submittedOn),
  ...{ rule: 'date-after-submission', severity: 'ask' },
  says: `The line is of ${line.date}, after the claim was handed in on ${submittedOn}. Correct the day, or say why it is claimed before.`,
  wants: 'A line is of the day of the submission or an earlier one.',
});

const before = (line: Line, postingDate: string): Verdict => ({
  ...verdict(line, postingDate),
  ...{ rule: 'posting-before-line', severity: 'stop' },
  says: `The line is of ${line.date}, so it cannot be posted on ${postingDate}. Post it on that day or later, or correct the day.`,
  wants: 'A posting is of the day of every line or a later one.',
});

const verdict = ({ id, date }: Line, latest: string) => ({
  ...{ kind: 'limit' as const, kept: false, line: id, item: null, subject: 'day' },
  ...{ actual: date, allowed: latest, unit: null, difference: null, short: 'too late', owner: null },
});
