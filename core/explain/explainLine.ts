import { assessLine } from '../assess/assessLine.ts';
import { rateDateOf } from '../figures/rateDateOf.ts';
import type { LineFigures, OpenCase, PartFigures } from '../figures/figures.types.ts';
import { entityOn, openCase } from '../figures/openCase.ts';
import { lineConverter, type Converter } from '../figures/currency/converter.ts';
import type { Case, Item, Line, Split, TaxEntry } from '../documents/case.schema.ts';
import { fromMinor, minorPerMajor, toMinor } from '../numbers/amount.ts';
import { fractionToDecimal } from '../numbers/decimal.ts';
import { fraction, plus, ONE, times, type Fraction } from '../numbers/fraction.ts';
import { splitWeights } from '../figures/split/splitWeights.ts';
import { componentsOf } from '../figures/tax/taxEntry.ts';
import { rebillAmount } from '../figures/computed/rebillAmount.ts';
import { explainSource } from './explainComputed.ts';
import type { ExplainedRate, Explanation } from './explain.types.ts';

const PLACES = 12;
const show = (value: Fraction): string => fractionToDecimal(value, PLACES);

/**
 * How every figure of a line came about, as data: its inputs, the rule by its number in the calculations, the rates
 * with their source and date, the exact and the rounded result. Worked out only when somebody asks; the figures
 * themselves are those of `assess`. Undefined when the case has no such line. Example: 100.00 USD at 0.9001 →
 * claimAmount, "amount × rate", exactly 90.01, result "90.01".
 */
export function explainLine(document: Case, lineId: string): Explanation[] | undefined {
  const line = document.claim.lines.find((l) => l.id === lineId);
  if (!line) return undefined;
  const open = openCase(document);
  const figures = assessLine(open, line);
  return [
    ...[line, ...(line.items ?? [])].flatMap((source) => explainSource(open, line, source)),
    ...explainAmounts(open, line, figures),
    ...explainRebill(open, line, figures),
    ...figures.parts.flatMap((part, index) => explainPart(open, figures, part, index)),
  ];
}

function explainAmounts(open: OpenCase, line: Line, figures: LineFigures): Explanation[] {
  const date = rateDateOf(open, line);
  const targets = [
    ['claimAmount', open.claimCurrency, figures.claimAmount],
    ['ledgerAmount', open.ledgerCurrency, figures.ledgerAmount],
  ] as const;
  return targets.map(([figure, to, result]) => {
    const converter = lineConverter(line, to, open.claimCurrency, open.rates, date);
    return {
      figure,
      line: line.id,
      item: null,
      share: null,
      rule: '5–7',
      inputs: { amount: `${fromMinor(figures.amount, line.currency)} ${line.currency}`, ...broughtInputs(line), date },
      rates: ratesOf(converter),
      formula: formulaOf(line, to),
      exact: converter.factor && show(times(fraction(figures.amount, minorPerMajor(line.currency)), converter.factor)),
      result: result === null ? null : fromMinor(result, to),
      currency: to,
    };
  });
}

function explainRebill(open: OpenCase, line: Line, { claimAmount }: LineFigures): Explanation[] {
  if (!line.rebill) return [];
  const result = rebillAmount(claimAmount, line.rebill);
  const currency = open.claimCurrency;
  const amount = claimAmount === null ? 'not known' : fromMinor(claimAmount, currency);
  const inputs = { amount, 'mark-up': `${line.rebill.markup ?? '0'} %`, to: line.rebill.to };
  return [
    {
      ...{ figure: 'rebilled', line: line.id, item: null, share: null, rule: 'charged on' },
      ...{ inputs, rates: [], formula: 'amount × (1 + mark-up)', exact: null },
      result: result === null ? null : fromMinor(result, currency),
      currency,
    },
  ];
}

function formulaOf(line: Line, to: string): string {
  if (line.currency === to) return 'amount';
  if (line.rate?.kind === 'card') return line.rate.settled.currency === to ? 'settled' : 'settled × rate';
  return line.rate?.kind === 'own' ? 'amount × own rate, carried on by the published rate' : 'amount × rate';
}

function broughtInputs(line: Line): Record<string, string> {
  if (line.rate?.kind === 'card') return { settled: `${line.rate.settled.amount} ${line.rate.settled.currency}` };
  return line.rate?.kind === 'own' ? { 'own rate': line.rate.value } : {};
}

function ratesOf({ rate }: Converter): ExplainedRate[] {
  return (rate?.legs ?? []).map(({ quote, reciprocal }) => ({
    from: reciprocal ? quote.to : quote.from,
    to: reciprocal ? quote.from : quote.to,
    quoted: quote.rate,
    reciprocal,
    date: quote.date,
    source: quote.source ?? null,
  }));
}

function explainPart(open: OpenCase, { line, parts }: LineFigures, part: PartFigures, index: number): Explanation[] {
  if (part.personal) return [];
  const source = line.items?.find((item) => item.id === part.item) ?? line;
  let row = 0;
  const taxes = (source.tax ?? []).flatMap((entry) => {
    const components = componentsOf(open.taxCodes.on(entry.code, line.date)!);
    const rows = part.tax.slice(row, row + components.length);
    row += components.length;
    return explainEntry(open, line, source, part, entry, rows);
  });
  return [
    ...explainItem(open, line, parts, index),
    ...taxes,
    ...explainShares(line, part, source.split ?? null),
    ...explainRecovery(line, part),
  ];
}

/** An item's converted amount is the difference of running sums, so that items add up to their line. */
function explainItem(open: OpenCase, line: Line, parts: readonly PartFigures[], index: number): Explanation[] {
  const part = parts[index]!;
  if (part.item === null) return [];
  const sum = (to: number) => parts.slice(0, to).reduce((a, p) => a + p.amount, 0n);
  const inputs = {
    'sum before': fromMinor(sum(index), line.currency),
    'sum after': fromMinor(sum(index + 1), line.currency),
  };
  const targets = [
    ['claimAmount', open.claimCurrency, part.claimAmount],
    ['ledgerAmount', open.ledgerCurrency, part.ledgerAmount],
  ] as const;
  return targets.map(([figure, currency, result]) => ({
    ...base(line, part, figure, '7'),
    inputs,
    formula: 'converted sum after − converted sum before',
    exact: null,
    result: result === null ? null : fromMinor(result, currency),
    currency,
  }));
}

function explainEntry(
  open: OpenCase,
  line: Line,
  source: Line | Item,
  part: PartFigures,
  entry: TaxEntry,
  rows: PartFigures['tax'],
): Explanation[] {
  const code = open.taxCodes.on(entry.code, line.date)!;
  const components = componentsOf(code);
  const total = code.selfAssessed ? ONE : components.reduce((a, c) => plus(a, c.factor), ONE);
  const gross = rows[0]?.gross ?? toMinor(entry.gross ?? source.amount, line.currency);
  const category = open.categories.on(source.category!, line.date)?.recovery ?? '100';
  const entity = entityOn(open, line.date).recovery ?? '100';
  return rows.flatMap((figures, k) => {
    const component = components[k]!;
    const name = figures.component === null ? entry.code : `${entry.code}/${figures.component}`;
    const exact = fraction(
      gross * component.factor.n * total.d,
      component.factor.d * total.n * minorPerMajor(line.currency),
    );
    const taxInputs: Record<string, string> = {
      code: name,
      gross: fromMinor(gross, line.currency),
      rate: show(component.factor),
    };
    if (figures.given !== null) taxInputs.given = fromMinor(figures.given, line.currency);
    return [
      {
        ...base(line, part, `tax ${name}`, code.selfAssessed ? '12' : entry.tax == null ? '9' : '10'),
        inputs: taxInputs,
        formula: code.selfAssessed
          ? 'gross × rate'
          : entry.tax == null
            ? `gross × rate ÷ ${show(total)}`
            : 'given, divided over the components by their rates',
        exact: show(exact),
        result: figures.tax === null ? null : fromMinor(figures.tax, line.currency),
        currency: line.currency,
      },
      {
        ...base(line, part, `recoverable ${name}`, '11'),
        inputs: {
          tax: figures.tax === null ? '–' : fromMinor(figures.tax, line.currency),
          component: show(times(component.recovery, fraction(100n))),
          category,
          entity,
        },
        formula: 'tax × component % × category % × entity %, or 0 where a condition stands against it',
        exact: null,
        result: figures.recoverable === null ? null : fromMinor(figures.recoverable, line.currency),
        currency: line.currency,
      },
    ];
  });
}

function explainShares(line: Line, part: PartFigures, split: Split | null): Explanation[] {
  const weights = split ? splitWeights(split, part.claimed, line.currency) : null;
  if (!split || !weights?.ok) return [];
  const sum = weights.weights.reduce((a, w) => a + w, 0n);
  return part.shares.map((share, index) => ({
    ...base(line, part, 'gross', '15–16'),
    share: index,
    inputs: {
      amount: fromMinor(part.amount, line.currency),
      by: split.unit ?? split.by,
      weight: `${weights.weights[index]} of ${sum}`,
    },
    formula: 'largest remainder',
    exact:
      sum === 0n ? null : show(fraction(part.amount * weights.weights[index]!, sum * minorPerMajor(line.currency))),
    result: share.gross === null ? null : fromMinor(share.gross, line.currency),
    currency: line.currency,
  }));
}

/** What shares reclaim where the coding of one of them forgoes some of it. */
function explainRecovery(line: Line, part: PartFigures): Explanation[] {
  if (part.shares.every((s) => s.recovery === '100')) return [];
  return part.shares.map((share, index) => ({
    ...base(line, part, 'recoverable', '32'),
    share: index,
    inputs: { coding: `${share.recovery} %` },
    formula: 'each tax divided by the split, × what the coding lets be reclaimed, rounded',
    exact: null,
    result: share.recoverable === null ? null : fromMinor(share.recoverable, line.currency),
    currency: line.currency,
  }));
}

const base = (line: Line, part: PartFigures, figure: string, rule: string) => ({
  figure,
  line: line.id,
  item: part.item,
  share: null as number | null,
  rule,
  rates: [] as ExplainedRate[],
});
