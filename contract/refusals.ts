/**
 * Every way the server says no: its HTTP status and its sentence, in one map. `{name}` is filled in from the numbers that
 * go with the code; `path` among them names the field that is meant.
 */
export const REFUSALS = {
  invalid: [400, '{problem}'],
  'not-json': [400, 'The request is not JSON.'],
  'not-readable': [415, 'The request is written in a way that is not read here. Send JSON in UTF-8.'],
  'not-understood': [400, 'The request cannot be understood. Load the page again.'],
  'not-a-form': [400, 'The form with the file broke off or is none. Send the file again.'],
  'not-storable': [400, 'A value is larger or of another kind than can be kept. Nothing was changed.'],
  'no-file': [400, 'Send one file in the field "file".'],
  'not-signed-in': [401, 'Your session has ended. Sign in again; what you typed is still here.'],
  'wrong-password': [401, 'E-mail and password do not belong together. Try again.'],
  'wrong-token': [401, 'This token is not valid, or was revoked. Make another one.'],
  'other-site': [403, 'This request came from another site and was refused.'],
  'not-allowed': [403, 'Your roles do not allow this. It needs: {needs}.'],
  'own-record': [403, 'This {what} is your own, or made by you. Somebody else has to decide about it.'],
  'kept-apart': [403, 'You alone cleared this {what}, so somebody else has to post it.'],
  'not-yours': [403, 'Only the {needs} of this {what} can do that.'],
  'not-found': [404, 'There is no {what} here, or it is not yours to see.'],
  stale: [409, 'The {what} was changed while you worked. What changed is listed; what you typed is kept.'],
  'wrong-state': [409, 'The {what} {name} is {state}, so this cannot be done. It has to be {needs}.'],
  'comparison-changed': [409, 'Line {line} {kind} is no longer what you looked at. Look at it again.'],
  'figures-changed': [
    409,
    'The figures changed since you looked: a rate or the book is newer. Look at the journal again.',
  ],
  'key-reused': [409, 'This request repeats an earlier one with other content. Load the page again.'],
  'not-live': [409, 'Journal {number} is not a live posting, so it cannot be reversed.'],
  'row-overlaps': [409, 'A row for {key} holds on some of these days already. End that one first.'],
  'row-used': [409, 'The row for {key} was used, so it can be ended and followed, not changed.'],
  'row-refers': [422, 'The row for {key} names something that is not there ({to}). Add that first.'],
  'row-impossible': [422, 'The row for {key} cannot be: it ends before it begins, or a value is out of bounds.'],
  'has-stops': [422, 'The claim cannot go on: {first}'],
  'ties-open': [
    422,
    '{count} comparisons are not tied. Waive what is off with a reason, tick what cannot be compared: {cells}.',
  ],
  'control-account': [
    422,
    'Line {line} is charged to account {account}, which only payments, cards and advances move. Choose a cost account.',
  ],
  'no-lines': [422, 'Claim {claim} has no lines yet. Add what was spent before you submit it.'],
  'no-approver': [
    422,
    'Nobody can approve claim {claim}: its claimant has no usual approver, or it is the claimant themselves. Ask an administrator.',
  ],
  'no-book': [422, 'The terms of entity {entity} were never set. Ask an administrator.'],
  'nothing-to-post': [422, 'There is nothing to post.'],
  'no-account': [422, 'Entity {entity} has no {account} account. Ask an administrator to set one.'],
  'no-rate': [422, 'There is no rate from {from} to {to} for {date}. Add one, or choose a day that has one.'],
  'no-part': [422, 'A part has to be more than nothing and less than the {open} {currency} that is open.'],
  'period-closed': [422, 'The period of {date} is not open. Open: {open}.'],
  'future-date': [422, '{date} has not come yet where the entity is. Choose {today} or an earlier day.'],
  'before-original': [422, '{date} is before {original}, the day of what is reversed. Choose that day or a later one.'],
  'not-a-receipt': [422, '{name} is not accepted: {reason}.'],
  'file-refused': [422, '{says}'],
  'receipt-in-use': [409, 'The receipt belongs to claim {claim}, which is {state}. It stays as it is.'],
  'evidence-kept': [
    409,
    'This paper is part of a claim under review, so what was read of it stays as it is. Type what it shows.',
  ],
  'receipt-unconfirmed': [
    422,
    'Look at the receipt {name} and confirm what it shows: not everything on it was read with certainty.',
  ],
  'charge-in-use': [409, 'The charge of {merchant} is {state}. Undo that first.'],
  'bank-facts': [422, 'Amount and date of a charge are the bank’s and cannot be changed.'],
  decimals: [400, '"{amount}" does not have the decimals of {currency}.'],
  'items-left': [422, '{left} {currency} of line {line} is left. Change the items until nothing is.'],
  'purpose-missing': [422, 'Say what the claim is for.'],
  'category-missing': [422, 'Choose a category for {what}.'],
  'nothing-chosen': [422, 'Choose a receipt or a charge for each line.'],
  'other-entity': [422, 'The card {card} belongs to another entity than claim {claim}.'],
  'private-needs-card': [422, 'Only what was paid by company card can be private; leave out what you paid yourself.'],
  'pair-taken': [422, 'Line {line} of {claim} has a charge already. Undo that pair first.'],
  'pair-differs': [422, '{who} {said}; of the charge {left} {currency} is left.'],
  'month-closed': [
    409,
    'Card {card} is closed for {month}, and every charge of it stays accounted for. Open the month again first.',
  ],
  'month-open': [422, 'The month cannot be closed: {problem}'],
  'no-bank': [422, 'No bank is connected here.'],
  'csv-refused': [422, 'Nothing of the table was taken. {problem}'],
  'too-large': [413, 'The file is larger than {limit}. Take a smaller picture, or split the document.'],
  'too-many': [429, 'Too many attempts. Wait {seconds} seconds and try again.'],
  'changed-meanwhile': [
    409,
    'Something else was changed at the same moment, so nothing was done. Load the page again and try once more.',
  ],
  away: [503, 'The database is away for a moment. Nothing was changed; try again in {seconds} seconds.'],
  'no-space': [503, 'The server has no room left. Nothing was changed; tell whoever runs it.'],
  busy: [503, 'There is more to do than can be done at once. Try again in {seconds} seconds; nothing is lost.'],
  broken: [
    500,
    'Something failed on the server. Nothing was changed. Try again, and if it stays, pass on the reference.',
  ],
} as const satisfies Record<string, readonly [number, string]>;

export type RefusalCode = keyof typeof REFUSALS;

/** The sentence of a refusal with its numbers filled in. */
export const sayRefusal = (code: RefusalCode, numbers: Readonly<Record<string, unknown>>): string =>
  REFUSALS[code][1].replace(/\{(\w+)\}/g, (_, name: string) => String(numbers[name] ?? ''));
