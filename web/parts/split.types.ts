import type { ShareRow } from '../../core/documents/assessment.schema.ts';
import type { Coding, Line, Split } from '../../core/documents/case.schema.ts';
import type { Chart } from '../api/chart.ts';

/** A split with what it divides and what its shares come to. */
export interface Division {
  split: Split;
  figures: readonly ShareRow[];
  /** What no share has yet; null while nothing is left, or it is not known. */
  left?: ShareRow | null;
  line: Pick<Line, 'date' | 'currency'>;
  chart: Chart | undefined;
  /** What applies where a share says nothing. */
  inherited: Coding;
  ledgerCurrency: string;
  set: (next: Split | null) => void;
}
