import type { ShownAdvance } from '../../../contract/advances.ts';
import type { ClaimAct } from '../../../core/workflow/lifecycles/claim.ts';
import type { StoredAssessment } from '../../records/claims/assessments.queries.ts';
import type { ShownAttachment } from '../../records/attachments/attachments.queries.ts';
import type { ClaimSurroundings, ShownReceipt } from './view.queries.ts';

/** What every view of a claim is written from. */
export interface Sources {
  around: ClaimSurroundings;
  assessed: StoredAssessment;
  receipts: Record<string, ShownReceipt>;
  attachments: ShownAttachment[];
  advances: ShownAdvance[];
  may: ClaimAct[];
  /** The numbers of the claims alike that whoever looks makes too: of other claims the makers are told nothing. */
  ownAlike: ReadonlySet<string>;
  /** The date a posting would carry now; null once it is posted. */
  proposedDate: string | null;
  /** What it comes to beyond what was approved, while it is under review. */
  raised: string | null;
}
