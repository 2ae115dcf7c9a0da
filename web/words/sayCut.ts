import type { Item, Line } from '../../core/documents/case.schema.ts';
import { fromMinor, toMinor } from '../../core/numbers/amount.ts';
import { groupDigits } from './groupDigits.ts';

/** What finance does not let stand of a line or its items, each with its reason; [] where all is allowed. */
export function sayCuts(line: Line): { says: string; reason: string }[] {
  const parts: readonly (Line | Item)[] = line.items?.length ? line.items : [line];
  return parts.flatMap((part) => {
    if (!part.cut) return [];
    const allowed = toMinor(part.amount, line.currency) - toMinor(part.cut.amount, line.currency);
    const what = line.items?.length ? `${part.description ?? part.id}: ` : '';
    const figure = (amount: string) => groupDigits(amount);
    const says =
      allowed === 0n
        ? `${what}declined`
        : `${what}${figure(fromMinor(allowed, line.currency))} of ${figure(part.amount)} ${line.currency} allowed`;
    return [{ says: says[0]!.toUpperCase() + says.slice(1), reason: part.cut.reason }];
  });
}
