import { mergeCoding, takeAccount } from '../figures/coding/mergeCoding.ts';
import { lineConverter } from '../figures/currency/converter.ts';
import { finding } from '../documents/finding.ts';
import type { Coding, Item, Line } from '../documents/case.schema.ts';
import { fromMinor, toMinor } from '../numbers/amount.ts';
import { decimalToFraction, fractionToDecimal } from '../numbers/decimal.ts';
import { compare, fraction, minus, ONE, over, times } from '../numbers/fraction.ts';
import { computedAmounts } from '../figures/computed/computedAmounts.ts';
import { piecesOf, type Piece } from '../figures/cut/piecesOf.ts';
import { sharesOf } from '../figures/split/sharesOf.ts';
import { taxOfPart } from '../figures/tax/taxOfPart.ts';
import type { Figure, LineFigures, LineScope, OpenCase, PartFigures } from '../figures/figures.types.ts';
import { entityOn } from '../figures/openCase.ts';
import { rateDateOf } from '../figures/rateDateOf.ts';

/**
 * All figures of one line: converted amounts, tax, shares, findings. It depends on the line, the claim's header and the
 * book alone, so a preview recomputes only the lines that changed. Example: 123.00 at 23 % → net 100.00, tax 23.00, one
 * share of cost 100.00.
 */
export function assessLine(open: OpenCase, line: Line): LineFigures {
  const scope = openLine(open, line);
  const claimed = toMinor(line.amount, line.currency);
  const items = line.items ?? [];
  const left = items.length ? claimed - items.reduce((a, item) => a + toMinor(item.amount, line.currency), 0n) : 0n;
  if (left !== 0n)
    scope.findings.push(
      finding('items-off', place(line), { difference: fromMinor(left, line.currency), unit: line.currency }),
    );
  const pieces = piecesOf(line);
  checkComputed(scope);
  noteCuts(scope, pieces);
  const amount = amountOf(line, claimed, pieces);
  return {
    line,
    amount,
    claimAmount: scope.toClaim.convert(amount),
    ledgerAmount: scope.toLedger.convert(amount),
    parts: partsOf(scope, pieces),
    whole: left === 0n,
    findings: scope.findings,
  };
}

/** Of own money what stands after cuts; what the company paid, it paid whole. */
function amountOf({ paidBy }: Line, claimed: bigint, pieces: readonly Piece[]): bigint {
  const cut = pieces.some((p) => p.allowed !== p.claimed);
  return paidBy === 'own' && cut ? pieces.reduce((a, p) => a + p.allowed, 0n) : claimed;
}

function openLine(open: OpenCase, line: Line): LineScope {
  const entity = entityOn(open, line.date);
  const date = rateDateOf(open, line);
  const converter = (to: string) => lineConverter(line, to, open.claimCurrency, open.rates, date);
  const scope: LineScope = {
    open,
    line,
    entity,
    toClaim: converter(open.claimCurrency),
    toLedger: converter(open.ledgerCurrency),
    findings: [],
  };
  checkRates(scope, date);
  return scope;
}

function checkRates(scope: LineScope, date: string): void {
  const { open, line, toClaim, toLedger, findings } = scope;
  const missing = [...(toClaim.factor ? [] : [open.claimCurrency]), ...(toLedger.factor ? [] : [open.ledgerCurrency])];
  const from =
    line.rate?.kind === 'card'
      ? line.rate.settled.currency
      : line.rate?.kind === 'own'
        ? open.claimCurrency
        : line.currency;
  if (missing.length > 0) {
    const to = [...new Set(missing)].join(' and ');
    findings.push(
      finding('rate-missing', place(line), { from, to, date, days: String(open.case.book.maxRateAge ?? 7) }),
    );
  }
  if (line.rate?.kind === 'own') checkOwnRate(scope, line.rate.value, date);
}

function checkOwnRate({ open, entity, line, findings }: LineScope, value: string, date: string): void {
  const reference = open.rates.find(line.currency, open.claimCurrency, date);
  const numbers = { value, from: line.currency, to: open.claimCurrency, date };
  if (!reference) {
    findings.push(finding('rate-unproved', place(line), numbers));
    return;
  }
  const tolerance = decimalToFraction(entity.ownRateTolerance ?? '0');
  const off = times(minus(over(decimalToFraction(value), reference.value), ONE), fraction(100n));
  const size = off.n < 0n ? { n: -off.n, d: off.d } : off;
  if (compare(size, tolerance) <= 0) return;
  const percent = fractionToDecimal(off, 2);
  const shown = {
    percent,
    reference: fractionToDecimal(reference.value, 8),
    tolerance: entity.ownRateTolerance ?? '0',
  };
  findings.push(finding('rate-off', place(line), { ...numbers, ...shown, difference: percent }));
}

/** Where an amount is computed from other facts, that it is (rules 27 to 29); figures go on from the amount given. */
function checkComputed({ open, line, findings }: LineScope): void {
  const { currency, date } = line;
  for (const { item, computed, from } of computedAmounts(open, line)) {
    const where = { line: line.id, item };
    if (computed === null) {
      findings.push(finding('computed-missing', where, { currency, date, from }));
      continue;
    }
    const source = line.items?.find((i) => i.id === item) ?? line;
    const off = toMinor(source.amount, currency) - computed;
    const numbers = { from, currency, computed: fromMinor(computed, currency), difference: fromMinor(off, currency) };
    if (off !== 0n) findings.push(finding('computed-off', where, numbers));
  }
}

/** Each cut with what was claimed and what is allowed. */
function noteCuts({ line, findings }: LineScope, pieces: readonly Piece[]): void {
  const { currency } = line;
  for (const { item, claimed, allowed } of pieces) {
    if (claimed === allowed) continue;
    const numbers = {
      difference: fromMinor(claimed - allowed, currency),
      amount: fromMinor(claimed, currency),
      allowed: fromMinor(allowed, currency),
      currency,
      reason: (item ?? line).cut!.reason,
    };
    findings.push(finding('cut', { line: line.id, item: item?.id ?? null }, numbers));
  }
}

/** Parts convert as differences of running sums, so that they add up to the line and discounts work. */
function partsOf(scope: LineScope, pieces: readonly Piece[]): PartFigures[] {
  let sum = 0n;
  const step = (from: bigint, to: bigint, convert: (minor: bigint) => Figure): Figure => {
    const [before, after] = [convert(from), convert(to)];
    return before === null || after === null ? null : after - before;
  };
  return pieces.map((piece) => {
    const from = sum;
    sum += piece.allowed;
    const claimAmount = step(from, sum, scope.toClaim.convert);
    const ledgerAmount = step(from, sum, scope.toLedger.convert);
    const { claimed, allowed: amount } = piece;
    return figurePart(scope, piece, { claimed, amount, claimAmount, ledgerAmount });
  });
}

type Amounts = Pick<PartFigures, 'claimed' | 'amount' | 'claimAmount' | 'ledgerAmount'>;

/** An item, or the line itself when it has none: both carry category, tax, coding and split. */
function figurePart(scope: LineScope, { item, personal }: Piece, amounts: Amounts): PartFigures {
  const { open, line } = scope;
  const where = { line: line.id, item: item?.id ?? null };
  if (personal) return { item: where.item, personal, ...amounts, tax: [], shares: [] };
  const source: Line | Item = item ?? line;
  const category = open.categories.on(source.category!, line.date)!;
  const tax = taxOfPart(scope, {
    place: where,
    ...amounts,
    entries: source.tax ?? [],
    categoryRecovery: category.recovery,
  });
  const coding = mergeCoding(open.case.claim.coding, line.coding, item?.coding);
  const codingOf = resolver(coding, category.account);
  const shared = sharesOf(scope, where, { ...amounts, tax, split: source.split ?? null, codingOf });
  return { item: where.item, personal, ...amounts, ...shared };
}

/** The account and dimensions of a share: the share's own coding over the part's; the category's account unless one is named. */
function resolver(base: Coding, categoryAccount: string) {
  return (own: Coding) => {
    const { account, dimensions } = takeAccount(mergeCoding(base, own));
    return { account: account ?? categoryAccount, coding: dimensions };
  };
}

const place = (line: Line) => ({ line: line.id, item: null });
