import type { ClaimState } from '../../core/workflow/lifecycles/claim.ts';
import type { MakerView } from '../api/claims.ts';
import { sayMoment } from './sayEvent.ts';

type Header = MakerView['claim'];

/** With whom a claim lies and since when, for the people who made it. */
export function whereItIs({ claim, tide }: Pick<MakerView, 'claim' | 'tide'>): string {
  const since = tide.at(-1) ? ` since ${sayMoment(tide.at(-1)!.from)}` : '';
  return `${WHERE[claim.state](claim)}${since}.`;
}

const WHERE: Record<ClaimState, (claim: Header) => string> = {
  draft: () => 'It is with you, not submitted yet',
  'with approver': (claim) => `It is with ${claim.deciders.join(' and ') || 'an approver'}`,
  'in review': (claim) =>
    claim.holdUntil
      ? `Finance holds it until ${claim.holdUntil}${claim.holdReason ? `: ${claim.holdReason}` : ''}`
      : 'It is with finance, in review',
  cleared: () => 'It is cleared and waits to be posted',
  posted: () => 'It is posted and waits to be paid',
  'part paid': () => 'It is paid in part',
  paid: () => 'It is paid',
  'payment rejected': () => 'The bank refused the payment; finance pays it again',
  returned: () => 'It is with you again',
  declined: () => 'It was declined',
  withdrawn: () => 'It was withdrawn',
  reversed: () => 'Its posting was reversed; it is with finance',
};

/** The words of the last decision that needs the claimant's attention; null when none does. */
export function reasonOf({ claim, history }: Pick<MakerView, 'claim' | 'history'>): string | null {
  if (claim.state !== 'returned' && claim.state !== 'declined') return null;
  const last = history.findLast((e) => e.kind === claim.state);
  return typeof last?.words?.reason === 'string' ? last.words.reason : null;
}

/** What finance changed of a line, in a few words; the original stays on record. */
export function sayChange({ field, from, to }: MakerView['changes'][number]): string {
  const name = (value: unknown) => (typeof value === 'string' ? value : 'none');
  const paid = (value: unknown) => (value === 'central' ? 'centrally' : 'by you');
  const rate = (value: unknown) => (value as { value?: string } | null)?.value ?? 'the published one';
  if (field === 'paidBy') return `who paid: from ${paid(from)} to ${paid(to)}`;
  if (field === 'rate') return `rate from ${rate(from)} to ${rate(to)}`;
  return field === 'category' || field === 'country' ? `${field} from ${name(from)} to ${name(to)}` : field;
}
