import type { z } from 'zod';
import { caseSchema, type Case } from './case.schema.ts';
import { checkCase } from './checkCase.ts';
import type { Problem } from './problem.ts';
import { sayIssue } from './sayIssue.ts';

export type ReadCase = { ok: true; case: Case } | { ok: false; problems: Problem[] };

/**
 * Validates parsed JSON as an ebbet-case/1. The problems come in the order of the document's rules, never empty.
 * Example: {} → not ok, first "format".
 */
export function readCase(json: unknown): ReadCase {
  const parsed = caseSchema.safeParse(json, { error: sayIssue });
  if (!parsed.success) return { ok: false, problems: parsed.error.issues.map(toProblem) };
  const problems = checkCase(parsed.data);
  return problems.length > 0 ? { ok: false, problems } : { ok: true, case: parsed.data };
}

/**
 * The first thing wrong with parsed JSON by a schema, or null. Example: a string where a number is due → its path and
 * why; what fits → null.
 */
export function firstProblem(schema: z.ZodType, json: unknown): Problem | null {
  const parsed = schema.safeParse(json, { error: sayIssue });
  return parsed.success ? null : toProblem(parsed.error.issues[0]!);
}

/** An issue of a schema as a problem at its path; a field nobody knows is at its own. */
export function toProblem(issue: z.core.$ZodIssue): Problem {
  const path = issue.path.map((p) => (typeof p === 'symbol' ? String(p) : p));
  if (issue.code === 'unrecognized_keys') return { path: [...path, issue.keys[0]!], message: 'is not a known field' };
  return { path, message: issue.message };
}

/**
 * A problem as a sentence that names its field: "revision is missing."; what does not go on from a name follows a colon, as
 * in "reason: Say why in a few words." `place` writes where it is.
 */
export function sayProblem({ path, message }: Problem, place = writePath): string {
  const where = path.length === 0 ? 'What was sent' : place(path);
  const joined = /^(?:is|has|have|holds?|must|does|are)\b/.test(message)
    ? `${where} ${message}`
    : `${where}: ${message}`;
  return /[.!?]$/.test(joined) ? joined : `${joined}.`;
}

/**
 * "claim.lines[0].amount"; the document itself is "document". ["claim", "lines", 0, "amount"] →
 * "claim.lines[0].amount".
 */
export function writePath(path: Problem['path']): string {
  if (path.length === 0) return 'document';
  return path.map((p, i) => (typeof p === 'number' ? `[${p}]` : i === 0 ? p : `.${p}`)).join('');
}

/** A path as people read it: ["lines", 0, "tripFrom"] → "line 1, trip from"; ["set", "amount"] → "amount". */
export function sayPath(path: Problem['path']): string {
  const words: string[] = [];
  for (const [i, part] of path.entries()) {
    if (typeof part === 'number') words.push(`${singular(words.pop() ?? 'row')} ${part + 1}`);
    else if (part !== 'set' || i === path.length - 1) words.push(part.replace(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`));
  }
  return words.join(', ');
}
const singular = (name: string): string => name.replace(/ies$/, 'y').replace(/(?<!s)s$/, '');
