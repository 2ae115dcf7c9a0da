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
  right: SideView;
}

export const isPossible = (p: Proposal): boolean => p.right.name !== null && p.left.every((side) => side.name !== null);

/** "C-1031/2" is line 2 of claim C-1031. */
export function refOf(ref: string): { claim: string; line: string } {
  const at = ref.indexOf('/');
  return { claim: ref.slice(0, at), line: ref.slice(at + 1) };
}

export const wishOf = (kind: 'charge' | 'receipt', pair: Pair): PairWish => ({
  lines: pair.left.map(refOf),
  [kind]: pair.right,
});

export function sideOf(data: PairsView, kind: 'line' | 'charge' | 'receipt', id: string): SideView {
  switch (kind) {
    case 'line': {
      const l = data.lines.find((line) => line.ref === id);
      return {
        id,
        name: l ? (l.merchant ?? 'No merchant') : null,
        what: l ? `${l.claim}, line ${l.line}, ${PAID[l.paidBy] ?? l.paidBy}` : '',
        date: l?.date ?? null,
        amount: l?.amount ?? null,
        currency: l?.currency ?? null,
      };
    }
    case 'charge': {
      const c = data.charges.find((charge) => charge.id === id);
      return {
        id,
        name: c?.merchant ?? null,
        what: c ? `card ${c.card}` : '',
        date: c?.purchasedOn ?? null,
        amount: c ? c.left : null,
        currency: c?.currency ?? null,
      };
    }
    case 'receipt': {
      const r = data.receipts.find((receipt) => receipt.id === id);
      return {
        id,
        name: r ? (r.merchant ?? r.name) : null,
        what: r ? `receipt ${r.name}` : '',
        date: r?.date ?? null,
        amount: r?.amount ?? null,
        currency: r?.currency ?? null,
      };
    }
    default:
      return kind satisfies never;
  }
}

const PAID: Record<string, string> = { own: 'own money', card: 'by card', central: 'paid centrally' };
