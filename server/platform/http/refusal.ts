import type { Problem } from '../../../core/documents/problem.ts';
import { sayPath, sayProblem } from '../../../core/documents/readCase.ts';
import { REFUSALS, sayRefusal, type RefusalCode } from '../../../contract/refusals.ts';

/** A no with its code and numbers; thrown so that a transaction rolls back, and answered in one place. */
export class Refused extends Error {
  readonly code: RefusalCode;
  readonly numbers: Record<string, unknown>;

  constructor(code: RefusalCode, numbers: Record<string, unknown> = {}) {
    super(code);
    this.code = code;
    this.numbers = numbers;
  }

  get status(): number {
    return REFUSALS[this.code][0];
  }

  get says(): string {
    return sayRefusal(this.code, this.numbers);
  }
}

/** The refusal of what does not fit a schema or a document's rules, at the path of its fault. */
export const invalid = (problem: Problem): Refused =>
  new Refused('invalid', { problem: sayProblem(problem, sayPath), path: problem.path.join('.') });
