import type { Field } from '../../core/evidence/reading/reading.types.ts';
import type { GatheredReceipt } from '../api/gather.ts';

/** What a receipt says in a field: as its owner confirmed it, else as it was read; empty where nothing was found. */
export const receiptSays = ({ confirmed, reading }: GatheredReceipt, field: Field): string =>
  confirmed ? (confirmed[field] ?? '') : (reading?.[field]?.value ?? '');
