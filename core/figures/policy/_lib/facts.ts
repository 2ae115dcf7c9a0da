import type { OpenCase } from '../../figures.types.ts';
import { daysBetween, weekday } from '../../../numbers/isoDate.ts';
import type { Line } from '../../../documents/case.schema.ts';
import type { LimitOf } from '../../../documents/rules.schema.ts';
import { fromMinor, magnitude, sumKnown, toMinor } from '../../../numbers/amount.ts';
import type { Judged } from '../policy.types.ts';
import { groupBy } from '../../../numbers/groupBy.ts';
import { convertPart, linesUnder, partsUnder, unknownOf, verdictOf, type LimitedPart } from './scope.ts';

const at = (line: Line) => ({ line: line.id, item: null });

/** A line above an amount needs a receipt. */
export function judgeReceipt(open: OpenCase, limit: LimitOf<'receipt'>, all: readonly LimitedPart[]): Judged[] {
  const { currency } = limit.above;
  return [...groupBy(partsUnder(limit, all), (p) => p.line)].flatMap(([line, parts]) => {
    const amount = sumKnown(parts.map((p) => convertPart(open, p, currency)));
    if (amount === null) return line.receipt == null ? [unknownOf(limit, at(line), limit.above)] : [];
    if (magnitude(amount) <= toMinor(limit.above.amount, currency)) return [];
    const facts = { actual: fromMinor(amount, currency), allowed: limit.above.amount, unit: currency };
    return [verdictOf(limit, at(line), { kept: line.receipt != null, subject: 'receipt', ...facts })];
  });
}

/** Fields a category needs: nights, attendees (with names when they are fewer than a number), or any of the line's own. */
export function judgeFields(limit: LimitOf<'fields'>, all: readonly LimitedPart[]): Judged[] {
  return linesUnder(limit, all).flatMap((line) => {
    const missing = limit.fields.filter((field) => !has(line, field));
    const names = line.attendees && limit.namesUnder && line.attendees.count < limit.namesUnder;
    if (names && (line.attendees!.names?.length ?? 0) < line.attendees!.count) missing.push('attendee names');
    if (missing.length === 0) return [verdictOf(limit, at(line), { kept: true, subject: limit.fields.join(', ') })];
    return [verdictOf(limit, at(line), { kept: false, subject: missing.join(', ') })];
  });
}

function has(line: Line, field: string): boolean {
  if (field === 'nights') return line.nights != null;
  if (field === 'attendees') return line.attendees != null;
  return Boolean(line.fields?.[field] ?? (line as Record<string, unknown>)[field]);
}

/** A line older than some days at submission (at posting while it is not submitted). */
export function judgeAge(open: OpenCase, limit: LimitOf<'age'>, all: readonly LimitedPart[]): Judged[] {
  const until = open.case.claim.submittedOn ?? open.case.postingDate;
  return linesUnder(limit, all).map((line) => {
    const days = daysBetween(line.date, until);
    return verdictOf(limit, at(line), {
      kept: days <= limit.days,
      subject: 'age',
      actual: String(days),
      allowed: String(limit.days),
      unit: 'days',
    });
  });
}

export function judgeWeekend(limit: LimitOf<'weekend'>, all: readonly LimitedPart[]): Judged[] {
  return linesUnder(limit, all)
    .filter((line) => weekday(line.date) > 5)
    .map((line) =>
      verdictOf(limit, at(line), { kept: false, subject: weekday(line.date) === 6 ? 'Saturday' : 'Sunday' }),
    );
}

/**
 * Cost for which the policy asks for an approved plan; above an amount when one is given (of the claim's parts together).
 * With a plan, each of its lines names the estimate it is the cost of.
 */
export function judgePlan(open: OpenCase, limit: LimitOf<'plan'>, all: readonly LimitedPart[]): Judged[] {
  const { plan } = open.case.claim;
  const parts = partsUnder(limit, all);
  if (parts.length === 0) return [];
  if (limit.above) {
    const total = sumKnown(parts.map((part) => convertPart(open, part, limit.above!.currency)));
    if (total === null) return plan ? [] : [unknownOf(limit, { line: null, item: null }, limit.above)];
    if (total <= toMinor(limit.above.amount, limit.above.currency)) return [];
  }
  if (!plan) return [verdictOf(limit, { line: null, item: null }, { kept: false, subject: 'plan was approved' })];
  return linesUnder(limit, all).map((line) =>
    verdictOf(limit, at(line), { kept: line.estimate != null, subject: `estimate of plan ${plan.number} is named` }),
  );
}

/** Descriptions no longer than the ledger takes; counted in characters as people see them (code points). */
export function judgeText(limit: LimitOf<'text'>, all: readonly LimitedPart[]): Judged[] {
  return linesUnder(limit, all).flatMap((line) => {
    const length = [...(line.description ?? '')].length;
    if (length === 0) return [];
    return [
      verdictOf(limit, at(line), {
        kept: length <= limit.longest,
        subject: 'description',
        actual: String(length),
        allowed: String(limit.longest),
        unit: 'characters',
      }),
    ];
  });
}
