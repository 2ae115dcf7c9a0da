import type { AdvanceAnswer, AdvanceRowAnswer } from '../api/advances.ts';
import { groupDigits } from '../../core/numbers/groupDigits.ts';
import { sayMoment } from './sayEvent.ts';

/** What an advance is for, in words. */
export const ADVANCE_KINDS_SAID: Record<AdvanceRowAnswer['kind'], string> = {
  trip: 'for a trip',
  purchases: 'for purchases',
  float: 'cash kept at hand',
};

/** What matters next about an advance in a list. */
export function sayNext({ state, dueBy, overdue, open, currency }: AdvanceRowAnswer): string {
  if (state === 'paid out' && open)
    return `${groupDigits(open.amount)} ${currency} to account for ${overdue ? `since ${dueBy}, overdue` : `by ${dueBy}`}`;
  return state === 'to pay out' ? `granted, to be accounted for by ${dueBy}` : NEXT[state];
}
const NEXT: Record<AdvanceRowAnswer['state'], string> = {
  draft: 'not asked for yet',
  requested: 'being decided about',
  'in review': 'approved, waits for a reviewer',
  'to pay out': 'granted',
  'paid out': 'paid out',
  settled: 'accounted for and settled',
  declined: 'declined',
  withdrawn: 'withdrawn',
};

/** With whom an advance lies and since when, and by when it is to be accounted for. */
export function whereAdvanceIs({ advance }: AdvanceAnswer): string {
  const last = advance.tide.at(-1);
  const since = last ? ` since ${sayMoment(last.from)}` : '';
  return `${WHERE[advance.state](advance)}${since}.${sayDue(advance)}`;
}

function sayDue({ state, dueBy, overdue }: Advance): string {
  if (dueBy === null || (state !== 'to pay out' && state !== 'paid out')) return '';
  return overdue ? ` It was to be accounted for by ${dueBy}.` : ` It is to be accounted for by ${dueBy}.`;
}
type Advance = AdvanceAnswer['advance'];
const WHERE: Record<Advance['state'], (advance: Advance) => string> = {
  draft: () => 'It is in preparation',
  requested: (a) => `It is with ${a.deciders.join(' and ') || 'an approver'}`,
  'in review': () => 'It is approved and waits for a reviewer',
  'to pay out': () => 'It is granted and waits to be paid out',
  'paid out': () => 'It is paid out',
  settled: () => 'It is accounted for, and nothing of it is open',
  declined: () => 'It was declined',
  withdrawn: () => 'It was withdrawn',
};
