/** Marks in a column of their own that say that an amount was spent, or came back (common practice; from memory). */
const SPENT =
  /^(?:d|dr|db|dbit|debit|debet|débit|débito|s|soll|belastung|af|ut|ud|\+?spent|purchase|sale|kauf|kjøp|köp|køb|achat|compra|acquisto|aankoop|vásárlás|zakup|nákup|osto|利用|支払|出金)$/i;
const BACK =
  /^(?:c|cr|crdt|k|kredit|a|credit|crédit|crédito|h|haben|gutschrift|bij|inn|ind|refund|return|erstattung|rückerstattung|retur|återköp|refusjon|remboursement|devolución|reembolso|devolução|rimborso|terugbetaling|visszatérítés|zwrot|vratka|palautus|hyvitys|返品|返金|入金|取消)$/i;

const plain = (mark: string): string => mark.replace(/[.:]/g, '').trim();
export const isSpent = (mark: string): boolean => SPENT.test(plain(mark));
export const isBack = (mark: string): boolean => BACK.test(plain(mark));
