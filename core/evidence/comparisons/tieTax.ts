import type { OpenCase } from '../../figures/figures.types.ts';
import type { AssessedLine } from '../../documents/assessment.schema.ts';
import type { ComputedFinding } from '../../documents/finding.ts';
import type { Item, Line, TaxEntry } from '../../documents/case.schema.ts';
import { fromMinor, readAmount, toMinor } from '../../numbers/amount.ts';
import { fractionToDecimal } from '../../numbers/decimal.ts';
import { fraction, plus, ONE, ZERO } from '../../numbers/fraction.ts';
import { componentsOf, includedTax } from '../../figures/tax/taxEntry.ts';
import { fromComparisons } from './_lib/states.ts';
import type { Comparison, Step, Tie } from './tie.types.ts';

const OFF = new Set(['tax-base', 'tax-off', 'tax-country', 'tax-unregistered']);

/**
 * Tax claimed with tax computed, and how much of it is reclaimable. Tolerance: one minor unit, by rule. Example: 18.71
 * on the receipt, 18.70 computed → tied; 19.00 → off by 0.30.
 */
export function tieTax(open: OpenCase, line: Line, assessed: AssessedLine, findings: readonly ComputedFinding[]): Tie {
  const parts: (Line | Item)[] = line.items?.length ? line.items : [line];
  const comparisons = parts.flatMap((part, index) =>
    compareEntries(open, line, part, assessed.parts[index]!, findings),
  );
  const steps = parts.flatMap((part) => (part.tax ?? []).flatMap((entry) => stepsOf(open, line, part, entry)));
  const off = comparisons.find((c) => c.state === 'off');
  return { ...fromComparisons(line.id, 'tax', comparisons), difference: off?.difference ?? null, steps };
}

function compareEntries(
  open: OpenCase,
  line: Line,
  part: Line | Item,
  assessed: AssessedLine['parts'][number],
  findings: readonly ComputedFinding[],
): Comparison[] {
  const own = findings.filter((f) => f.line === line.id && f.item === assessed.item && f.code.startsWith('tax-'));
  return (part.tax ?? []).flatMap((entry) => {
    const rows = assessed.tax.filter((row) => row.code === entry.code);
    const about = own.filter((f) => f.taxCode === entry.code || f.code === 'tax-base');
    const bad = about.find((f) => OFF.has(f.code));
    const back = rows.map((row) => row.recoverable);
    const reclaimable: Comparison = {
      fact: `${entry.code} reclaimable`,
      claimed: total(back, line.currency),
      evidence:
        about
          .filter((f) => !OFF.has(f.code))
          .map((f) => f.says)
          .join(' ') || null,
      difference: null,
      tolerance: null,
      state: 'none',
    };
    const comparison: Comparison = {
      fact: `${entry.code} tax`,
      claimed:
        entry.tax
        ?? (part.cut
          ? computed(open, line, part, entry)
          : total(
              rows.map((row) => row.tax),
              line.currency,
            )),
      evidence: computed(open, line, part, entry),
      difference: bad ? (bad.difference ?? shortName(bad.code)) : null,
      tolerance: fromMinor(1n, line.currency),
      state: bad ? 'off' : 'tied',
    };
    return [comparison, reclaimable];
  });
}

function computed(open: OpenCase, line: Line, part: Line | Item, entry: TaxEntry): string | null {
  const code = open.taxCodes.on(entry.code, line.date)!;
  const gross = readAmount(entry.gross ?? part.amount, line.currency);
  if (gross === null || code.selfAssessed) return null;
  const figures = includedTax(gross, componentsOf(code), null);
  return figures.ok
    ? fromMinor(
        figures.taxes.reduce((a, t) => a + t, 0n),
        line.currency,
      )
    : null;
}

function stepsOf(open: OpenCase, line: Line, part: Line | Item, entry: TaxEntry): Step[] {
  const code = open.taxCodes.on(entry.code, line.date)!;
  const components = componentsOf(code);
  const base = code.selfAssessed ? ONE : components.reduce((a, c) => plus(a, c.factor), plus(ONE, ZERO));
  const gross = toMinor(entry.gross ?? part.amount, line.currency);
  return [
    {
      label: `${entry.code} covers`,
      value: `${fromMinor(gross, line.currency)} ${line.currency}`,
      source: code.name ?? null,
    },
    ...components.map((c) => {
      const exact = fraction(gross * c.factor.n * base.d, c.factor.d * base.n * 10n ** decimals(line.currency));
      return {
        label: `${c.id ?? 'Tax'}: gross × ${fractionToDecimal(c.factor, 6)} ÷ ${fractionToDecimal(base, 6)}, exact`,
        value: fractionToDecimal(exact, 8),
        source: `recovery ${fractionToDecimal({ n: c.recovery.n * 100n, d: c.recovery.d }, 4)} %`,
      };
    }),
  ];
}

const decimals = (currency: string): bigint => BigInt(fromMinor(0n, currency).split('.')[1]?.length ?? 0);

function total(figures: (string | null)[], currency: string): string | null {
  if (figures.includes(null)) return null;
  return fromMinor(
    figures.reduce((a, f) => a + toMinor(f!, currency), 0n),
    currency,
  );
}

const shortName = (code: string): string => code.replace('tax-', '').replace('-', ' ');
