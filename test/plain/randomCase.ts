import { randomFrom, type Random } from '../../demo/random.ts';
import type { Case, Item, Line, Split, TaxEntry } from '../../core/documents/case.schema.ts';
import { makeCase, taxCodes } from '../fixtures/caseBuilder.ts';

const CURRENCIES = ['EUR', 'USD', 'JPY', 'BHD', 'GBP'];
const DECIMALS: Record<string, number> = { JPY: 0, BHD: 3 };
const decimalsOf = (currency: string) => DECIMALS[currency] ?? 2;

/** Minor units as a decimal string of a currency. */
export function write(minor: bigint, currency: string): string {
  const decimals = decimalsOf(currency);
  const digits = (minor < 0n ? -minor : minor).toString().padStart(decimals + 1, '0');
  const text = decimals ? `${digits.slice(0, -decimals)}.${digits.slice(-decimals)}` : digits;
  return minor < 0n ? `-${text}` : text;
}

/** A valid case from a seed, with everything in it that the calculations speak of; some rates are missing. */
export function randomCase(seed: number, lineCount?: number): Case {
  const r = randomFrom(seed);
  const claimCurrency = r.pick(CURRENCIES);
  const ledger = r.pick(CURRENCIES);
  const claimant = r.next() < 0.85 ? 'P1' : 'P2';
  const plan = r.next() < 0.4 ? randomPlan(r, claimCurrency) : null;
  const lines = Array.from({ length: lineCount ?? r.whole(0, 6) }, (_, i) => {
    const line = randomCuts(r, randomLine(r, String(i + 1), claimCurrency));
    return plan && r.next() < 0.7 ? { ...line, estimate: r.pick(plan.estimates).id } : line;
  });
  const advances = Array.from({ length: r.whole(0, 3) }, (_, i) => {
    const currency = r.pick(CURRENCIES);
    return {
      id: `A${i}`,
      person: claimant,
      currency,
      outstanding: write(BigInt(r.whole(0, 60_000)), currency),
      ledgerOutstanding: write(BigInt(r.whole(0, 60_000)), ledger),
    };
  });
  return makeCase({
    lines,
    postingDate: '2026-03-05',
    claim: {
      currency: claimCurrency,
      claimant,
      submittedOn: '2026-03-04',
      plan,
      advances: advances.map((a) => ({
        advance: a.id,
        ...(r.next() < 0.4 ? { upTo: write(BigInt(r.whole(0, 20_000)), claimCurrency) } : {}),
      })),
    },
    entity: {
      currency: ledger,
      rateDate: r.pick(['line', 'submitted', 'posting'] as const),
      recovery: r.pick(['100', '67', '33.3']),
      taxNumberRequired: r.next() < 0.3,
      planTolerance: randomTolerance(r, ledger),
      recoveryByCoding: r.next() < 0.4 ? RECOVERIES : null,
    },
    book: {
      rates: randomRates(r),
      advances: advances.map((a) => ({ ...a })),
      people: [
        { id: 'P1', kind: 'employee' },
        { id: 'P2', kind: 'contractor' },
      ],
    },
  });
}

const RECOVERIES = [
  { dimension: 'costCentre', values: ['411'], recovery: '0' },
  { dimension: 'costCentre', values: ['412', '413'], recovery: '33.3' },
  { dimension: 'costCentre', values: ['413'], recovery: '12.5' },
];

function randomPlan(r: Random, currency: string) {
  const estimates = Array.from({ length: r.whole(1, 3) }, (_, i) => ({
    id: `E${i}`,
    amount: write(BigInt(r.whole(0, 30_000)), currency),
  }));
  return { number: 'T-1', approvedOn: r.pick(['2026-02-27', '2026-03-03', '2026-01-02']), estimates };
}

function randomTolerance(r: Random, ledger: string) {
  if (r.next() < 0.4) return null;
  return {
    ...(r.next() < 0.7 ? { percent: r.pick(['0', '10', '33.3']) } : {}),
    ...(r.next() < 0.7 ? { amount: write(BigInt(r.whole(0, 3_000)), ledger) } : {}),
  };
}

/** Finance cuts some of what may be cut, and people count some of what they bought. */
function randomCuts(r: Random, line: Line): Line {
  const withCut = <T extends Line | Item>(part: T): T => {
    const whole = BigInt(part.amount.replace('.', ''));
    const size = (whole * BigInt(r.whole(0, 1200))) / 1000n;
    const most = (whole < 0n ? -size > -whole : size > whole) ? whole : size;
    if (part.personal || most === 0n || r.next() < 0.6) return part;
    return { ...part, cut: { amount: write(most, line.currency), reason: 'too much' } };
  };
  if (line.paidBy === 'central' || line.personal) return line;
  return line.items?.length ? { ...line, items: line.items.map(withCut) } : withCut(line);
}

function randomRates(r: Random) {
  const levels: Record<string, number> = { USD: 1.0834, JPY: 163.41, BHD: 0.40853, GBP: 0.84127 };
  return Object.entries(levels).flatMap(([to, level]) =>
    ['2026-02-27', '2026-03-02', '2026-03-04']
      .filter(() => r.next() < 0.9)
      .map((date) => {
        const rate = (level * (0.98 + r.next() * 0.04)).toFixed(5);
        return r.next() < 0.8
          ? { from: 'EUR', to, date, rate }
          : { from: to, to: 'EUR', date, rate: (1 / Number(rate)).toFixed(7) };
      }),
  );
}

function randomLine(r: Random, id: string, claimCurrency: string): Line {
  const currency = r.pick(CURRENCIES);
  const paidBy = r.pick(['own', 'own', 'card', 'central'] as const);
  const amount = r.next() < 0.08 ? 0n : BigInt(r.whole(-3_000, 30_000));
  const date = r.pick(['2026-03-01', '2026-03-02', '2026-03-03', '2026-03-05']);
  const base = {
    id,
    date,
    paidBy,
    amount: write(amount, currency),
    currency,
    ...(r.next() < 0.3 ? { country: 'IE' } : {}),
    ...(r.next() < 0.5 ? { receipt: { taxNumber: 'IE1' } } : {}),
  };
  const rate = randomRate(r, paidBy, amount, currency, claimCurrency);
  const personal = paidBy === 'card' && r.next() < 0.15;
  if (personal) return { ...base, rate, personal };
  if (r.next() < 0.3) return { ...base, rate, coding: {}, items: randomItems(r, amount, currency, paidBy === 'card') };
  return {
    ...base,
    rate,
    category: r.pick(['supplies', 'meal', 'phone']),
    tax: randomTax(r, amount, currency),
    split: randomSplit(r, amount, currency),
  };
}

function randomRate(r: Random, paidBy: string, amount: bigint, currency: string, claimCurrency: string): Line['rate'] {
  if (paidBy === 'own' && currency !== claimCurrency && r.next() < 0.3)
    return { kind: 'own', value: (0.2 + r.next() * 2).toFixed(6) };
  if (paidBy !== 'card' || r.next() < 0.3) return null;
  const settled = r.pick(CURRENCIES);
  const size = amount === 0n ? 0n : BigInt(r.whole(1, 40_000));
  const taken = settled === currency ? amount : amount < 0n ? -size : size;
  return { kind: 'card', settled: { amount: write(taken, settled), currency: settled } };
}

function randomItems(r: Random, amount: bigint, currency: string, card: boolean): Item[] {
  const count = r.whole(1, 4);
  let left = amount;
  return Array.from({ length: count }, (_, i): Item => {
    const own = i === count - 1 ? left : BigInt(r.whole(-500, 9_000));
    left -= own;
    const base = { id: `i${i}`, amount: write(own, currency) };
    if (card && r.next() < 0.25) return { ...base, personal: true };
    return {
      ...base,
      category: r.pick(['supplies', 'meal', 'phone']),
      tax: randomTax(r, own, currency),
      split: randomSplit(r, own, currency),
    };
  });
}

const cut = (r: Random, amount: bigint): bigint => (amount * BigInt(r.whole(0, 1000))) / 1000n;

function randomTax(r: Random, amount: bigint, currency: string): TaxEntry[] {
  const codes = taxCodes.map((c) => c.code).filter((c) => c !== 'PT-SA');
  if (r.next() < 0.35) return [];
  if (r.next() < 0.6) {
    const code = r.pick(codes);
    const given = code !== 'IE-0' && code !== 'IE-SA' && r.next() < 0.3;
    return [{ code, ...(given ? { tax: write(cut(r, amount), currency) } : {}) }];
  }
  const first = cut(r, amount);
  const second = cut(r, amount - first);
  return [
    { code: r.pick(codes), gross: write(first, currency) },
    { code: r.pick(codes), gross: write(second, currency) },
  ];
}

function randomSplit(r: Random, amount: bigint, currency: string): Split | null {
  const coding = (i: number) => ({ costCentre: String(410 + i) });
  const count = r.whole(1, 6);
  const shares = (value: (i: number) => string | null) =>
    Array.from({ length: count }, (_, i) => ({ coding: coding(i), value: value(i) }));
  switch (r.whole(0, 5)) {
    case 0:
      return { by: 'equal', shares: shares(() => null) };
    case 1:
      return { by: 'weight', shares: shares((i) => (i === 0 ? '1.5' : (r.next() * 10).toFixed(2))) };
    case 2: {
      let left = 100;
      return { by: 'percent', shares: shares((i) => (i === count - 1 ? 'rest' : String((left -= 1 + i) && 1 + i))) };
    }
    case 3: {
      let left = amount;
      return {
        by: 'amount',
        shares: shares((i) => {
          const own = i === count - 1 ? left : cut(r, left);
          left -= own;
          return write(own, currency);
        }),
      };
    }
    default:
      return null;
  }
}
