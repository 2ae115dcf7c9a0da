import { FIELDS, type Field, type Reading } from '../../core/evidence/reading/reading.types.ts';
import type { PaperPart } from '../../core/evidence/comparisons/paperParts.ts';
import type { SpotMark } from './ReceiptViewer.tsx';

export const FIELD_NAMES: Record<Field, string> = {
  amount: 'Amount',
  currency: 'Currency',
  date: 'Date',
  merchant: 'Merchant',
  taxNumber: 'Tax number',
  cardDigits: 'Card ending',
};

/** What of a paper is looked at: a figure, all of its taxes, or what says that it was paid. */
export type Looked = Field | 'taxes' | 'paid';

/** Where the figures of a reading stand, the one in focus marked. */
export function spotsOf(reading: Reading | null, focus: Looked | null): SpotMark[] {
  if (!reading) return [];
  const facts = FIELDS.flatMap((field) => {
    const spot = reading[field]?.spot;
    return spot ? [{ label: FIELD_NAMES[field], spot, focus: field === focus }] : [];
  });
  const taxes = reading.taxes.flatMap((t, i) =>
    t.spot
      ? [{ label: `Tax ${t.rate === null ? '' : `${t.rate} % `}(${i + 1})`, spot: t.spot, focus: focus === 'taxes' }]
      : [],
  );
  const paid = reading.paid?.spot ? [{ label: 'Paid', spot: reading.paid.spot, focus: focus === 'paid' }] : [];
  return [...facts, ...taxes, ...paid];
}

/** Whose the rows of a receipt are, where one line alone does not have them all. `line` is the one looked at. */
export function partSpots(parts: readonly PaperPart[], line: string, left: string | null): SpotMark[] {
  if (left === null && parts.every((p) => p.line === line || p.line === null)) return [];
  return parts.flatMap(({ item, line: on }, i) => {
    if (!item.spot) return [];
    const whose = on !== null ? `line ${on}` : left === null ? 'a line that is not plain' : 'no line';
    const part = on === line ? ('own' as const) : on === null ? ('none' as const) : ('other' as const);
    return [{ label: `${i + 1}: ${item.text} ${item.amount}, on ${whose}`, spot: item.spot, focus: false, part }];
  });
}
