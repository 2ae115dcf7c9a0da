import type { z } from 'zod';
import { caseSchema, type Case } from './case.schema.ts';
import { checkCase } from './checkCase.ts';
import type { Problem } from './problem.ts';

export type ReadCase = { ok: true; case: Case } | { ok: false; problems: Problem[] };

/**
 * Validates parsed JSON as an ebbet-case/1. The problems come in the order of the document's rules, never empty.
 * Example: {} → not ok, first "format".
 */
export function readCase(json: unknown): ReadCase {
  const parsed = caseSchema.safeParse(json, { reportInput: true });
  if (!parsed.success) return { ok: false, problems: parsed.error.issues.map(toProblem) };
  const problems = checkCase(parsed.data);
  return problems.length > 0 ? { ok: false, problems } : { ok: true, case: parsed.data };
}

/**
 * The first thing wrong with parsed JSON by a schema, or null. Example: a string where a number is due → its path and
 * why; what fits → null.
 */
export function firstProblem(schema: z.ZodType, json: unknown): Problem | null {
  const parsed = schema.safeParse(json, { reportInput: true });
  return parsed.success ? null : toProblem(parsed.error.issues[0]!);
}

function toProblem(issue: z.core.$ZodIssue): Problem {
  const path = issue.path.map((p) => (typeof p === 'symbol' ? String(p) : p));
  if (issue.code === 'unrecognized_keys') return { path: [...path, issue.keys[0]!], message: 'is not a known field' };
  if (issue.code === 'invalid_type' && issue.input === undefined) return { path, message: 'is missing' };
  if (issue.code === 'invalid_union') return { path, message: 'is none of the forms allowed here' };
  return { path, message: issue.message };
}

/**
 * "claim.lines[0].amount"; the document itself is "document". ["claim", "lines", 0, "amount"] →
 * "claim.lines[0].amount".
 */
export function writePath(path: Problem['path']): string {
  if (path.length === 0) return 'document';
  return path.map((p, i) => (typeof p === 'number' ? `[${p}]` : i === 0 ? p : `.${p}`)).join('');
}
