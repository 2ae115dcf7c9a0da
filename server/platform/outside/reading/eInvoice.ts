import { XMLParser } from 'fast-xml-parser';
import { trimZeros } from '../../../../core/numbers/decimal.ts';
import { minorUnits } from '../../../../core/numbers/minorUnits.ts';
import { isIsoDate } from '../../../../core/numbers/isoDate.ts';
import { fromMinor, readAmount } from '../../../../core/numbers/amount.ts';
import type { Word, Found, Reading, Sureness } from '../../../../core/evidence/reading/reading.types.ts';
import { setText, type SetText } from './drawText.ts';
import type { ReadResult } from './reading.types.ts';

/** The facts of an EN 16931 invoice that a claim needs, as they stand in it. */
export interface InvoiceFacts {
  syntax: 'UBL' | 'CII';
  number: string;
  date: string;
  currency: string;
  seller: string;
  taxNumber: string;
  /** BT-112, the total with tax. */
  total: string;
  /** BT-109, the total without tax. */
  net: string;
  /** BT-110, the total tax. */
  tax: string;
  taxes: { rate: string; base: string; tax: string }[];
  lines: { name: string; amount: string }[];
  /** BT-115, what is still to be paid, and BT-81, how it is or was paid. */
  due: string;
  means: string;
}

type Node = Record<string, unknown>;

const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  removeNSPrefix: true,
  parseTagValue: false,
  parseAttributeValue: false,
  processEntities: false,
  trimValues: true,
});

/** The reason an XML document is not read, or its facts. Documents that declare entities or a type are refused unread. */
export function readInvoice(xml: string): { ok: true; facts: InvoiceFacts } | { ok: false; reason: string } {
  if (/<!DOCTYPE|<!ENTITY/i.test(xml))
    return { ok: false, reason: 'it declares a document type or entities, which are never read' };
  let tree: Node;
  try {
    tree = parser.parse(xml, true) as Node;
  } catch {
    return { ok: false, reason: 'it is XML that cannot be read to its end' };
  }
  const ubl = child(tree, 'Invoice') ?? child(tree, 'CreditNote');
  if (ubl && child(ubl, 'LegalMonetaryTotal')) return { ok: true, facts: factsOfUbl(ubl) };
  const cii = child(tree, 'CrossIndustryInvoice');
  if (cii) return { ok: true, facts: factsOfCii(cii) };
  return { ok: false, reason: 'it is XML, but no EN 16931 invoice (UBL or CII)' };
}

function factsOfUbl(invoice: Node): InvoiceFacts {
  const party = child(child(invoice, 'AccountingSupplierParty'), 'Party');
  const totals = child(invoice, 'LegalMonetaryTotal');
  const currency = text(invoice, 'DocumentCurrencyCode');
  const taxTotal =
    children(invoice, 'TaxTotal').find((t) => child(t, 'TaxSubtotal')) ?? children(invoice, 'TaxTotal')[0];
  const schemes = children(party, 'PartyTaxScheme');
  return {
    syntax: 'UBL',
    number: text(invoice, 'ID'),
    date: text(invoice, 'IssueDate'),
    currency,
    seller: text(child(party, 'PartyName'), 'Name') || text(child(party, 'PartyLegalEntity'), 'RegistrationName'),
    taxNumber: text(schemes.find((s) => text(child(s, 'TaxScheme'), 'ID') === 'VAT') ?? schemes[0], 'CompanyID'),
    total: text(totals, 'TaxInclusiveAmount') || text(totals, 'PayableAmount'),
    net: text(totals, 'TaxExclusiveAmount'),
    tax: text(taxTotal, 'TaxAmount'),
    taxes: children(taxTotal, 'TaxSubtotal').map((t) => ({
      rate: text(child(t, 'TaxCategory'), 'Percent'),
      base: text(t, 'TaxableAmount'),
      tax: text(t, 'TaxAmount'),
    })),
    lines: [...children(invoice, 'InvoiceLine'), ...children(invoice, 'CreditNoteLine')].map((l) => ({
      name: text(child(l, 'Item'), 'Name'),
      amount: text(l, 'LineExtensionAmount'),
    })),
    due: text(totals, 'PayableAmount'),
    means: text(child(invoice, 'PaymentMeans'), 'PaymentMeansCode'),
  };
}

function factsOfCii(invoice: Node): InvoiceFacts {
  const trade = child(invoice, 'SupplyChainTradeTransaction');
  const settlement = child(trade, 'ApplicableHeaderTradeSettlement');
  const seller = child(child(trade, 'ApplicableHeaderTradeAgreement'), 'SellerTradeParty');
  const sums = child(settlement, 'SpecifiedTradeSettlementHeaderMonetarySummation');
  const document = child(invoice, 'ExchangedDocument');
  const day = text(child(document, 'IssueDateTime'), 'DateTimeString');
  const registrations = children(seller, 'SpecifiedTaxRegistration').map((r) => child(r, 'ID') ?? r);
  const vat = registrations.find((r) => r['@schemeID'] === 'VA') ?? registrations[0];
  return {
    syntax: 'CII',
    number: text(document, 'ID'),
    date: /^\d{8}$/.test(day) ? `${day.slice(0, 4)}-${day.slice(4, 6)}-${day.slice(6)}` : day,
    currency: text(settlement, 'InvoiceCurrencyCode'),
    seller: text(seller, 'Name'),
    taxNumber: valueOf(vat),
    total: text(sums, 'GrandTotalAmount') || text(sums, 'DuePayableAmount'),
    net: text(sums, 'TaxBasisTotalAmount'),
    tax: text(sums, 'TaxTotalAmount'),
    taxes: children(settlement, 'ApplicableTradeTax').map((t) => ({
      rate: text(t, 'RateApplicablePercent'),
      base: text(t, 'BasisAmount'),
      tax: text(t, 'CalculatedAmount'),
    })),
    lines: children(trade, 'IncludedSupplyChainTradeLineItem').map((l) => ({
      name: text(child(l, 'SpecifiedTradeProduct'), 'Name'),
      amount: text(
        child(child(l, 'SpecifiedLineTradeSettlement'), 'SpecifiedTradeSettlementLineMonetarySummation'),
        'LineTotalAmount',
      ),
    })),
    due: text(sums, 'DuePayableAmount'),
    means: text(child(settlement, 'SpecifiedTradeSettlementPaymentMeans'), 'TypeCode'),
  };
}

/** The invoice as text on a page, which is how it is shown. */
export function setInvoice(facts: InvoiceFacts): SetText {
  const row = (label: string, value: string) => `${label.padEnd(24)}${value}`;
  return setText(
    [
      facts.seller,
      row('Tax number', facts.taxNumber),
      row('Invoice', facts.number),
      row('Date', facts.date),
      row('Currency', facts.currency),
      '',
      ...facts.lines.map((l) => `${l.name.slice(0, 60).padEnd(62)}${l.amount.padStart(14)}`),
      '',
      row('Net', facts.net.padStart(14)),
      ...facts.taxes.map((t) => row(`Tax ${t.rate} % of ${t.base}`, t.tax.padStart(14))),
      row('Total with tax', facts.total.padStart(14)),
    ].join('\n'),
  );
}

/** The reading of an e-invoice: nothing is guessed, so everything is sure, unless its totals contradict each other. */
export function readingOfInvoice(facts: InvoiceFacts, page: SetText | null): ReadResult {
  const remarks = contradictions(facts);
  const sure: Sureness = remarks.length ? 'doubtful' : 'sure';
  const found = (value: string | null, label: string, how: Sureness = 'sure'): Found | null =>
    value
      ? { value, sure: how, spot: page && spotOf(page, label, value), because: `the ${facts.syntax} invoice states it` }
      : null;
  const known = minorUnits(facts.currency) !== null;
  const money = (value: string) => (known ? normal(value, facts.currency) : null);
  const reading: Reading = {
    amount: found(money(facts.total), facts.total, sure),
    currency: found(known ? facts.currency : null, facts.currency),
    date: found(isIsoDate(facts.date) ? facts.date : null, facts.date),
    merchant: found(facts.seller.slice(0, 120) || null, facts.seller.split(' ')[0]!),
    taxNumber: found(facts.taxNumber || null, facts.taxNumber),
    cardDigits: null,
    taxes: facts.taxes
      .filter((t) => Number(t.rate) > 0)
      .map((t) => ({
        rate: t.rate.replace(/\.0+$/, ''),
        base: money(t.base),
        tax: money(t.tax),
        sure,
        spot: page && spotOf(page, t.tax, t.tax),
      })),
    bought: facts.lines
      .filter((l) => l.name)
      .map((l) => ({ text: l.name, amount: money(l.amount) ?? l.amount, spot: page && spotOf(page, l.amount) })),
    paid: found(paidWords(facts), facts.due),
  };
  return { method: 'e-invoice', reading, remarks, turns: [] };
}

/** Codes of UNTDID 4461 (from memory) for money that has changed hands with the sale. */
const PAID_AT_ONCE: Record<string, string> = {
  10: 'paid in cash',
  48: 'paid by bank card',
  54: 'paid by credit card',
  55: 'paid by debit card',
};

/** What an e-invoice says of its payment: nothing left to pay, or means that pay at once. */
function paidWords({ due, means, total, currency }: InvoiceFacts): string | null {
  const [left, whole] = [normal(due, currency), normal(total, currency)].map((a) => a && readAmount(a, currency));
  if (left === 0n && whole) return `nothing due of ${total}`;
  return PAID_AT_ONCE[means] ?? null;
}

/** EN 16931 BR-CO-14 and BR-CO-15 (from memory): the tax total is the sum of the taxes; the total is net and tax. */
function contradictions(facts: InvoiceFacts): string[] {
  const minor = (value: string) => {
    const plain = normal(value, facts.currency);
    return plain === null ? null : readAmount(plain, facts.currency);
  };
  if (minorUnits(facts.currency) === null) return [`Its currency "${facts.currency}" is none of ISO 4217.`];
  const [net, tax, total] = [facts.net, facts.tax, facts.total].map(minor);
  const parts = facts.taxes.map((t) => minor(t.tax));
  const remarks: string[] = [];
  if (net != null && tax != null && total != null && net + tax !== total)
    remarks.push(`Net ${facts.net} and tax ${facts.tax} do not add up to its total ${facts.total}.`);
  if (tax != null && parts.length > 0 && parts.every((p) => p !== null) && parts.reduce((a, p) => a + p!, 0n) !== tax)
    remarks.push(`Its taxes by rate do not add up to its tax total ${facts.tax}.`);
  if (total == null) remarks.push(`Its total "${facts.total}" is not an amount of ${facts.currency}.`);
  return remarks;
}

/** A decimal of an e-invoice with exactly the currency's decimals, or null when it has more or is no number. */
function normal(value: string, currency: string): string | null {
  const decimals = minorUnits(currency);
  const match = /^(-?\d{1,14})(?:\.(\d*))?$/.exec(trimZeros(value));
  if (decimals === null || !match || (match[2] ?? '').length > decimals) return null;
  return fromMinor(BigInt(`${match[1]}${(match[2] ?? '').padEnd(decimals, '0')}`), currency);
}

function spotOf({ words }: SetText, ...texts: string[]): { page: number; box: Word['box'] } | null {
  const word = words.findLast((w) => texts.includes(w.text));
  return word ? { page: word.page, box: word.box } : null;
}

function children(node: Node | undefined, name: string): Node[] {
  const value = node?.[name];
  const list = Array.isArray(value) ? value : value === undefined ? [] : [value];
  return list.map((v) => (typeof v === 'object' && v !== null ? (v as Node) : { '#text': v }));
}
const child = (node: Node | undefined, name: string): Node | undefined => children(node, name)[0];
const text = (node: Node | undefined, name: string): string => valueOf(child(node, name));
const ENTITIES: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };
/** The five entities XML itself defines are the only ones written out. */
const valueOf = (node: Node | undefined): string =>
  String(node?.['#text'] ?? '').replace(/&(amp|lt|gt|quot|apos);/g, (_, name: string) => ENTITIES[name]!);
