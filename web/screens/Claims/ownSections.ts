import type { OwnClaimRow } from '../../../contract/claims.ts';
import { ENDED, IN_PREPARATION, type ClaimState } from '../../../core/workflow/lifecycles/claim.ts';

/** What a claim's place in a list of one's own is made of. */
export interface OwnClaim {
  number: string;
  state: ClaimState;
  asked: boolean;
  tide: readonly { from: string }[];
}
export interface Section<Row> {
  title: string;
  rows: Row[];
}

/** The money never came, so its claimant looks at where it was sent. */
const REJECTED: ClaimState = 'payment rejected';
const OVER: readonly ClaimState[] = ['paid', ...ENDED];
const isToDo = ({ state, asked }: OwnClaim): boolean => asked || IN_PREPARATION.includes(state) || state === REJECTED;

/** One's own claims: first those that ask something of oneself, then those that are under way, then the others; each by when it last moved, the latest first. */
export function ownSections<Row extends OwnClaim>(claims: readonly Row[]): Section<Row>[] {
  const latest = claims.toSorted((a, b) => movedAt(b).localeCompare(movedAt(a)) || numberOf(b) - numberOf(a));
  const over = (row: Row) => !isToDo(row) && OVER.includes(row.state);
  return [
    { title: 'To do', rows: latest.filter(isToDo) },
    { title: 'Under way', rows: latest.filter((row) => !isToDo(row) && !over(row)) },
    { title: 'Over', rows: latest.filter(over) },
  ].filter(({ rows }) => rows.length > 0);
}

const movedAt = ({ tide }: OwnClaim): string => tide.at(-1)?.from ?? '';
const numberOf = ({ number }: OwnClaim): number => Number(number.replace(/\D/g, ''));

/** What a claim asks of who makes it, in a word; null where it asks nothing. */
export function sayToDo({ state, asked }: OwnClaim): string | null {
  if (asked) return 'a question waits';
  if (state === 'draft') return 'not handed in';
  if (state === 'returned') return 'came back';
  return state === REJECTED ? 'the payment came back' : null;
}

/** Whose decision a claim that is under way waits for. */
export const sayWaits = ({ state, waitsFor }: Pick<OwnClaimRow, 'state' | 'waitsFor'>): string | null =>
  state === 'with approver' && waitsFor.length > 0 ? `waits for ${waitsFor.join(' and ')}` : null;

/** The years in which any of these was handed in, the latest first. */
export const yearsOf = (claims: readonly Pick<OwnClaimRow, 'submittedOn'>[]): string[] =>
  [...new Set(claims.flatMap(({ submittedOn }) => (submittedOn ? [submittedOn.slice(0, 4)] : [])))].sort().reverse();
