import type { Case, Item, Line } from '../../core/documents/case.schema.ts';
import { half, plainShares } from './plainAssess.ts';
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
    estimates: (claim.plan?.estimates ?? []).map(({ id, amount }) => ({
      id,
      amount: minor(amount),
      lines: claim.lines.flatMap((l, i) => (l.estimate === id ? [i] : [])),
      least: leastOver(document, minor(amount)),
    })),
  };
}

function leastOver(document: Case, planned: bigint): Pair[] {
  const { claim, book } = document;
  const { currency, planTolerance } = book.entities[0]!;
  if (!planTolerance) return [];
  const rate = inMinor(plainRate(document, currency, claim.currency, claim.plan!.approvedOn), currency, claim.currency);
  const fixed = minor(planTolerance.amount ?? '0');
  return [times([planned, 100n], pair(planTolerance.percent ?? '0')), rate ? [fixed * rate[0], rate[1]] : [0n, 1n]];
}

function readLine(document: Case, line: Line, ledger: string): PlainLine {
  const sources = line.items?.length ? line.items : [line];
  const own = line.paidBy === 'own';
  const parts = sources.map((source) => readPart(document, line, source));
  const cuts = sources.flatMap((source) => (source.cut ? [minor(source.cut.amount)] : []));
  const left = parts.reduce((a, part) => a + part.amount, 0n);
  return {
    amount: own && cuts.length > 0 ? left : minor(line.amount),
    currency: line.currency,
    own,
    toClaim: factor(document, line, document.claim.currency),
    toLedger: factor(document, line, ledger),
    // what the bank took stays: what is cut of a card line is the person's own
    parts: own ? parts : [...parts, ...cuts.map(privately)],
  };
}

const privately = (amount: bigint): PlainPart => ({
  amount,
  personal: true,
  recovery: [1n, 1n],
  taxes: [],
  weights: [],
  keeps: [],
});

function readPart(document: Case, line: Line, part: Line | Item): PlainPart {
  const personal = part.personal === true || line.personal === true;
  const category = document.book.categories.find((c) => c.id === part.category);
  const entity = document.book.entities[0]!;
  const percent = (text: string | null | undefined): Pair => times(pair(text ?? '100'), [1n, 100n]);
  const whole = minor(part.amount);
  const left = whole - (part.cut ? minor(part.cut.amount) : 0n);
  const taxes = personal ? [] : (part.tax ?? []).map((entry) => readTax(document, line, part, entry));
  return {
    amount: left,
    personal,
    recovery: times(percent(category?.recovery), percent(entity.recovery)),
    taxes: left === whole ? taxes : reduce(taxes, part, whole, left),
    weights: personal ? [] : readWeights(part),
    keeps: personal ? [] : readKeeps(document, line, part),
  };
}

/** Taxes after a cut: what they cover shrinks with the amount, what was given with what they cover. */
function reduce(taxes: PlainTax[], part: Line | Item, whole: bigint, left: bigint): PlainTax[] {
  const covered = taxes.reduce((a, t) => a + t.gross, 0n);
  const sizes = taxes.map((t) => (t.gross < 0n ? -t.gross : t.gross));
  const all = part.tax!.length === 1 && part.tax![0]!.gross == null;
  const grosses = all ? [left] : (plainShares(divide(covered * left, whole), sizes) as bigint[]);
  return taxes.map((t, i) => ({
    ...t,
    gross: grosses[i]!,
    given: t.given === null ? null : t.gross === 0n ? 0n : divide(t.given * grosses[i]!, t.gross),
  }));
}
const divide = (n: bigint, d: bigint): bigint => (d < 0n ? half(-n, -d) : half(n, d));

function readKeeps({ claim, book }: Case, line: Line, part: Line | Item): Pair[] {
  const rows = book.entities[0]!.recoveryByCoding ?? [];
  const shares = part.split?.shares ?? [{ coding: {} }];
  return shares.map((share) => {
    const coding = { ...claim.coding, ...line.coding, ...part.coding, ...share.coding } as Record<string, string>;
    let least: Pair = [1n, 1n];
    for (const row of rows) {
      if (!row.values.includes(coding[row.dimension]!)) continue;
      const [n, d] = times(pair(row.recovery), [1n, 100n]);
      if (n * least[1] < least[0] * d) least = [n, d];
    }
    return least;
  });
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
    over: assessment.findings
      .filter((f: any) => f.code === 'plan-over')
      .map((f: any) => [f.estimate, minor(f.difference)]),
  };
}
