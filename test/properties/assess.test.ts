import { describe, expect, it } from 'vitest';
import { assess } from '../../core/assess/assess.ts';
import type { Assessment } from '../../core/documents/assessment.schema.ts';
import { assessmentSchema } from '../../core/documents/assessment.schema.ts';
import type { Case, Line } from '../../core/documents/case.schema.ts';
import { readCase } from '../../core/documents/readCase.ts';
import { toMinor } from '../../core/numbers/amount.ts';
import { plainAssess } from '../plain/plainAssess.ts';
import { randomCase } from '../plain/randomCase.ts';
import { plainOf, readPlain } from '../plain/readPlain.ts';

// Mutation runs take fewer: there, one disagreement is enough.
const CASES = Number(process.env.EBBET_RANDOM_CASES ?? 3000);
const seeds = Array.from({ length: CASES }, (_, i) => i + 1);
const cases: [Case, Assessment][] = seeds.map((seed) => {
  const document = randomCase(seed);
  const read = readCase(document);
  if (!read.ok) throw new Error(`seed ${seed}: ${JSON.stringify(read.problems[0])}`);
  return [read.case, assess(read.case)];
});
const big = (amount: string | null, currency: string) => toMinor(amount ?? '', currency);
const sum = (amounts: (string | null)[], currency: string) => amounts.reduce((a, x) => a + big(x, currency), 0n);
const ledgerOf = (document: Case) => document.book.entities[0]!.currency;

describe(`on ${CASES} random cases`, () => {
  it('every figure agrees with the plain implementation', () => {
    for (const [i, [document, assessment]] of cases.entries()) {
      const broken = assessment.findings.some(
        (f) => f.code === 'tax-base' || f.code === 'split-off' || f.code === 'items-off',
      );
      expect([i + 1, broken]).toEqual([i + 1, false]);
      expect({ seed: i + 1, ...plainOf(assessment) }).toEqual({ seed: i + 1, ...plainAssess(readPlain(document)) });
    }
  });

  it('the cases hold what they are meant to try', () => {
    const codes = new Set(cases.flatMap(([, a]) => a.findings.map((f) => f.code)));
    expect([...codes].sort()).toEqual(
      expect.arrayContaining([
        'rate-missing',
        'rate-off',
        'tax-foreign',
        'tax-number-missing',
        'tax-off',
        'cut',
        'plan-over',
      ]),
    );
    expect(cases.filter(([, a]) => a.journal.length > 0).length).toBeGreaterThan(CASES / 2);
    expect(
      cases.some(([, a]) => a.settlement.advances.filter((x) => x.applied && /[1-9]/.test(x.applied)).length > 1),
    ).toBe(true);
    expect(
      cases.some(([, a]) => a.settlement.due !== null && !/[1-9]/.test(a.settlement.due) && a.journal.length > 0),
    ).toBe(true);
  });

  it('the journal balances, or is empty because a figure is missing', () => {
    for (const [document, { journal, findings, lines }] of cases) {
      const ledger = ledgerOf(document);
      expect(
        sum(
          journal.map((r) => r.debit),
          ledger,
        ),
      ).toBe(
        sum(
          journal.map((r) => r.credit),
          ledger,
        ),
      );
      if (journal.length === 0 && lines.some((l) => l.ledgerAmount !== null && /[1-9]/.test(l.ledgerAmount)))
        expect(findings.some((f) => f.severity === 'stop')).toBe(true);
    }
  });

  it('nothing is lost in any column: shares add up to parts, parts to lines', () => {
    for (const [document, { lines }] of cases)
      for (const [i, line] of lines.entries()) {
        const { currency } = document.claim.lines[i]!;
        if (line.claimAmount === null || line.ledgerAmount === null) continue;
        expect(
          sum(
            line.parts.map((p) => p.claimAmount),
            document.claim.currency,
          ),
        ).toBe(big(line.claimAmount, document.claim.currency));
        expect(
          sum(
            line.parts.map((p) => p.ledgerAmount),
            ledgerOf(document),
          ),
        ).toBe(big(line.ledgerAmount, ledgerOf(document)));
        for (const part of line.parts.filter((p) => !p.personal)) {
          expect(
            sum(
              part.shares.map((s) => s.ledgerGross),
              ledgerOf(document),
            ),
          ).toBe(big(part.ledgerAmount, ledgerOf(document)));
          expect(
            sum(
              part.shares.map((s) => s.recoverable),
              currency,
            ),
          ).toBe(
            sum(
              part.tax.map((t) => t.recoverable),
              currency,
            ),
          );
          expect(
            sum(
              part.shares.map((s) => s.ledgerRecoverable),
              ledgerOf(document),
            ),
          ).toBe(
            sum(
              part.tax.map((t) => t.ledgerRecoverable),
              ledgerOf(document),
            ),
          );
          for (const s of part.shares)
            expect(big(s.cost, currency)).toBe(
              big(s.gross, currency) - big(s.recoverable, currency) + big(s.selfAssessed, currency),
            );
        }
      }
  });

  it('the settlement can be checked: due − applied = payable, never more than is outstanding', () => {
    for (const [document, { settlement }] of cases) {
      if (settlement.payable === null) continue;
      const { currency } = document.claim;
      const due = big(settlement.due, currency);
      const left =
        due
        - sum(
          settlement.advances.map((a) => a.applied),
          currency,
        );
      expect(big(settlement.payable, currency)).toBe(left > 0n ? left : 0n);
      for (const advance of settlement.advances) {
        const row = document.book.advances!.find((a) => a.id === advance.advance)!;
        expect(big(advance.left, row.currency)).toBeGreaterThanOrEqual(0n);
        expect(big(advance.advancePart, row.currency) + big(advance.left, row.currency)).toBe(
          big(row.outstanding, row.currency),
        );
      }
    }
  });

  it('the order of lines does not matter to their figures or to what is due', () => {
    for (const [document, assessment] of cases) {
      const reversed = assess({
        ...document,
        claim: { ...document.claim, lines: [...document.claim.lines].reverse() },
      });
      expect(reversed.settlement.due).toBe(assessment.settlement.due);
      expect([...reversed.lines].reverse()).toEqual(assessment.lines);
    }
  });

  it('negating every amount negates every figure of the lines', () => {
    const minus = (x: string | null) => (x === null || !/[1-9]/.test(x) ? x : x.startsWith('-') ? x.slice(1) : `-${x}`);
    const negate = (line: Line): Line => ({
      ...line,
      amount: minus(line.amount)!,
      ...(line.rate?.kind === 'card'
        ? { rate: { kind: 'card', settled: { ...line.rate.settled, amount: minus(line.rate.settled.amount)! } } }
        : {}),
      cut: line.cut && { ...line.cut, amount: minus(line.cut.amount)! },
      tax: line.tax?.map((t) => ({
        ...t,
        ...(t.gross ? { gross: minus(t.gross)! } : {}),
        ...(t.tax ? { tax: minus(t.tax)! } : {}),
      })),
      split:
        line.split?.by === 'amount'
          ? {
              ...line.split,
              shares: line.split.shares.map((s) => ({ ...s, value: s.value === 'rest' ? 'rest' : minus(s.value!) })),
            }
          : line.split,
      items: line.items?.map(
        (item) => negate(item as unknown as Line) as unknown as NonNullable<Line['items']>[number],
      ),
    });
    for (const [document, assessment] of cases) {
      const lines = assess({
        ...document,
        claim: { ...document.claim, lines: document.claim.lines.map(negate) },
      }).lines;
      expect(lines.map((l) => [l.claimAmount, l.ledgerAmount])).toEqual(
        assessment.lines.map((l) => [minus(l.claimAmount), minus(l.ledgerAmount)]),
      );
      const shares = (of: Assessment['lines']) =>
        of.flatMap((l) => l.parts.flatMap((p) => p.shares.map((s) => s.ledgerCost)));
      expect(shares(lines)).toEqual(shares(assessment.lines).map(minus));
    }
  });

  it('every assessment is a valid ebbet-assessment/1, and survives being written and read', () => {
    for (const [, assessment] of cases.slice(0, 500)) {
      expect(assessmentSchema.safeParse(assessment).error?.issues ?? []).toEqual([]);
      expect(JSON.parse(JSON.stringify(assessment))).toEqual(assessment);
    }
  });
});

it('scaling: a rate ten times as high gives ten times the amount before rounding', () => {
  const at = (rate: string) => {
    const document = randomCase(1, 0);
    document.claim.currency = 'EUR';
    document.book.rates = [{ from: 'BHD', to: 'EUR', date: '2026-03-02', rate }];
    document.claim.advances = [];
    document.claim.lines = [
      { id: '1', date: '2026-03-02', paidBy: 'own', category: 'supplies', amount: '10.000', currency: 'BHD' },
    ];
    document.book.entities[0]!.rateDate = 'line';
    return toMinor(assess(document).lines[0]!.claimAmount!, 'EUR');
  };
  expect(at('24.5')).toBe(10n * at('2.45'));
});

it('a case of 5,000 lines works', () => {
  const read = readCase(randomCase(7, 5000));
  expect(read.ok && assess(read.case).lines).toHaveLength(5000);
});
