import type { LineFigures, OpenCase } from '../figures.types.ts';
import type { Limit } from '../../documents/rules.schema.ts';
import { judgeCap, judgeNear } from './_lib/caps.ts';
import { judgeAge, judgeFields, judgePlan, judgeReceipt, judgeText, judgeWeekend } from './_lib/facts.ts';
import { limitedParts, type LimitedPart } from './_lib/scope.ts';
import { wantsOf } from './wantsOf.ts';
import type { Judged, Verdict } from './policy.types.ts';

/**
 * Every limit of the book applied to a claim, kept or not, in the order of the book. Example: a meal of 45.00, a cap of
 * 40.00 → not kept, difference 5.00.
 */
export function judgeLimits(open: OpenCase, lines: readonly LineFigures[]): Verdict[] {
  const parts = limitedParts(lines);
  const { limits, categories } = open.case.book;
  return (limits ?? []).flatMap((limit) => {
    const wants = wantsOf(limit, categories);
    return judge(open, limit, parts).map((verdict) => ({ ...verdict, wants }));
  });
}

function judge(open: OpenCase, limit: Limit, parts: readonly LimitedPart[]): Judged[] {
  switch (limit.kind) {
    case 'cap':
      return judgeCap(open, limit, parts);
    case 'near':
      return judgeNear(open, limit, parts);
    case 'receipt':
      return judgeReceipt(open, limit, parts);
    case 'fields':
      return judgeFields(limit, parts);
    case 'age':
      return judgeAge(open, limit, parts);
    case 'weekend':
      return judgeWeekend(limit, parts);
    case 'plan':
      return judgePlan(open, limit, parts);
    case 'text':
      return judgeText(limit, parts);
    default:
      return limit satisfies never;
  }
}
