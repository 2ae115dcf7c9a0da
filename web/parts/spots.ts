import { FIELDS, type Field, type Reading } from '../../core/evidence/reading/reading.types.ts';
import type { SpotMark } from './ReceiptViewer.tsx';

export const FIELD_NAMES: Record<Field, string> = {
  amount: 'Amount',
  currency: 'Currency',
  date: 'Date',
  merchant: 'Merchant',
  taxNumber: 'Tax number',
  cardDigits: 'Card ending',
};

/** Where the figures of a reading stand, the one in focus marked; `taxes` are all of its taxes. */
export function spotsOf(reading: Reading | null, focus: Field | 'taxes' | null): SpotMark[] {
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
  return [...facts, ...taxes];
}
