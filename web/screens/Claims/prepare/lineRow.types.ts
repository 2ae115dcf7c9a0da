import type { Line } from '../../../../core/documents/case.schema.ts';
import type { Chart } from '../../../api/chart.ts';
import type { ClaimAnswer, MakerView } from '../../../api/claims.ts';
import type { Draft } from './useDraft.ts';

/** A line of the table, where it stands in it, and what is told of what becomes of it. */
export interface LineRowProps {
  view: MakerView;
  line: Line;
  row: number;
  draft: Draft;
  chart: Chart | undefined;
  open: boolean;
  onToggle: () => void;
  chosen: boolean;
  onChoose: () => void;
  onRemove: () => void;
  onChanged: (next: ClaimAnswer) => void;
  onFail: (error: unknown) => void;
}
