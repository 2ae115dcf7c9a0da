/**
 * Every way the server says no: its HTTP status and its sentence, in one map. `{name}` is filled in from the numbers.
 */
const REFUSALS = {
  invalid: [400, '{problem}'],
  'not-signed-in': [401, 'Your session has ended. Sign in again; what you typed is still here.'],
  'wrong-password': [401, 'E-mail and password do not belong together. Try again.'],
  'other-site': [403, 'This request came from another site and was refused.'],
  'not-allowed': [403, 'Your roles do not allow this. It needs: {needs}.'],
  'own-claim': [403, 'This is your own claim. Somebody else has to decide about it.'],
  'alone-cleared': [403, 'You alone cleared this claim, so another controller has to post it.'],
  'not-found': [404, 'There is no {what} here, or it is not yours to see.'],
  stale: [409, 'The claim was changed while you worked. What changed is listed; what you typed is kept.'],
  'wrong-state': [409, 'The claim is {state}, so this cannot be done. It has to be {needs}.'],
  'figures-changed': [
    409,
    'The figures changed since you looked: a rate or the book is newer. Look at the journal again.',
  ],
  'key-reused': [409, 'This request repeats an earlier one with other content. Load the page again.'],
  'has-stops': [422, 'The claim cannot go on: {first}'],
  'ties-open': [
    422,
    '{count} comparisons are not tied. Waive what is off with a reason, tick what cannot be compared: {cells}.',
  ],
  'period-closed': [422, 'The period of {date} is not open. Open: {open}.'],
  'not-live': [409, 'Journal {number} is not a live posting, so it cannot be reversed.'],
  'not-a-receipt': [422, '{name} is not accepted: {reason}.'],
  'file-refused': [422, '{says}'],
  'receipt-in-use': [409, 'The receipt belongs to claim {claim}, which is {state}. It stays as it is.'],
  'charge-in-use': [409, 'The charge of {merchant} is {state}. Undo that first.'],
  'not-yours-to-change': [409, 'Claim {claim} is {state}. Only a draft or a returned claim takes lines.'],
  'pair-differs': [422, '{problem}'],
  'month-closed': [
    409,
    'Card {card} is closed for {month}, and every charge of it stays accounted for. Open the month again first.',
  ],
  'month-open': [422, 'The month cannot be closed: {problem}'],
  'too-large': [413, 'The file is larger than {limit}. Take a smaller picture, or split the document.'],
  'too-many': [429, 'Too many attempts. Wait {seconds} seconds and try again.'],
  broken: [
    500,
    'Something failed on the server. Nothing was changed. Try again, and if it stays, pass on the reference.',
  ],
} as const satisfies Record<string, readonly [number, string]>;

export type RefusalCode = keyof typeof REFUSALS;

/** A no with its code and numbers; thrown so that a transaction rolls back, and answered in one place. */
export class Refused extends Error {
  readonly code: RefusalCode;
  readonly numbers: Record<string, unknown>;

  constructor(code: RefusalCode, numbers: Record<string, unknown> = {}) {
    super(code);
    this.code = code;
    this.numbers = numbers;
  }

  get status(): number {
    return REFUSALS[this.code][0];
  }

  get says(): string {
    return REFUSALS[this.code][1].replace(/\{(\w+)\}/g, (_, name: string) => String(this.numbers[name] ?? ''));
  }
}
