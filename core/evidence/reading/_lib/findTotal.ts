import type { Found, Sureness } from '../reading.types.ts';
import { plain, type TextLine } from './lines.ts';
import type { Money } from './money.ts';
import { BARE_RATE, isTaxOf, isTaxOn, RATE, rateIn } from './taxOf.ts';
import { zeroed } from './zeroed.ts';
import { INCLUDED, TIP } from './tipWords.ts';
import { CHANGE, EXTRA, HANDED, PAID_BY, PART_OF_TOTAL, STRONG_TOTAL, TAX, TOTAL } from './vocabulary.ts';

/** A total with the amount it stands for and what speaks for it. */
export interface Total extends Found {
  minor: bigint;
  line: number;
}

interface Candidate {
  money: Money;
  score: number;
  /** It follows from other figures of the document. */
  proved: string | null;
  labelled: boolean;
}

const SURE_SCORE = 12;
const LEAD = 3;
/** A total below this confidence may be any number. */
const LEGIBLE = 50;
/** A confidence that keeps a figure from being called sure, and from being called a mere guess. */
const UNSURE = 60;

/**
 * What is to be paid in the end: the amount beside a word for the total, weighed by whether other figures lead to it
 * (the items above add up to it, net and tax do, cash less change does).
 */
export function findTotal(
  lines: readonly TextLine[],
  amounts: readonly Money[],
  write: (minor: bigint) => string,
): Total | null {
  const texts = lines.map((line) => plain(line.text));
  const candidates = labelled(lines, texts, amounts);
  const computed = candidates.some((c) => c.money.confidence >= LEGIBLE) ? null : netAndTax(texts, amounts);
  if (computed)
    return {
      value: write(computed.minor),
      minor: computed.minor,
      line: computed.line,
      sure: 'likely',
      spot: computed.spot,
      because: 'the total is not legible; net and tax come to this',
    };
  const pool = candidates.length > 0 ? candidates : unlabelled(texts, amounts);
  const judged = pool
    .flatMap((c) => orRepaired(judge(c, lines, texts, amounts), lines, texts, amounts))
    .sort((a, b) => b.score - a.score || b.money.line - a.money.line);
  const best = judged[0];
  if (!best) return null;
  const rival = judged.find((c) => c.money.minor !== best.money.minor);
  const clear = !rival || best.score - rival.score >= LEAD;
  const open = openBelow(best.money, lines, texts, amounts);
  return {
    value: write(best.money.minor),
    minor: best.money.minor,
    line: best.money.line,
    sure: open ? 'doubtful' : surenessOf(best, clear),
    spot: best.money.spot,
    because:
      open ?? best.proved ?? (best.labelled ? 'it stands beside the word for the total' : 'it is the largest amount'),
  };
}

function surenessOf(best: Candidate, clear: boolean): Sureness {
  if (!best.labelled && !best.proved) return 'doubtful';
  if (best.money.confidence < 50 || !clear) return best.proved && clear ? 'likely' : 'doubtful';
  if (best.proved && best.score >= SURE_SCORE && best.money.confidence >= 65) return 'sure';
  return best.score >= SURE_SCORE + 3 && best.money.confidence >= 88 ? 'sure' : 'likely';
}

/** Letters of a row that is a label and no sentence. */
const MOST_LETTERS = 26;

/**
 * Why a total may not be the last word, or null: below it stands a tip, or another total, without an amount that can be read; or a
 * tip that no other total counts. It was written by hand, mostly.
 */
function openBelow(
  money: Money,
  lines: readonly TextLine[],
  texts: readonly string[],
  amounts: readonly Money[],
): string | null {
  for (let i = money.line + 1; i < texts.length; i += 1) {
    const text = texts[i]!;
    if (text.replace(/[^a-z]/g, '').length > MOST_LETTERS || INCLUDED.test(text)) continue;
    const tip = TIP.test(text);
    const total = (STRONG_TOTAL.test(text) || TOTAL.test(text)) && !PART_OF_TOTAL.test(text) && !TAX.test(text);
    if (isScrawl(lines[i]!)) return `“${lines[i]!.text.trim().slice(0, 30)}” is written below it by hand, it seems`;
    if (!tip && !(total && !CHANGE.test(text) && !HANDED.test(text))) continue;
    const beside = amounts.filter((a) => a.line === i || (a.line === i + 1 && isBare(texts[i + 1]!)));
    const legible = beside.some((a) => a.exact && a.confidence >= LEGIBLE);
    const said = lines[i]!.text.trim().slice(0, 30);
    if (!legible) return `“${said}” stands below it, without an amount that can be read`;
    if (tip && beside.some((a) => a.minor !== 0n) && !isAddedTo(money, texts, amounts))
      return `“${said}” is added below it`;
  }
  return null;
}

/** Words of print are recognised with more than the first; a hand has hardly one such, and some with less than the second. */
const PRINT = 85;
const SCRAWL = 70;

/** Whether a row is letters and figures that stand there and are hardly recognised, none of them. */
function isScrawl({ words }: TextLine): boolean {
  const told = words.filter((w) => /[\p{L}\d]/u.test(w.text));
  return (
    told.length >= 2
    && told.every((w) => w.confidence < PRINT)
    && told.some((w) => w.confidence < SCRAWL)
    && told.some((w) => /\d.?\d/.test(w.text))
  );
}

function labelled(lines: readonly TextLine[], texts: readonly string[], amounts: readonly Money[]): Candidate[] {
  const extras = texts.some((text) => EXTRA.test(text));
  return texts.flatMap((text, i) => {
    const strong = STRONG_TOTAL.test(text);
    const paid = extras && PAID_BY.test(text);
    if (!strong && !TOTAL.test(text) && !paid) return [];
    if (EXTRA.test(text) && !strong) return [];
    if (CHANGE.test(text)) return [];
    const money = valueFor(lines, texts, amounts, i);
    if (!money) return [];
    let score = strong ? 10 : TOTAL.test(text) ? 8 : 5;
    if (PART_OF_TOTAL.test(text)) score -= strong && !/sub|zwischen|sous|delsum|mellom/.test(text) ? 4 : 8;
    if (TAX.test(text) && !strong) score -= 4;
    return [{ money, score, proved: null, labelled: true }];
  });
}

/** The amount a label speaks of: the last on its line, or the one below when its line has none. */
function valueFor(
  lines: readonly TextLine[],
  texts: readonly string[],
  amounts: readonly Money[],
  i: number,
): Money | null {
  const own = amounts.filter((a) => a.line === i);
  if (own.length > 0) return own.findLast((a) => a.exact) ?? own.at(-1)!;
  const next = amounts.filter((a) => a.line === i + 1 && lines[i + 1]!.page === lines[i]!.page);
  const below = next.at(-1);
  return below && isBare(texts[i + 1]!) ? below : null;
}

/** Whether a row holds little but figures, which then are of the label above it. */
const isBare = (text: string): boolean => !TAX.test(text) && text.replace(/[^a-z]/g, '').length <= 4;

function unlabelled(texts: readonly string[], amounts: readonly Money[]): Candidate[] {
  const usable = amounts.filter((a) => a.exact && !CHANGE.test(texts[a.line]!) && !HANDED.test(texts[a.line]!));
  const largest = usable.reduce<Money | null>((a, m) => (a === null || m.minor > a.minor ? m : a), null);
  return largest ? [{ money: largest, score: 0, proved: null, labelled: false }] : [];
}

/** The total that is not printed, or was not legible: a net and its tax, one beside the other or both labelled. */
function netAndTax(texts: readonly string[], amounts: readonly Money[]): Money | null {
  const usable = amounts.filter((a) => a.exact && a.minor > 0n);
  for (const tax of usable)
    for (const net of usable) {
      if (net.minor <= tax.minor) continue;
      const beside = net.line === tax.line;
      if (!beside && !(TAX.test(texts[tax.line]!) && PART_OF_TOTAL.test(texts[net.line]!))) continue;
      const rates = [...texts[tax.line]!.matchAll(beside ? BARE_RATE : RATE)].map(([, rate]) => rateIn(rate!));
      if (rates.some((rate) => isTaxOn(tax.minor, net.minor, rate)))
        return { ...net, minor: net.minor + tax.minor, confidence: Math.min(net.confidence, tax.confidence, UNSURE) };
    }
  return null;
}

function judge(
  candidate: Candidate,
  lines: readonly TextLine[],
  texts: readonly string[],
  amounts: readonly Money[],
): Candidate {
  const { money } = candidate;
  const proved = proofOf(money, texts, amounts);
  const others = amounts.filter((a) => a.exact && !HANDED.test(texts[a.line]!) && !CHANGE.test(texts[a.line]!));
  const largest = others.every((a) => a.minor <= money.minor);
  const repeated = amounts.some(
    (a) =>
      a !== money
      && a.minor === money.minor
      && (HANDED.test(texts[a.line]!) || PAID_BY.test(texts[a.line]!) || STRONG_TOTAL.test(texts[a.line]!)),
  );
  const height = lines[money.line]!.box.height;
  const heights = lines.map((l) => l.box.height).sort((a, b) => a - b);
  const tall = height > (heights[Math.floor(heights.length / 2)] ?? height) * 1.2;
  let { score } = candidate;
  if (proved) score += 4;
  if (largest) score += 3;
  if (repeated) score += 2;
  if (tall) score += 2;
  if (money.exact) score += 1;
  if (money.minor <= 0n) score -= 10;
  if (isAddedTo(money, texts, amounts)) score -= 7;
  return { ...candidate, score, proved };
}

/** A figure that is this one and what is added to it below: the sum after rounding, the bill with its tip. */
function isAddedTo(money: Money, texts: readonly string[], amounts: readonly Money[]): boolean {
  return extrasOf(texts, amounts).some(
    (extra) =>
      extra.line > money.line
      && amounts.some((a) => a.line > extra.line && isSumOf(a.minor, money, extra) && a.minor !== money.minor),
  );
}

const extrasOf = (texts: readonly string[], amounts: readonly Money[]): Money[] =>
  amounts.filter((a) => EXTRA.test(texts[a.line]!) && !STRONG_TOTAL.test(texts[a.line]!) && a.minor !== 0n);

/** Roundings down are printed with a minus or without. */
const isSumOf = (sum: bigint, money: Money, extra: Money): boolean =>
  sum === money.minor + extra.minor || (extra.minor < 100n && sum === money.minor - extra.minor);

/**
 * Zeros struck through or dotted are taken for 8 or 6. A total that nothing leads to as it was read is offered with
 * zeros instead where other figures lead to that one and no other; it is never sure.
 */
function orRepaired(
  candidate: Candidate,
  lines: readonly TextLine[],
  texts: readonly string[],
  amounts: readonly Money[],
): Candidate[] {
  const { money } = candidate;
  if (candidate.proved || !candidate.labelled || taxFits(money, texts, amounts)) return [candidate];
  const others = zeroed(String(money.minor))
    .map((digits) => ({ ...money, minor: BigInt(digits), confidence: Math.min(money.confidence, UNSURE) }))
    .filter((other) => other.minor !== money.minor);
  const proved = others.filter((other) => proofOf(other, texts, amounts));
  const led = proved.length > 0 ? proved : others.filter((other) => taxFits(other, texts, amounts));
  return led.length === 1 ? [judge({ ...candidate, money: led[0]! }, lines, texts, amounts)] : [candidate];
}

/** Whether a tax beside its rate is the one within the amount: that leads to it, but the last digits may still be others. */
function taxFits({ minor, line }: Money, texts: readonly string[], amounts: readonly Money[]): boolean {
  return amounts.some(
    (tax) =>
      tax.exact
      && tax.line !== line
      && tax.minor > 0n
      && TAX.test(texts[tax.line]!)
      && [...texts[tax.line]!.matchAll(RATE)].some(([, rate]) =>
        zeroed(rateIn(rate!)).some((r) => isTaxOf(tax.minor, minor, r)),
      ),
  );
}

/** How the amount follows from other figures, or null. */
function proofOf(money: Money, texts: readonly string[], amounts: readonly Money[]): string | null {
  const on = (pattern: RegExp) => amounts.filter((a) => pattern.test(texts[a.line]!) && a.line !== money.line);
  const changes = on(CHANGE);
  if (on(HANDED).some((h) => changes.some((c) => h.minor - c.minor === money.minor && c.minor > 0n)))
    return 'cash given less change comes to it';
  if (addsUp(money, texts, amounts)) return 'the items above add up to it';
  const sums = amounts.filter(
    (a) => a.line < money.line && (TOTAL.test(texts[a.line]!) || STRONG_TOTAL.test(texts[a.line]!)),
  );
  const extras = extrasOf(texts, amounts).filter((e) => e.line < money.line);
  if (extras.some((e) => sums.some((sum) => sum.line < e.line && isSumOf(money.minor, sum, e))))
    return 'the sum and what is added to it come to it';
  const taxes = on(TAX);
  const parts = on(PART_OF_TOTAL);
  if (taxes.some((t) => t.minor > 0n && parts.some((p) => p.minor + t.minor === money.minor)))
    return 'net and tax add up to it';
  if (taxes.some((t) => taxes.some((n) => n.line === t.line && n.minor > t.minor && n.minor + t.minor === money.minor)))
    return 'net and tax add up to it';
  if (taxes.length > 1 && parts.some((p) => p.minor + taxes.reduce((a, t) => a + t.minor, 0n) === money.minor))
    return 'net and taxes add up to it';
  return null;
}

/** Whether at least two rows right above add up to the amount, leaving out sums and taxes. */
function addsUp(money: Money, texts: readonly string[], amounts: readonly Money[]): boolean {
  let sum = 0n;
  let rows = 0;
  for (let line = money.line - 1; line >= 0 && money.line - line < 60; line -= 1) {
    const text = texts[line]!;
    const last = amounts.filter((a) => a.line === line && a.exact).at(-1);
    if (!last) continue;
    if (
      (PART_OF_TOTAL.test(text) && !/rabat|discount|remise|descuento|desconto|sconto/.test(text))
      || TAX.test(text)
      || TOTAL.test(text)
    ) {
      if (rows === 0) continue;
      break;
    }
    sum += last.minor;
    rows += 1;
    if (rows >= 2 && sum === money.minor) return true;
  }
  return false;
}
