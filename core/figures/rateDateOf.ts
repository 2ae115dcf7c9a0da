import type { Line } from '../documents/case.schema.ts';
import type { OpenCase } from './figures.types.ts';
import { entityOn } from './openCase.ts';

/**
 * The date whose rates a line takes, by the entity's choice. checkCase has seen to it that a needed date is there.
 * Example: "line" → the line’s date; "submission" → the day the claim was submitted.
 */
export function rateDateOf(open: OpenCase, line: Line): string {
  const choice = entityOn(open, line.date).rateDate ?? 'line';
  switch (choice) {
    case 'line':
      return line.date;
    case 'submitted':
      return open.case.claim.submittedOn!;
    case 'posting':
      return open.case.postingDate;
    default:
      return choice satisfies never;
  }
}
