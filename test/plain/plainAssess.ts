/**
 * The calculations written a second time, as plainly as they read: linear searches, fractions as pairs, no documents, no
 * findings, no checks, nothing shared with the core. Tests compare it with the core on random cases; the benchmark
 * measures the core against it. It takes numbers that are already read (see readPlain.ts).
 */
export type Pair = readonly [bigint, bigint];

export interface PlainComponent {
  key: string;
  factor: Pair;
  recovery: Pair;
}
export interface PlainTax {
  key: string;
  gross: bigint;
  given: bigint | null;
  selfAssessed: boolean;
  reclaims: boolean;
  components: PlainComponent[];
}
export interface PlainPart {
  amount: bigint;
  personal: boolean;
  recovery: Pair;
  taxes: PlainTax[];
  weights: bigint[];
  /** What each share's coding lets be reclaimed, as a fraction of 1. */
  keeps: Pair[];
}
export interface PlainEstimate {
  id: string;
  amount: bigint;
  /** Positions of its lines. */
  lines: number[];
  /** By how much it may be exceeded: by each of these. */
  least: Pair[];
}
export interface PlainLine {
  amount: bigint;
  currency: string;
  own: boolean;
  toClaim: Pair | null;
  toLedger: Pair | null;
  parts: PlainPart[];
}
export interface PlainAdvance {
  currency: string;
  outstanding: bigint;
  ledger: bigint;
  cap: bigint | null;
  toClaim: Pair | null;
}
export interface PlainCase {
  claimCurrency: string;
  lines: PlainLine[];
  advances: PlainAdvance[];
  dueToLedger: Pair | null;
  estimates: PlainEstimate[];
}

export interface PlainPartFigures {
  claim: bigint | null;
  ledger: bigint | null;
  /** [net, tax, recoverable, ledger net, ledger tax, ledger recoverable] a component. */
  taxes: (bigint | null)[][];
  /** [gross, recoverable, self-assessed, cost, claim, ledger gross, ledger recoverable, ledger self-assessed, ledger cost] a share. */
  shares: (bigint | null)[][];
}
export interface PlainFigures {
  lines: { claim: bigint | null; ledger: bigint | null; parts: PlainPartFigures[] }[];
  due: bigint | null;
  /** [applied, part, ledger part, left] an advance. */
  advances: (bigint | null)[][];
  payable: bigint | null;
  receivable: bigint | null;
  /** The estimates exceeded, with by how much. */
  over: [string, bigint][];
}

const abs = (x: bigint) => (x < 0n ? -x : x);
/** Half away from zero by the textbook: floor(|x| + 1/2) with the sign put back. */
export const half = (n: bigint, d: bigint): bigint => {
  const up = (abs(n) * 2n + d) / (d * 2n);
  return n < 0n ? -up : up;
};

export function plainConvert(x: bigint, factor: Pair | null): bigint | null {
  return factor === null ? null : half(x * factor[0], factor[1]);
}

export function plainShares(total: bigint | null, weights: readonly bigint[]): (bigint | null)[] {
  if (total === null) return weights.map(() => null);
  let sum = 0n;
  for (const w of weights) sum += w;
  if (sum === 0n) return weights.map(() => 0n);
  const size = abs(total);
  const out = weights.map((w) => (size * w) / sum);
  let left = size;
  for (const s of out) left -= s;
  const taken = new Set<number>();
  for (; left > 0n; left -= 1n) {
    let best = -1;
    for (let i = 0; i < weights.length; i += 1)
      if (!taken.has(i) && (best < 0 || (size * weights[i]!) % sum > (size * weights[best]!) % sum)) best = i;
    taken.add(best);
    out[best]! += 1n;
  }
  return total < 0n ? out.map((s) => -s) : out;
}

export function plainTaxes(tax: PlainTax): bigint[] {
  if (tax.selfAssessed) return tax.components.map((c) => half(tax.gross * c.factor[0], c.factor[1]));
  const common = tax.components.reduce((d, c) => d * c.factor[1], 1n);
  const weights = tax.components.map((c) => (c.factor[0] * common) / c.factor[1]);
  const sum = weights.reduce((a, w) => a + w, 0n);
  if (tax.given !== null && sum > 0n) return plainShares(tax.given, weights) as bigint[];
  return weights.map((w) => half(tax.gross * w, common + sum));
}

function plainPart(line: PlainLine, part: PlainPart, before: bigint): PlainPartFigures {
  const step = (factor: Pair | null) =>
    factor === null ? null : plainConvert(before + part.amount, factor)! - plainConvert(before, factor)!;
  const [claim, ledger] = [step(line.toClaim), step(line.toLedger)];
  if (part.personal) return { claim, ledger, taxes: [], shares: [] };
  const sums = { back: 0n, self: 0n, ledgerBack: 0n as bigint | null, ledgerSelf: 0n as bigint | null };
  const taxes: (bigint | null)[][] = [];
  for (const tax of part.taxes) {
    const amounts = plainTaxes(tax);
    const net = tax.selfAssessed ? tax.gross : tax.gross - amounts.reduce((a, t) => a + t, 0n);
    tax.components.forEach((c, k) => {
      const amount = amounts[k]!;
      const back = tax.reclaims
        ? half(amount * c.recovery[0] * part.recovery[0], c.recovery[1] * part.recovery[1])
        : 0n;
      const inLedger = [net, amount, back].map((x) => plainConvert(x, line.toLedger));
      taxes.push([net, amount, back, ...inLedger]);
      sums.back += back;
      sums.ledgerBack = sums.ledgerBack === null || inLedger[2] === null ? null : sums.ledgerBack + inLedger[2]!;
      if (!tax.selfAssessed) return;
      sums.self += amount;
      sums.ledgerSelf = sums.ledgerSelf === null || inLedger[1] === null ? null : sums.ledgerSelf + inLedger[1]!;
    });
  }
  if (part.keeps.some(([n, d]) => n < d)) return { claim, ledger, ...forgoing(part, taxes, claim, ledger, sums) };
  const columns = [part.amount, sums.back, sums.self, claim, ledger, sums.ledgerBack, sums.ledgerSelf].map((t) =>
    plainShares(t, part.weights),
  );
  const shares = part.weights.map((_, i) => {
    const [gross, back, self, inClaim, inLedger, ledgerBack, ledgerSelf] = columns.map((c) => c[i]!);
    const ledgerCost =
      inLedger === null || ledgerBack === null || ledgerSelf === null ? null : inLedger! - ledgerBack! + ledgerSelf!;
    return [gross!, back!, self!, gross! - back! + self!, inClaim!, inLedger!, ledgerBack!, ledgerSelf!, ledgerCost];
  });
  return { claim, ledger, taxes, shares };
}

/** Each tax is divided by itself, each share's part reduced and rounded; the tax is then what the shares have of it. */
function forgoing(
  part: PlainPart,
  taxes: (bigint | null)[][],
  claim: bigint | null,
  ledger: bigint | null,
  sums: { self: bigint; ledgerSelf: bigint | null },
) {
  const back = part.weights.map(() => [0n, 0n] as (bigint | null)[]);
  for (const row of taxes)
    [2, 5].forEach((column, side) => {
      const kept = plainShares(row[column]!, part.weights).map((x, i) =>
        x === null ? null : half(x * part.keeps[i]![0], part.keeps[i]![1]),
      );
      row[column] = kept.includes(null) ? null : kept.reduce<bigint>((a, x) => a + x!, 0n);
      kept.forEach((x, i) => {
        back[i]![side] = x === null || back[i]![side] === null ? null : back[i]![side]! + x;
      });
    });
  const [gross, self, inClaim, inLedger, ledgerSelf] = [part.amount, sums.self, claim, ledger, sums.ledgerSelf].map(
    (t) => plainShares(t, part.weights),
  );
  const shares = part.weights.map((_, i) => {
    const [own, ownLedger] = back[i]!;
    const known = inLedger![i] !== null && ownLedger !== null && ledgerSelf![i] !== null;
    return [
      gross![i]!,
      own!,
      self![i]!,
      gross![i]! - own! + self![i]!,
      inClaim![i]!,
      inLedger![i]!,
      ownLedger!,
      ledgerSelf![i]!,
      known ? inLedger![i]! - ownLedger! + ledgerSelf![i]! : null,
    ];
  });
  return { taxes, shares };
}

function plainOver(estimates: PlainEstimate[], input: PlainCase, lines: PlainFigures['lines']): [string, bigint][] {
  return estimates.flatMap((estimate): [string, bigint][] => {
    let actual = 0n;
    for (const at of estimate.lines)
      for (const [k, part] of input.lines[at]!.parts.entries()) {
        if (part.personal) continue;
        const claim = lines[at]!.parts[k]!.claim;
        if (claim === null) return [];
        actual += claim;
      }
    const over = actual - estimate.amount;
    return over > 0n && estimate.least.every(([n, d]) => over * d > n) ? [[estimate.id, over]] : [];
  });
}

export function plainAssess(input: PlainCase): PlainFigures {
  const lines = input.lines.map((line) => {
    let before = 0n;
    const parts = line.parts.map((part) => {
      const figures = plainPart(line, part, before);
      before += part.amount;
      return figures;
    });
    return { claim: plainConvert(line.amount, line.toClaim), ledger: plainConvert(line.amount, line.toLedger), parts };
  });
  let due: bigint | null = 0n;
  input.lines.forEach((line, i) => {
    const figures = lines[i]!;
    if (line.own) due = due === null || figures.claim === null ? null : due + figures.claim;
    line.parts.forEach((part, k) => {
      const claim = figures.parts[k]!.claim;
      if (part.personal) due = due === null || claim === null ? null : due - claim;
    });
  });
  return { lines, ...plainSettle(input, lines, due), over: plainOver(input.estimates, input, lines) };
}

function plainSettle(input: PlainCase, lines: PlainFigures['lines'], due: bigint | null) {
  const open = input.lines.map((line, i) => ({
    currency: line.own && line.amount > 0n ? line.currency : '',
    amount: line.amount,
    claim: lines[i]!.claim,
  }));
  let rest = due;
  const advances = input.advances.map((advance) => {
    if (rest === null) return [null, null, null, null];
    let room = advance.cap !== null && advance.cap < rest ? advance.cap : rest;
    if (room < 0n) room = 0n;
    let [applied, part] = [0n, 0n];
    if (advance.currency !== input.claimCurrency)
      for (const line of open) {
        if (line.currency !== advance.currency) continue;
        const left = advance.outstanding - part;
        let a = line.amount < left ? line.amount : left;
        if (a === 0n) continue;
        let c = a === line.amount ? line.claim! : half(line.claim! * a, line.amount);
        if (c > room) {
          c = room;
          const cut = half(line.amount * c, line.claim!);
          if (cut < a) a = cut;
        }
        if (a === 0n || c === 0n) continue;
        line.amount -= a;
        line.claim! -= c;
        applied += c;
        part += a;
        room -= c;
      }
    const left = advance.outstanding - part;
    if (left > 0n && room > 0n) {
      const available = plainConvert(left, advance.toClaim);
      if (available === null) {
        rest = null;
        return [null, null, null, null];
      }
      const c = available < room ? available : room;
      const rounded = c === available || available === 0n ? left : half(left * c, available);
      const a = rounded < left ? rounded : left;
      if (c !== 0n && a !== 0n) {
        applied += c;
        part += a;
      }
    }
    rest -= applied;
    const ledger = part === advance.outstanding ? advance.ledger : half(advance.ledger * part, advance.outstanding);
    return [applied, part, ledger, advance.outstanding - part];
  });
  return {
    due,
    advances,
    payable: rest === null ? null : rest > 0n ? rest : 0n,
    receivable: due === null ? null : due < 0n ? -due : 0n,
  };
}
