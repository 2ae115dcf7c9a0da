import type { LineFigures, OpenCase, PartFigures, ShareFigures } from '../figures.types.ts';
import { holdsOn } from '../../numbers/isoDate.ts';
import type { Line } from '../../documents/case.schema.ts';
import type { Codes, CodingRule, Dimension, DimensionValue } from '../../documents/rules.schema.ts';
import { fromMinor, toMinor } from '../../numbers/amount.ts';
import type { Verdict } from '../policy/policy.types.ts';

/** One share with what rules look at: its codes with account and category, on the line's date. */
interface CodedShare {
  line: Line;
  item: string | null;
  category: string;
  codes: Record<string, string>;
  share: ShareFigures;
}

/**
 * The rules of the chart applied to a claim: every code exists and holds on the line's date and for its category, every
 * combination is one the coding rules allow, and no budget or cap is exceeded. A book without dimensions has no chart
 * to check against. The owner of a code is named with what is said about it. Example: a project without the spend type
 * its rule requires → one verdict, a stop.
 */
export function judgeCoding(open: OpenCase, lines: readonly LineFigures[]): Verdict[] {
  const { dimensions, codingRules } = open.case.book;
  if (!dimensions?.length && !codingRules?.length) return [];
  const shares = lines.flatMap(({ line, parts }) => parts.flatMap((part) => sharesOf(line, part)));
  const chart = dimensions ?? [];
  return [
    ...(chart.length > 0 ? shares.flatMap((share) => judgeCodes(chart, share)) : []),
    ...(codingRules ?? []).flatMap((rule) => shares.flatMap((share) => judgeRule(rule, share))),
    ...chart.flatMap((dimension) => dimension.values.flatMap((value) => judgeBudget(open, dimension, value, shares))),
  ];
}

function sharesOf(line: Line, part: PartFigures): CodedShare[] {
  const category = (line.items?.find((i) => i.id === part.item) ?? line).category ?? '';
  return part.shares.map((share) => ({
    line,
    item: part.item,
    category,
    share,
    codes: { ...share.coding, account: share.account, category },
  }));
}

function judgeCodes(chart: readonly Dimension[], coded: CodedShare): Verdict[] {
  return Object.entries(coded.share.coding).map(([dimension, code]) => {
    const values = chart.find((d) => d.id === dimension)?.values.filter((v) => v.code === code) ?? [];
    const value = values.find((v) => holdsOn(v, coded.line.date));
    const owner = (value ?? values[0])?.owner ?? null;
    const subject = `${dimension} ${code}`;
    if (values.length === 0)
      return codingVerdict('code-unknown', coded, subject, 'does not exist. Choose another code.', owner);
    if (!value)
      return codingVerdict(
        'code-date',
        coded,
        subject,
        `does not hold on ${coded.line.date}. Choose another code.`,
        owner,
      );
    if (value.categories && !value.categories.includes(coded.category))
      return codingVerdict(
        'code-category',
        coded,
        subject,
        `does not take the category ${coded.category}. Choose another code or category.`,
        owner,
      );
    return codingVerdict('code', coded, subject, null, owner);
  });
}

function codingVerdict(
  rule: string,
  { line, item }: CodedShare,
  subject: string,
  wrong: string | null,
  owner: string | null,
): Verdict {
  const ask = wrong && owner ? ` Ask ${owner}.` : '';
  const says = wrong ? `${subject} ${wrong}${ask}` : subject;
  const empty = { actual: null, allowed: null, unit: null, difference: null };
  return {
    rule,
    kind: 'coding',
    severity: 'stop',
    kept: wrong === null,
    line: line.id,
    item,
    subject,
    ...empty,
    says,
    owner,
  };
}

/** A rule speaks of shares that fit its `when`; then what it requires must be there, and allow and forbid must hold. */
function judgeRule(rule: CodingRule, coded: CodedShare): Verdict[] {
  if (!holdsOn(rule, coded.line.date) || !fits(rule.when ?? {}, coded.codes)) return [];
  const { codes } = coded;
  const missing = (rule.require ?? []).filter((dimension) => !codes[dimension]);
  const outside = Object.entries(rule.allow ?? {}).filter(
    ([d, allowed]) => codes[d] && allowed !== '*' && !allowed.includes(codes[d]),
  );
  const forbidden = Object.entries(rule.forbid ?? {}).filter(
    ([d, denied]) => codes[d] && (denied === '*' || denied.includes(codes[d])),
  );
  const problems = [
    ...missing.map((d) => `needs a ${d}`),
    ...outside.map(([d, allowed]) => `takes ${d} ${(allowed as string[]).join(' or ')}, not ${codes[d]}`),
    ...forbidden.map(([d]) => `does not go with ${d} ${codes[d]}`),
  ];
  const subject =
    Object.keys(rule.when ?? {})
      .map((d) => `${d} ${codes[d]}`)
      .join(', ') || 'the coding';
  const owner = rule.owner ?? null;
  const kept = problems.length === 0;
  const says = kept ? subject : (rule.says ?? `${subject} ${problems.join('; ')}.${owner ? ` Ask ${owner}.` : ''}`);
  const empty = { actual: null, allowed: null, unit: null, difference: null };
  return [
    {
      rule: rule.id,
      kind: 'coding',
      severity: rule.severity,
      kept,
      line: coded.line.id,
      item: coded.item,
      subject,
      ...empty,
      says,
      owner,
    },
  ];
}

const fits = (when: Codes, codes: Record<string, string>): boolean =>
  Object.entries(when).every(
    ([dimension, wanted]) => codes[dimension] && (wanted === '*' || wanted.includes(codes[dimension])),
  );

/** What the claim charges to a code against what is left of its budget, and of its caps by category; ledger cost. */
function judgeBudget(
  open: OpenCase,
  dimension: Dimension,
  value: DimensionValue,
  shares: readonly CodedShare[],
): Verdict[] {
  const charged = shares.filter((s) => s.codes[dimension.id] === value.code && holdsOn(value, s.line.date));
  if (charged.length === 0) return [];
  const whole = value.left == null ? [] : judgeLeft(open, `${dimension.id} ${value.code}`, value, value.left, charged);
  const caps = (value.caps ?? []).flatMap((cap) => {
    const own = charged.filter((s) => s.category === cap.category);
    return own.length > 0
      ? judgeLeft(open, `${dimension.id} ${value.code}, ${cap.category}`, value, cap.left, own)
      : [];
  });
  return [...whole, ...caps];
}

function judgeLeft(
  open: OpenCase,
  subject: string,
  value: DimensionValue,
  left: string,
  charged: readonly CodedShare[],
): Verdict[] {
  const currency = open.ledgerCurrency;
  const cost = charged.reduce((a, s) => a + (s.share.ledgerCost ?? 0n), 0n);
  const over = cost - toMinor(left, currency);
  const kept = over <= 0n;
  const difference = kept ? null : fromMinor(over, currency);
  const owner = value.owner ?? null;
  const says = kept
    ? subject
    : `${subject} has ${left} ${currency} left and is charged ${fromMinor(cost, currency)}: ${difference} too much.${owner ? ` Ask ${owner}.` : ''}`;
  return eachPartOnce(charged).map(({ line, item }) => ({
    rule: 'budget-over',
    kind: 'budget' as const,
    severity: 'stop' as const,
    kept,
    line: line.id,
    item,
    subject,
    actual: fromMinor(cost, currency),
    allowed: left,
    unit: currency,
    difference,
    says,
    owner,
  }));
}

function eachPartOnce(shares: readonly CodedShare[]): CodedShare[] {
  const seen = new Set<string>();
  return shares.filter(({ line, item }) => {
    const key = JSON.stringify([line.id, item]);
    return seen.has(key) ? false : seen.add(key);
  });
}
