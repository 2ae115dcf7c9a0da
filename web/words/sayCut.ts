import type { Item, Line } from '../../core/documents/case.schema.ts';
import { fromMinor, toMinor } from '../../core/numbers/amount.ts';
import { groupDigits } from '../../core/numbers/groupDigits.ts';

/** What finance does not let stand of a line or its items, each with its reason; [] where all is allowed. */
export function sayCuts(line: Line): { says: string; reason: string }[] {
  const parts: readonly (Line | Item)[] = line.items?.length ? line.items : [line];
  return parts.flatMap((part) => {
    if (!part.cut) return [];
    const allowed = toMinor(part.amount, line.currency) - toMinor(part.cut.amount, line.currency);
    const what = line.items?.length ? `${part.description ?? part.id}: ` : '';
    const figure = (amount: string) => groupDigits(amount);
    const says = `${what}${figure(fromMinor(allowed, line.currency))} of ${figure(part.amount)} ${line.currency} allowed`;
    return [{ says: says[0]!.toUpperCase() + says.slice(1), reason: part.cut.reason }];
  });
}

/** That a line was declined, by whom and why, instead of its cuts; null where it was not. A cut of all of it is no decline. */
export function sayDeclined(
  declined: readonly { line: string; by: string; reason: string }[],
  { id }: Pick<Line, 'id'>,
): { says: string; reason: string }[] | null {
  const of = declined.find((d) => d.line === id);
  return of ? [{ says: `Declined by ${of.by}`, reason: of.reason }] : null;
}

/** What of a line counts after cuts, as a decimal in its currency; null where all of it does. */
export function allowedOf(line: Line): string | null {
  const parts: readonly (Line | Item)[] = line.items?.length ? line.items : [line];
  const cut = parts.reduce((sum, part) => sum + (part.cut ? toMinor(part.cut.amount, line.currency) : 0n), 0n);
  return cut === 0n ? null : fromMinor(toMinor(line.amount, line.currency) - cut, line.currency);
}
