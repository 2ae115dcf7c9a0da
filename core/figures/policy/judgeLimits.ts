import type { LineFigures, OpenCase } from '../figures.types.ts';
import type { Book } from '../../documents/case.schema.ts';
import type { Limit, LimitOf } from '../../documents/rules.schema.ts';
import { joined } from '../../numbers/joined.ts';
import { oncePer } from '../../numbers/oncePer.ts';
import { judgeCap, judgeNear } from './_lib/caps.ts';
import { judgeAge, judgeFields, judgePlan, judgeReceipt, judgeText, judgeWeekend } from './_lib/facts.ts';
import { limitedParts, type LimitedPart } from './_lib/scope.ts';
import { wantsOf } from './wantsOf.ts';
import type { Judged, Verdict } from './policy.types.ts';

/**
 * What categories ask of their lines, as limits: each required field, and names of attendees below a number. Example: a
 * journey that mileage requires → a limit of kind *fields* for mileage.
 */
function fieldsWanted(categories: Book['categories']): LimitOf<'fields'>[] {
  return categories.flatMap(({ id, fields, from, to }) => {
    const limit = { id: 'field-missing', kind: 'fields', severity: 'stop', categories: [id], from, to } as const;
    return (fields ?? []).flatMap(({ name, label, need, namesUnder }) => [
      ...(need === 'required' ? [{ ...limit, categories: [id], fields: [name], says: `${label}: fill this in.` }] : []),
      ...(namesUnder ? [{ ...limit, categories: [id], fields: [], namesUnder, says: sayNames(namesUnder) }] : []),
    ]);
  });
}
const sayNames = (under: number): string => `Name the people: where they are fewer than ${under}, each is named.`;

/**
 * Every limit of the book, and what its categories ask, applied to a claim, kept or not, in the order of the book. Example: a meal of 45.00, a cap of
 * 40.00 → not kept, difference 5.00.
 */
export function judgeLimits(open: OpenCase, lines: readonly LineFigures[]): Verdict[] {
  const each = lines.map((line) => ofLine(line, open));
  const all = joined(each.map((line) => line.parts));
  const verdicts = limitsOf(open.case.book).map((limit, i) =>
    looksAtEach(limit) ? joined(each.map((line) => line.verdicts[i]!)) : judgeWith(open, limit, all),
  );
  return joined(verdicts);
}

/** The limits of a book, and what its categories ask of their lines, each with what it wants in words. */
const limitsOf = oncePer(({ limits, categories }: Book): Worded[] =>
  [...(limits ?? []), ...fieldsWanted(categories)].map((limit) => ({ ...limit, wants: wantsOf(limit, categories) })),
);
type Worded = Limit & { wants: string };

/** What limits look at of a line, and by place among the limits what those came to that look at each line by itself. */
const ofLine = oncePer((figures: LineFigures, open: OpenCase) => {
  const parts = limitedParts(figures);
  const verdicts = limitsOf(open.case.book).map((limit) => (looksAtEach(limit) ? judgeWith(open, limit, parts) : []));
  return { parts, verdicts };
});

/** Other limits see several lines together. */
const looksAtEach = (limit: Limit): boolean =>
  limit.kind === 'cap' ? limit.per !== 'day' && limit.per !== 'trip' : limit.kind !== 'near' && limit.kind !== 'plan';

const judgeWith = (open: OpenCase, limit: Worded, parts: readonly LimitedPart[]): Verdict[] =>
  judge(open, limit, parts).map((verdict) => ({ ...verdict, wants: limit.wants }));

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
