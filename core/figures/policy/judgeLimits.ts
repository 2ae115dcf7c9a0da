import type { LineFigures, OpenCase } from '../figures.types.ts';
import type { Limit } from '../../documents/rules.schema.ts';
import { judgeCap, judgeEstimate, judgeNear } from './_lib/caps.ts';
import { judgeAge, judgeFields, judgePlan, judgeReceipt, judgeText, judgeWeekend } from './_lib/facts.ts';
import type { Verdict } from './policy.types.ts';

/**
 * Every limit of the book applied to a claim, kept or not, in the order of the book. Example: a meal of 45.00, a cap of
 * 40.00 → not kept, difference 5.00.
 */
export function judgeLimits(open: OpenCase, lines: readonly LineFigures[]): Verdict[] {
  return (open.case.book.limits ?? []).flatMap((limit) => judge(open, limit, lines));
}

function judge(open: OpenCase, limit: Limit, lines: readonly LineFigures[]): Verdict[] {
  switch (limit.kind) {
    case 'cap':
      return judgeCap(open, limit, lines);
    case 'near':
      return judgeNear(open, limit, lines);
    case 'estimate':
      return judgeEstimate(open, limit, lines);
    case 'receipt':
      return judgeReceipt(open, limit, lines);
    case 'fields':
      return judgeFields(limit, lines);
    case 'age':
      return judgeAge(open, limit, lines);
    case 'weekend':
      return judgeWeekend(limit, lines);
    case 'plan':
      return judgePlan(open, limit, lines);
    case 'text':
      return judgeText(limit, lines);
    default:
      return limit satisfies never;
  }
}
