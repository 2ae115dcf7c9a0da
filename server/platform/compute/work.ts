import { reviewCase } from '../../../core/evidence/comparisons/reviewCase.ts';
import { pairUp } from '../../../core/evidence/matching/pairUp.ts';

/** What is computed beside the server's own thread when there is much of it. */
const WORK = { reviewCase, pairUp };
export type Work = typeof WORK;
export interface WorkTask {
  name: keyof Work;
  args: readonly unknown[];
}

export const computeHere = ({ name, args }: WorkTask): unknown =>
  (WORK[name] as (...all: readonly unknown[]) => unknown)(...args);
