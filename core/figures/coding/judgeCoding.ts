import type { LineFigures, OpenCase, PartFigures, ShareFigures } from '../figures.types.ts';
import { holdsOn } from '../../numbers/isoDate.ts';
import type { Book, Line } from '../../documents/case.schema.ts';
import type { CodingRule, Dimension, DimensionValue } from '../../documents/rules.schema.ts';
import { groupBy } from '../../numbers/groupBy.ts';
import { joined } from '../../numbers/joined.ts';
import { oncePer } from '../../numbers/oncePer.ts';
import { fromMinor, toMinor } from '../../numbers/amount.ts';
import type { Verdict } from '../policy/policy.types.ts';

/** One share with what rules look at: its codes with account and category, on the line's date. */
interface CodedShare {
  line: Line;
  item: string | null;
  category: string;
  /** The category as people call it. */
  spending: string;
  codes: Record<string, string>;
  share: ShareFigures;
}

/**
 * The rules of the chart applied to a claim: every code exists and holds on the line's date and for its category, every
 * combination is one the coding rules allow, and no budget or cap is exceeded. A book without dimensions has no chart
 * to check against; where the accounts are listed, one that is not among them is a stop. The owner of a code is named with what is said about it. Example: a project without the spend type
 * its rule requires → one verdict, a stop.
 */
export function judgeCoding(open: OpenCase, lines: readonly LineFigures[]): Verdict[] {
  const { chart, rules } = chartOf(open.case.book);
  const each = lines.map((line) => ofLine(line, open));
  const shares = joined(each.map((line) => line.shares));
  return joined([
    ...each.map((line) => line.accounts),
    ...each.map((line) => line.codes),
    ...rules.map((_, i) => joined(each.map((line) => line.rules[i]!))),
    ...chart.map((dimension) => judgeBudgets(open, dimension, shares)),
  ]);
}

/** The chart of a book, and its rows by dimension and code. */
const chartOf = oncePer(({ dimensions, codingRules, accounts }: Book) => ({
  chart: dimensions ?? [],
  rules: codingRules ?? [],
  accounts: accounts ? new Set(accounts) : null,
  rows: new Map((dimensions ?? []).map((d) => [d.id, groupBy(d.values, (v) => v.code)])),
}));
type ChartRows = Map<string, Map<string, DimensionValue[]>>;

/** The shares of a line, and what the chart says of each by itself: its account, its codes, and every rule in its place. */
const ofLine = oncePer(({ line, parts }: LineFigures, open: OpenCase) => {
  const { chart, rules, accounts, rows } = chartOf(open.case.book);
  const shares = sharesOf(open, line, parts);
  return {
    shares,
    accounts: accounts ? judgeAccounts(accounts, shares) : [],
    codes: chart.length > 0 ? shares.flatMap((share) => judgeCodes(rows, chart, share)) : [],
    rules: rules.map((rule) => judgeRule(rule, chart, shares)),
  };
});

function sharesOf({ case: { book } }: OpenCase, line: Line, parts: readonly PartFigures[]): CodedShare[] {
  const items = new Map(line.items?.map((item) => [item.id, item]));
  const called = (id: string) => book.categories.find((c) => c.id === id)?.name ?? id;
  return parts.flatMap((part) => {
    const category = (items.get(part.item ?? '') ?? line).category ?? '';
    return part.shares.map((share) => ({
      line,
      item: part.item,
      category,
      spending: called(category),
      share,
      codes: { ...share.coding, account: share.account, category },
    }));
  });
}

/** Shares on accounts that the ledger does not have; nothing is said of those it has. */
function judgeAccounts(accounts: ReadonlySet<string>, shares: readonly CodedShare[]): Verdict[] {
  return shares
    .filter(({ share }) => !accounts.has(share.account))
    .map((coded) =>
      codingVerdict(
        'account-unknown',
        coded,
        `account ${coded.share.account}`,
        'does not exist. Choose another.',
        null,
      ),
    );
}

/** A dimension as people call it. */
const nameIn = (chart: readonly Dimension[], id: string): string => chart.find((d) => d.id === id)?.name ?? id;

function judgeCodes(rows: ChartRows, chart: readonly Dimension[], coded: CodedShare): Verdict[] {
  return Object.entries(coded.share.coding).map(([dimension, code]) => {
    const values = rows.get(dimension)?.get(code) ?? [];
    const value = values.find((v) => holdsOn(v, coded.line.date));
    const owner = (value ?? values[0])?.owner ?? null;
    const subject = `${nameIn(chart, dimension)} ${code}`;
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
        `does not take ${coded.spending}. Choose another code or category.`,
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
    wants: `${subject} exists and holds on ${line.date}.`,
    short: SHORT[rule] ?? '',
    owner,
  };
}

const SHORT: Record<string, string> = {
  'account-unknown': 'unknown',
  'code-unknown': 'unknown',
  'code-date': 'not on that day',
  'code-category': 'not for this',
};

/** A rule speaks of shares that fit its `when`; then what it requires must be there, and allow and forbid must hold. */
function judgeRule(rule: CodingRule, chart: readonly Dimension[], shares: readonly CodedShare[]): Verdict[] {
  const when = Object.entries(rule.when ?? {});
  return shares
    .filter(({ line, codes }) => holdsOn(rule, line.date) && fits(when, codes))
    .map((coded) => judgeShare(rule, chart, when, coded));
}

type When = readonly [dimension: string, wanted: '*' | string[]][];

function judgeShare(
  rule: CodingRule,
  chart: readonly Dimension[],
  when: When,
  { line, item, codes }: CodedShare,
): Verdict {
  const name = (id: string) => nameIn(chart, id);
  const problems = problemsOf(rule, codes, name);
  const subject = when.map(([d]) => `${name(d)} ${codes[d]}`).join(', ') || 'any coding';
  const owner = rule.owner ?? null;
  const kept = problems.length === 0;
  const says = kept ? subject : (rule.says ?? `${subject} ${problems.join('; ')}.${owner ? ` Ask ${owner}.` : ''}`);
  const empty = { actual: null, allowed: null, unit: null, difference: null };
  const { severity } = rule;
  const wants = `With ${subject}: ${wantsOfRule(rule, name)}.`;
  const short = kept ? '' : 'not together';
  const place = { line: line.id, item };
  return { rule: rule.id, kind: 'coding', severity, kept, ...place, subject, ...empty, says, wants, short, owner };
}

/** What a rule of combinations wants, in words. */
function wantsOfRule({ require, allow, forbid }: CodingRule, name: Naming): string {
  const either = (codes: '*' | string[]) => (codes === '*' ? 'any' : codes.join(' or '));
  const parts = [
    ...(require ?? []).map((d) => `a ${name(d)} is needed`),
    ...Object.entries(allow ?? {}).map(([d, codes]) => `${name(d)} is ${either(codes)}`),
    ...Object.entries(forbid ?? {}).map(([d, codes]) => `${name(d)} is not ${either(codes)}`),
  ];
  return parts.join('; ') || 'nothing else is asked';
}

type Naming = (dimension: string) => string;

function problemsOf({ require, allow, forbid }: CodingRule, codes: Record<string, string>, name: Naming): string[] {
  const missing = (require ?? []).filter((dimension) => !codes[dimension]);
  const outside = Object.entries(allow ?? {}).filter(
    ([d, allowed]) => codes[d] && allowed !== '*' && !allowed.includes(codes[d]),
  );
  const forbidden = Object.entries(forbid ?? {}).filter(
    ([d, denied]) => codes[d] && (denied === '*' || denied.includes(codes[d])),
  );
  return [
    ...missing.map((d) => `needs a ${name(d)}`),
    ...outside.map(([d, allowed]) => `takes ${name(d)} ${(allowed as string[]).join(' or ')}, not ${codes[d]}`),
    ...forbidden.map(([d]) => `does not go with ${name(d)} ${codes[d]}`),
  ];
}

const fits = (when: When, codes: Record<string, string>): boolean =>
  when.every(([dimension, wanted]) => codes[dimension] && (wanted === '*' || wanted.includes(codes[dimension])));

/** The budgets of a dimension's codes, in the order of the codes. */
function judgeBudgets(open: OpenCase, dimension: Dimension, shares: readonly CodedShare[]): Verdict[] {
  const byCode = groupBy(shares, (s) => s.codes[dimension.id]);
  return dimension.values.flatMap((value) => judgeBudget(open, dimension, value, byCode.get(value.code) ?? []));
}

/** What the claim charges to a code against what is left of its budget, and of its caps by category; ledger cost. */
function judgeBudget(
  open: OpenCase,
  dimension: Dimension,
  value: DimensionValue,
  shares: readonly CodedShare[],
): Verdict[] {
  const charged = shares.filter((s) => holdsOn(value, s.line.date));
  if (charged.length === 0) return [];
  const whole =
    value.left == null
      ? []
      : judgeLeft(open, `${dimension.name ?? dimension.id} ${value.code}`, value, value.left, charged);
  const caps = (value.caps ?? []).flatMap((cap) => {
    const own = charged.filter((s) => s.category === cap.category);
    return own.length > 0
      ? judgeLeft(open, `${dimension.name ?? dimension.id} ${value.code}, ${own[0]!.spending}`, value, cap.left, own)
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
  const unknown = kept && charged.some((s) => s.share.ledgerCost === null);
  const difference = kept ? null : fromMinor(over, currency);
  const owner = value.owner ?? null;
  const says = kept
    ? subject
    : `${subject} has ${left} ${currency} left and is charged ${fromMinor(cost, currency)}: ${difference} too much.${owner ? ` Ask ${owner}.` : ''}`;
  const verdict = {
    ...{ rule: 'budget-over', kind: 'budget' as const, severity: 'stop' as const },
    ...{ kept, unknown, subject, difference, says, owner },
    actual: unknown ? null : fromMinor(cost, currency),
    allowed: left,
    unit: currency,
    wants: `${subject} has ${left} ${currency} left; the claim as a whole stays within it.`,
    short: unknown ? 'unknown' : 'above',
  };
  return eachPartOnce(charged).map(({ line, item }) => ({ ...verdict, line: line.id, item }));
}

function eachPartOnce(shares: readonly CodedShare[]): CodedShare[] {
  const seen = new Set<string>();
  return shares.filter(({ line, item }) => {
    const key = `${line.id}\n${item ?? ''}`;
    return seen.has(key) ? false : seen.add(key);
  });
}
