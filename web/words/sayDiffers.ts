import type { MakerView } from '../api/claims.ts';
import { groupDigits } from '../../core/numbers/groupDigits.ts';

export type Differing = Extract<MakerView, { audience: 'claimant' }>['differs'][number];

/** What is not as its evidence says, for who made the claim; for an approver the comparisons stand at the line. */
export const differsOf = (view: MakerView): readonly Differing[] => (view.audience === 'claimant' ? view.differs : []);

const SIDES = { receipt: ['the line', 'the receipt'], card: ['the line', 'the bank'] } as const;

/** One sentence a comparison: "amount: the line says 60.00, the receipt 84.00." */
export function sayDiffers({ kind, comparisons }: Pick<Differing, 'kind' | 'comparisons'>): string[] {
  return comparisons.map(({ fact, claimed, evidence, difference }) => {
    if (kind === 'duplicate')
      return `It looks like ${fact.replace(/, [^,]*$/, '')} of yours: ${difference ?? 'alike'}.`;
    const [here, there] = SIDES[kind as 'receipt' | 'card'];
    return `${fact}: ${here} says ${said(claimed)}, ${there} ${said(evidence)}.`;
  });
}

const said = (value: string | null): string =>
  value === null ? 'nothing' : /^[\d.]+$/.test(value) ? groupDigits(value) : value;
