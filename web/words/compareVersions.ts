import type { Assessment } from '../../core/documents/assessment.schema.ts';
import type { Claim, Line } from '../../core/documents/case.schema.ts';
import { canonical } from '../../core/numbers/canonical.ts';

/** A version of a claim with the figures computed of it. */
export interface Version {
  claim: Claim;
  assessment: Assessment;
}
export interface FieldChange {
  field: string;
  before: string;
  now: string;
}
/** A line that is new, gone or changed since, or (line null) what is said of the claim as a whole. */
export interface LineChange {
  line: string | null;
  title: string;
  kind: 'new' | 'gone' | 'changed';
  fields: FieldChange[];
}

const NAMES: Partial<Record<keyof Line, string>> = {
  paidBy: 'who paid',
  rebill: 'charged on to',
  nights: 'nights',
  receipt: 'receipt as read',
};
/** Stands in the list by itself, or is no matter of the reader. */
const APART: readonly string[] = ['id', 'currency'];

/** Since which version changes are shown: the chosen one, else the one this person looked at before, else the last one. */
export const sinceOf = (chosen: number | null, seen: number | null, version: number): number =>
  chosen ?? seen ?? version - 1;

/** What changed of a claim as it is seen since an earlier version. */
export const changesSince = (
  earlier: Version,
  { document, assessment }: { document: { claim: Claim }; assessment: Assessment },
): LineChange[] => compareVersions(earlier, { claim: document.claim, assessment });

/** What changed from one version of a claim to another: the claim as a whole first, then line by line, field by field. */
function compareVersions(before: Version, now: Version): LineChange[] {
  const [was, is] = [linesOf(before), linesOf(now)];
  const whole = fieldsOf(HEADER, before.claim, now.claim, (v) => sayValue(v, ''));
  const ids = [...new Set([...was.keys(), ...is.keys()])];
  return [
    ...(whole.length > 0 ? [{ line: null, title: 'The claim', kind: 'changed' as const, fields: whole }] : []),
    ...ids.flatMap((id) => compareLine(id, was.get(id), is.get(id))),
  ];
}

interface LineFacts {
  line: Line;
  inClaim: string | null;
}
const linesOf = ({ claim, assessment }: Version): Map<string, LineFacts> =>
  new Map(
    claim.lines.map((line) => [
      line.id,
      { line, inClaim: assessment.lines.find((l) => l.id === line.id)?.claimAmount ?? null },
    ]),
  );

const HEADER = ['purpose', 'from', 'to', 'coding', 'plan', 'advances'] as const;

function compareLine(id: string, was: LineFacts | undefined, is: LineFacts | undefined): LineChange[] {
  const { line } = (is ?? was)!;
  const title = `${line.merchant ?? line.description ?? 'Line'} ${line.amount} ${line.currency}`;
  if (!was || !is) return [{ line: id, title, kind: was ? 'gone' : 'new', fields: [] }];
  const keys = [...new Set([...Object.keys(was.line), ...Object.keys(is.line)])].filter((k) => !APART.includes(k));
  const fields = fieldsOf(keys as (keyof Line)[], was.line, is.line, (v, of) => sayValue(v, of.currency));
  const figure =
    was.inClaim !== is.inClaim && was.line.amount === is.line.amount
      ? [{ field: 'in the claim’s currency', before: was.inClaim ?? 'unknown', now: is.inClaim ?? 'unknown' }]
      : [];
  const all = [...fields, ...figure];
  return all.length > 0 ? [{ line: id, title, kind: 'changed', fields: all }] : [];
}

function fieldsOf<Of extends object>(
  keys: readonly (keyof Of & string)[],
  was: Of,
  is: Of,
  say: (value: unknown, of: Of) => string,
): FieldChange[] {
  const plain = (of: Of, key: keyof Of) => canonical(isNothing(of[key]) ? null : of[key]);
  return keys
    .filter((key) => plain(was, key) !== plain(is, key))
    .map((key) => ({
      field: NAMES[key as keyof Line] ?? key,
      before: say(was[key], was),
      now: say(is[key], is),
    }));
}

const isNothing = (value: unknown): boolean =>
  value == null || value === false || (typeof value === 'object' && Object.values(value).every((v) => v == null));

/** A value of a claim in words. Example: {costCentre: "410", fund: "10"} → "410 · 10"; nothing → "–". */
export function sayValue(value: unknown, currency: string): string {
  if (isNothing(value)) return '–';
  if (value === true) return 'yes';
  if (typeof value === 'string') return /^-?\d+\.\d+$/.test(value) && currency ? `${value} ${currency}` : value;
  if (typeof value === 'number') return String(value);
  if (Array.isArray(value)) return value.map((v) => sayValue(v, currency)).join(', ');
  const of = value as Record<string, unknown>;
  if ('shares' in of) return `by ${String(of.by)}: ${(of.shares as unknown[]).map((s) => sayValue(s, '')).join(', ')}`;
  return Object.values(of)
    .filter((v) => !isNothing(v))
    .map((v) => sayValue(v, currency))
    .join(' · ');
}
