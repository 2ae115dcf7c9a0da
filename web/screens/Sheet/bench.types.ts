import type { Undivided } from '../../../core/assess/undivided.ts';
import type { Assessment } from '../../../core/documents/assessment.schema.ts';
import type { Chart } from '../../api/chart.ts';
import type { ClaimView } from '../../api/claims.ts';
import type { Bench } from './bench.ts';
import type { SheetState } from './useSheet.ts';

/** What every bench gets: the claim, what is being edited, and the assessment as it would be with the edit. */
export interface BenchProps {
  sheet: SheetState;
  view: ClaimView;
  bench: Bench;
  assessment: Assessment;
  chart: Chart | undefined;
  /** What no share has yet, of parts that are not divided to the last unit. */
  undivided: readonly Undivided[];
}
