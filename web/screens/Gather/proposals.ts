import type { Pair } from '../../../core/evidence/matching/matching.types.ts';
import type { PairsView, PairWish } from '../../api/gather.ts';

/** One side of a pair as it is shown. */
export interface SideView {
  id: string;
  /** Null when it has gone since the pair was proposed. */
  name: string | null;
  what: string;
  date: string | null;
  amount: string | null;
  currency: string | null;
}
export interface Proposal {
  key: string;
  kind: 'charge' | 'receipt';
  pair: Pair;
  wish: PairWish;
  left: SideView[];
  right: SideView[];
}

export const isPossible = (p: Proposal): boolean => [...p.left, ...p.right].every((side) => side.name !== null);

/** "C-1031/2" is line 2 of claim C-1031. */
export function refOf(ref: string): { claim: string; line: string } {
  const at = ref.indexOf('/');
  return { claim: ref.slice(0, at), line: ref.slice(at + 1) };
}

/** What is asked for when a pair is accepted. Where something differs, what the bank took goes for a charge. */
export function wishOf(kind: 'charge' | 'receipt', { left, right, differs }: Pair): PairWish {
  const lines = left.map(refOf);
  if (right.length > 1) return { lines, charges: right };
  return { lines, [kind]: right[0], ...(kind === 'charge' && differs !== null ? { takeAmount: true } : {}) };
}

export function sideOf(data: PairsView, kind: 'line' | 'charge' | 'receipt', id: string): SideView {
  switch (kind) {
    case 'line':
      return lineSide(data, id);
    case 'charge':
      return chargeSide(data, id);
    case 'receipt':
      return receiptSide(data, id);
    default:
      return kind satisfies never;
  }
}

const UNKNOWN = { name: null, what: '', date: null, amount: null, currency: null };

function lineSide({ lines }: PairsView, id: string): SideView {
  const l = lines.find((line) => line.ref === id);
  if (!l) return { id, ...UNKNOWN };
  const what = `${l.claim}, line ${l.line}, ${PAID[l.paidBy] ?? l.paidBy}`;
  return { id, name: l.merchant ?? 'No merchant', what, date: l.date, amount: l.amount, currency: l.currency };
}

function chargeSide({ charges }: PairsView, id: string): SideView {
  const c = charges.find((charge) => charge.id === id);
  if (!c) return { id, ...UNKNOWN };
  const what = `card ${c.card}`;
  return { id, name: c.merchant, what, date: c.purchasedOn, amount: c.left, currency: c.currency };
}

function receiptSide({ receipts }: PairsView, id: string): SideView {
  const r = receipts.find((receipt) => receipt.id === id);
  if (!r) return { id, ...UNKNOWN };
  const { date, amount, currency } = r;
  return { id, name: r.merchant ?? r.name, what: `receipt ${r.name}`, date, amount, currency };
}

const PAID: Record<string, string> = { own: 'own money', card: 'by card', central: 'paid centrally' };
