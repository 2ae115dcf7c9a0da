import type { Case, Item, Line } from '../../core/documents/case.schema.ts';
import type { Pair, PlainCase, PlainComponent, PlainFigures, PlainLine, PlainPart, PlainTax } from './plainAssess.ts';

/** Reads a valid case into the numbers plainAssess takes. Written apart from the core on purpose. */
const DECIMALS: Record<string, number> = { JPY: 0, ISK: 0, BHD: 3, KWD: 3 };
const decimalsOf = (currency: string) => DECIMALS[currency] ?? 2;
const minor = (text: string): bigint => BigInt(text.replace('.', ''));
const times = (a: Pair, b: Pair): Pair => [a[0] * b[0], a[1] * b[1]];

export function pair(text: string): Pair {
  const [whole, rest = ''] = text.split('.');
  return [BigInt(whole! + rest), 10n ** BigInt(rest.length)];
}

/** Rule 4 and 5 by linear search: 1 unit of `from` in `to`, major to major. */
export function plainRate({ book }: Case, from: string, to: string, date: string): Pair | null {
  if (from === to) return [1n, 1n];
  const age = (d: string) => (Date.parse(date) - Date.parse(d)) / 86_400_000;
  const newest = (a: string, b: string): Pair | null => {
    let found: { date: string; rate: string } | null = null;
    for (const q of book.rates)
      if (q.from === a && q.to === b && age(q.date) >= 0 && (found === null || q.date > found.date)) found = q;
    return found && age(found.date) <= (book.maxRateAge ?? 7) ? pair(found.rate) : null;
  };
  const either = (a: string, b: string): Pair | null => {
    const direct = newest(a, b);
    const turned = direct ? null : newest(b, a);
    return direct ?? (turned && [turned[1], turned[0]]);
  };
  const straight = either(from, to);
  if (straight || !book.pivot) return straight;
  const [first, second] = [either(from, book.pivot), either(book.pivot, to)];
  return first && second && times(first, second);
}

const inMinor = (rate: Pair | null, from: string, to: string): Pair | null =>
  rate && times(rate, [10n ** BigInt(decimalsOf(to)), 10n ** BigInt(decimalsOf(from))]);

function factor(document: Case, line: Line, to: string): Pair | null {
  const { claim, book, postingDate } = document;
  const choice = book.entities[0]!.rateDate ?? 'line';
  const date = choice === 'line' ? line.date : choice === 'submitted' ? claim.submittedOn! : postingDate;
  if (line.currency === to) return [1n, 1n];
  if (line.rate?.kind === 'card') {
    const { amount, currency } = line.rate.settled;
    const onward = inMinor(plainRate(document, currency, to, date), currency, to);
    const whole = minor(line.amount);
    return onward && (whole === 0n ? [0n, 1n] : positive(times([minor(amount), whole], onward)));
  }
  if (line.rate?.kind === 'own') {
    const onward = plainRate(document, claim.currency, to, date);
    return onward && inMinor(times(pair(line.rate.value), onward), line.currency, to);
  }
  return inMinor(plainRate(document, line.currency, to, date), line.currency, to);
}

const positive = ([n, d]: Pair): Pair => (d < 0n ? [-n, -d] : [n, d]);

export function readPlain(document: Case): PlainCase {
  const { claim, book, postingDate } = document;
  const ledger = book.entities[0]!.currency;
  return {
    claimCurrency: claim.currency,
    lines: claim.lines.map((line) => readLine(document, line, ledger)),
    advances: (claim.advances ?? []).map(({ advance, upTo }) => {
      const row = book.advances!.find((a) => a.id === advance)!;
      const toClaim = inMinor(
        plainRate(document, row.currency, claim.currency, postingDate),
        row.currency,
        claim.currency,
      );
      return {
        currency: row.currency,
        outstanding: minor(row.outstanding),
        ledger: minor(row.ledgerOutstanding),
        cap: upTo == null ? null : minor(upTo),
        toClaim,
      };
    }),
    dueToLedger: inMinor(plainRate(document, claim.currency, ledger, postingDate), claim.currency, ledger),
  };
}

function readLine(document: Case, line: Line, ledger: string): PlainLine {
  const parts = line.items?.length ? line.items : [line];
  return {
    amount: minor(line.amount),
    currency: line.currency,
    own: line.paidBy === 'own',
    toClaim: factor(document, line, document.claim.currency),
    toLedger: factor(document, line, ledger),
    parts: parts.map((part) => readPart(document, line, part)),
  };
}

function readPart(document: Case, line: Line, part: Line | Item): PlainPart {
  const personal = part.personal === true || line.personal === true;
  const category = document.book.categories.find((c) => c.id === part.category);
  const entity = document.book.entities[0]!;
  const percent = (text: string | null | undefined): Pair => times(pair(text ?? '100'), [1n, 100n]);
  return {
    amount: minor(part.amount),
    personal,
    recovery: times(percent(category?.recovery), percent(entity.recovery)),
    taxes: personal ? [] : (part.tax ?? []).map((entry) => readTax(document, line, part, entry)),
    weights: personal ? [] : readWeights(part),
  };
}

function readTax(
  { book }: Case,
  line: Line,
  part: Line | Item,
  entry: { code: string; gross?: string | null | undefined; tax?: string | null | undefined },
): PlainTax {
  const code = book.taxCodes.find((c) => c.code === entry.code)!;
  const entity = book.entities[0]!;
  const rows = code.components ?? [{ id: '', rate: code.rate!, on: 'net', account: '', recovery: code.recovery! }];
  let sum: Pair = [0n, 1n];
  const components = rows.map((row): PlainComponent => {
    const rate = times(pair(row.rate), [1n, 100n]);
    const c: Pair = row.on === 'running' ? times(rate, [sum[0] + sum[1], sum[1]]) : rate;
    sum = [sum[0] * c[1] + c[0] * sum[1], sum[1] * c[1]];
    return { key: row.id, factor: c, recovery: times(pair(row.recovery), [1n, 100n]) };
  });
  const registered = entity.taxRegistrations?.includes(code.country) ?? false;
  const atHome = !line.country || line.country === code.country;
  const numbered = !entity.taxNumberRequired || Boolean(line.receipt?.taxNumber);
  return {
    key: entry.code,
    gross: minor(entry.gross ?? part.amount),
    given: entry.tax == null ? null : minor(entry.tax),
    selfAssessed: code.selfAssessed === true,
    reclaims: code.selfAssessed === true || (registered && atHome && numbered),
    components,
  };
}

function readWeights(part: Line | Item): bigint[] {
  const { split } = part;
  if (!split) return [1n];
  if (split.by === 'equal') return split.shares.map(() => 1n);
  const whole = split.by === 'percent' ? '100.000000' : part.amount;
  const scale = (text: string): bigint => {
    if (split.by === 'amount') return minor(text);
    const [n, d] = pair(text);
    return (n * 1_000_000n) / d;
  };
  const total = split.by === 'percent' ? 100_000_000n : minor(whole);
  const given = split.shares.map((s) => (s.value === 'rest' ? null : scale(s.value!)));
  const rest = total - given.reduce<bigint>((a, g) => a + (g ?? 0n), 0n);
  return given.map((g) => g ?? rest).map((w) => (w < 0n ? -w : w));
}

/** The figures of an assessment in the shape and units of plainAssess, for comparing. */
export function plainOf(assessment: any): PlainFigures {
  const m = (text: string | null) => (text === null ? null : minor(text));
  return {
    lines: assessment.lines.map((line: any) => ({
      claim: m(line.claimAmount),
      ledger: m(line.ledgerAmount),
      parts: line.parts.map((part: any) => ({
        claim: m(part.claimAmount),
        ledger: m(part.ledgerAmount),
        taxes: part.tax.map((t: any) =>
          [t.net, t.tax, t.recoverable, t.ledgerNet, t.ledgerTax, t.ledgerRecoverable].map(m),
        ),
        shares: part.shares.map((s: any) =>
          [
            s.gross,
            s.recoverable,
            s.selfAssessed,
            s.cost,
            s.claimAmount,
            s.ledgerGross,
            s.ledgerRecoverable,
            s.ledgerSelfAssessed,
            s.ledgerCost,
          ].map(m),
        ),
      })),
    })),
    due: m(assessment.settlement.due),
    advances: assessment.settlement.advances.map((a: any) => [a.applied, a.advancePart, a.ledgerPart, a.left].map(m)),
    payable: m(assessment.settlement.payable),
    receivable: m(assessment.settlement.receivable),
  };
}
