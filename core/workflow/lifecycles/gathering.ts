import { act, defineLifecycle, way } from './_lib/define.ts';

export const RECEIPT_STATES = ['added', 'confirmed', 'removed', 'replaced'] as const;
export type ReceiptState = (typeof RECEIPT_STATES)[number];
const receipt = (
  event: string,
  from: readonly ReceiptState[],
  to: ReceiptState | null,
  undoneBy: string | null = null,
) => act<ReceiptState>({ event, undoneBy, ways: [way(from, to, { as: ['owner'] })] });

/**
 * A receipt: added, confirmed as what it shows, taken away and brought back; or put together with others, or divided,
 * and then replaced by what was made of it. Its file is never changed.
 */
export const receiptLifecycle = defineLifecycle('receipt', RECEIPT_STATES, {
  add: act<ReceiptState>({ event: 'added', ways: [way(null, 'added', { roles: ['claimant', 'preparer'] })] }),
  confirm: receipt('confirmed', ['added', 'confirmed'], 'confirmed'),
  readAgain: receipt('read again', ['added', 'confirmed'], null),
  turn: receipt('turned', ['added', 'confirmed'], null, 'turn'),
  replace: receipt('replaced', ['added', 'confirmed'], 'replaced', 'bringBack'),
  remove: receipt('removed', ['added', 'confirmed'], 'removed', 'bringBack'),
  bringBack: receipt('brought back', ['removed', 'replaced'], 'added', 'remove'),
});

export const CHARGE_STATES = ['unmarked', 'claimed already'] as const;
export type ChargeState = (typeof CHARGE_STATES)[number];

/** What the holder says of a charge that stands on no line. The bank's figures are nobody's to change. */
export const chargeLifecycle = defineLifecycle('charge', CHARGE_STATES, {
  mark: act<ChargeState>({
    event: 'marked as claimed already',
    ways: [way(['unmarked', 'claimed already'], 'claimed already', { as: ['holder'] })],
    needs: ['reason'],
    undoneBy: 'unmark',
  }),
  unmark: act({
    event: 'mark taken back',
    ways: [way(['claimed already'], 'unmarked', { as: ['holder'] })],
    undoneBy: 'mark',
  }),
});

export const CARD_MONTH_STATES = ['open', 'closed'] as const;
export type CardMonthState = (typeof CARD_MONTH_STATES)[number];
const KEEPERS = ['reviewer', 'controller'] as const;
const keep = (event: string, from: CardMonthState, to: CardMonthState, undoneBy: string) =>
  act<CardMonthState>({
    event,
    undoneBy,
    ways: [way([from], to, { roles: KEEPERS })],
    never: ['holder'],
  });

/** A card's month: the holder accounts for its charges; finance, but never the holder, closes it when everything agrees. */
export const cardMonthLifecycle = defineLifecycle('card month', CARD_MONTH_STATES, {
  close: keep('closed', 'open', 'closed', 'reopen'),
  reopen: keep('reopened', 'closed', 'open', 'close'),
});

export const STATEMENT_STATES = ['imported', 'refused', 'taken back'] as const;
export type StatementState = (typeof STATEMENT_STATES)[number];

const BRINGERS = ['reviewer', 'controller', 'administrator'] as const;

/**
 * A statement of a bank, by hand or from the feed: taken whole, or refused with the reason; taken back while nothing of
 * it is used. Nobody brings their own card's.
 */
export const statementLifecycle = defineLifecycle('statement', STATEMENT_STATES, {
  import: act<StatementState>({
    event: 'imported',
    ways: [way(null, 'imported', { roles: BRINGERS })],
    never: ['holder'],
  }),
  refuse: act<StatementState>({
    event: 'refused',
    ways: [way(null, 'refused', { roles: BRINGERS })],
  }),
  takeBack: act<StatementState>({
    event: 'import taken back',
    ways: [way(['imported'], 'taken back', { roles: BRINGERS })],
    never: ['holder'],
  }),
});
