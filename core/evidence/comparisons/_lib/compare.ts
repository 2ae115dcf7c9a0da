import { daysBetween } from '../../../numbers/isoDate.ts';
import { merchantLikeness } from '../../merchants/merchantWords.ts';
import type { Comparison } from '../tie.types.ts';

/** Dates agree when they are at most so many days apart. */
export function compareDate(claimed: string, shown: string | null, tolerated = 0): Comparison {
  const days = shown === null ? 0 : daysBetween(shown, claimed);
  const difference = days === 0 ? null : `${signed(String(days))} ${Math.abs(days) === 1 ? 'day' : 'days'}`;
  return {
    fact: 'date',
    claimed,
    evidence: shown,
    difference,
    tolerance: `${tolerated} days`,
    state: shown === null ? 'open' : Math.abs(days) <= tolerated ? 'tied' : 'off',
  };
}

export function same(fact: string, claimed: string, shown: string | null): Comparison {
  const state = shown === null ? 'open' : shown === claimed ? 'tied' : 'off';
  return {
    fact,
    claimed,
    evidence: shown,
    difference: state === 'off' ? `${claimed} ≠ ${shown}` : null,
    tolerance: null,
    state,
  };
}

export function present(fact: string, shown: string | null): Comparison {
  return {
    fact,
    claimed: 'needed',
    evidence: shown,
    difference: null,
    tolerance: null,
    state: shown ? 'tied' : 'open',
  };
}

/** Merchants agree when all words of the shorter name stand in the longer one; case, accents and legal forms aside. `cut`: a bank may have cut words off. */
export function compareMerchant(claimed: string | null, shown: string | null, cut = false): Comparison {
  const row = { fact: 'merchant', claimed, evidence: shown, difference: null, tolerance: 'same words' };
  if (!claimed || !shown) return { ...row, state: 'open' };
  return merchantLikeness(claimed, shown, cut) === 1
    ? { ...row, state: 'tied' }
    : { ...row, difference: 'other merchant', state: 'off' };
}

export const signed = (figure: string): string => (figure.startsWith('-') ? `−${figure.slice(1)}` : `+${figure}`);
